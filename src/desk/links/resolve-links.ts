import { z } from "zod";
import { destinationKind, ownPlace } from "../../core/address/classify.ts";
import { type ResolvedLink } from "../../core/links/resolved-link.ts";
import { throughRoutes } from "../../core/rules/resolve/link-facts.ts";
import { snapshotSite, type SiteSnapshot } from "./site-snapshot.ts";
import type { OpenSite } from "../sites/open-site.ts";
import type { WithStore, WithDeliveryPort } from "../ground/parts.ts";
import { resolvedLinksSchema } from "../../contract/links.ts";

/** Says of many addresses at once what they are for this site and where they end; the rope asks this. */
export async function resolveLinks(
  desk: WithStore & WithDeliveryPort,
  site: OpenSite,
  addresses: readonly string[],
): Promise<z.infer<typeof resolvedLinksSchema>> {
  const snapshot = await snapshotSite(desk, site, addresses);
  return { items: resolvedAt(snapshot, site, addresses) };
}

/** What looked-up places say of these addresses. */
export function resolvedAt(
  snapshot: SiteSnapshot,
  site: OpenSite,
  addresses: readonly string[],
): ResolvedLink[] {
  const resolver = snapshot.linkResolver();
  return [...new Set(addresses)].map((address) => {
    const kind = destinationKind(address, resolver);
    const place = ownPlace(address, site.hostNames);
    const page = kind === "page" && place ? snapshot.pageAt(place.key) : undefined;
    const route =
      kind === "route" && place ? snapshot.routeAt(place.host ?? site.primary, place.key) : undefined;
    const moved = kind === "page" && place ? snapshot.movedFrom(place.key) : undefined;
    return {
      address,
      kind,
      ends: moved ?? throughRoutes(address, resolver),
      ...(page && { title: page.title, draft: !page.published }),
      ...(route && { redirect: !route.caseInsensitive }),
      ...(moved !== undefined && { redirect: true }),
    };
  });
}
