import { Screen } from "../../ui/frame/Screen.tsx";
import { SiteForm } from "./SiteForm.tsx";

/** Shown while there is no site at all. */
export function FirstSite() {
  return (
    <Screen>
      <SiteForm sites={[]} title="Your first site" />
    </Screen>
  );
}
