import type { AstroGlobal } from "astro";
import { roleOn } from "../../core/people/roles.ts";
import type { Site } from "../../core/sites/site.ts";
import { serverFrame } from "./frame.ts";
import { toldTimeZone } from "./time-zone.ts";

/**
 * The site that a screen's address names, and all others for the menu; undefined when there is none of that key. From
 * then on the screen is drawn in that site's frame.
 */
export async function siteOfScreen(
  astro: Pick<AstroGlobal, "params" | "locals">,
): Promise<{ site: Site; sites: Site[] } | undefined> {
  const sites = await astro.locals.sites();
  const site = sites.find(({ key }) => key === astro.params.site);
  if (!site) return undefined;
  const { actor } = astro.locals;
  const frame = serverFrame()!;
  frame.data = {
    siteLanguage: site.language,
    siteTimeZone: site.timeZone || toldTimeZone(frame.cookies),
    role: (actor && roleOn(actor, site.id)) ?? undefined,
    person: actor?.name,
    rests: site.archivedAt ? "" : undefined,
  };
  return { site, sites };
}
