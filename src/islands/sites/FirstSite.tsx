import { Screen } from "../../ui/frame/Screen.tsx";
import { SiteForm } from "./SiteForm.tsx";
import * as say from "./words.ts";

/** Shown while there is no site at all. */
export function FirstSite() {
  return (
    <Screen>
      <SiteForm sites={[]} title={say.yourFirstSite} />
    </Screen>
  );
}
