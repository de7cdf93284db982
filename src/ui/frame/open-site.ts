import type { AstroGlobal } from "astro";
import type { Site } from "../../core/sites/site.ts";

/** The site that a screen's address names, and all others for the menu; undefined when there is none of that key. */
export async function siteOfScreen(
  astro: Pick<AstroGlobal, "params" | "locals">,
): Promise<{ site: Site; sites: Site[] } | undefined> {
  const sites = await astro.locals.sites();
  const site = sites.find(({ key }) => key === astro.params.site);
  return site && { site, sites };
}
