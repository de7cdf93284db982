import type { FrameSite } from "../../ui/frame/frame-site.ts";

/** What the menu behind a site's name is made of. */
export interface SiteMenuProps {
  site: FrameSite;
  /** All that the person may come into. */
  sites: FrameSite[];
  person: string;
  /** They own the installation. */
  mayMakeSites: boolean;
}
