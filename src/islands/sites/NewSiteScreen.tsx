import type { Site } from "../../core/sites/site.ts";
import { Screen } from "../../ui/frame/Screen.tsx";
import { SiteForm } from "./SiteForm.tsx";
import * as say from "./words.ts";

/** Another site beside those that there are. */
export function NewSiteScreen({ sites }: { sites: Site[] }) {
  return (
    <Screen>
      <div className="max-w-md">
        <SiteForm sites={sites} title={say.aNewSite} />
      </div>
    </Screen>
  );
}
