import { z } from "zod";
import { destinationKind, ownPlace } from "../../core/address/classify.ts";
import { lookSchema, type Look } from "../../core/rules/looks.ts";
import { throughRoutes } from "../../core/rules/resolve/link-facts.ts";
import { lookUpPlaces, type Places } from "./places.ts";
import type { OpenSite } from "../sites/open-site.ts";
import type { WithStore, WithDeliveryPort } from "../ground/parts.ts";

export const linkLooksSchema = z.object({ items: z.array(lookSchema) });

/** Says of many addresses at once what they are for this site and where they end; the rope asks this. */
export async function lookAtLinks(
  desk: WithStore & WithDeliveryPort,
  site: OpenSite,
  addresses: readonly string[],
): Promise<z.infer<typeof linkLooksSchema>> {
  const places = await lookUpPlaces(desk, site, addresses);
  return { items: looksAt(places, site, addresses) };
}

/** What looked-up places say of these addresses. */
export function looksAt(places: Places, site: OpenSite, addresses: readonly string[]): Look[] {
  const sight = places.sight();
  return [...new Set(addresses)].map((address) => {
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
  });
}
