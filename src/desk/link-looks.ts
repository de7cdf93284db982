import { z } from "zod";
import { destinationKind, DESTINATION_KINDS, ownPlace } from "../core/address/classify.ts";
import { throughRoutes } from "../core/rules/link-facts.ts";
import type { Desk } from "./desk.ts";
import { lookUpPlaces } from "./places.ts";
import type { OpenSite } from "./sites.ts";

export const linkLooksSchema = z.object({
  items: z.array(
    z.object({
      address: z.string(),
      kind: z.enum(DESTINATION_KINDS),
      /** Where it ends when it goes through our own routes, else the address itself. */
      ends: z.string(),
      /** Title of the page that stands there. */
      title: z.string().optional(),
      /** A page that readers do not get yet. */
      draft: z.boolean().optional(),
      /** A redirect, which only leads on; a short link is made to be linked to. */
      redirect: z.boolean().optional(),
    }),
  ),
});

/** Says of many addresses at once what they are for this site and where they end; the rope asks this. */
export async function lookAtLinks(
  desk: Desk,
  site: OpenSite,
  addresses: readonly string[],
): Promise<z.infer<typeof linkLooksSchema>> {
  const places = await lookUpPlaces(desk, site, addresses);
  const sight = places.sight();
  return {
    items: [...new Set(addresses)].map((address) => {
      const kind = destinationKind(address, sight);
      const place = ownPlace(address, site.hostNames);
      const page = kind === "page" && place ? places.pageAt(place.key) : undefined;
      const route =
        kind === "route" && place ? places.routeAt(place.host ?? site.primary, place.key) : undefined;
      return {
        address,
        kind,
        ends: throughRoutes(address, sight),
        ...(page && { title: page.title, draft: !page.published }),
        ...(route && { redirect: !route.folded }),
      };
    }),
  };
}
