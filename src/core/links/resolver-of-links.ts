import { ownPlace } from "../address/classify.ts";
import type { LinkResolver } from "../rules/resolve/link-facts.ts";
import type { ResolvedLink } from "./resolved-link.ts";

/** The site as far as these links tell of it, for rules and classification. */
export function resolverOfLinks(
  hosts: readonly string[],
  resolvedLinks: Iterable<ResolvedLink>,
): LinkResolver {
  const places = new Map<string, ResolvedLink>();
  for (const link of resolvedLinks) {
    const place = ownPlace(link.address, hosts);
    if (place) places.set(`${place.host ?? ""} ${place.key}`, link);
  }
  const resolvedAt = (host: string | null, key: string): ResolvedLink | undefined =>
    places.get(`${host ?? ""} ${key}`);
  return {
    hosts,
    answers(host, key) {
      const kind = resolvedAt(host, key)?.kind;
      return kind === "page" || kind === "file" || kind === "route" ? kind : undefined;
    },
    routeDestination(host, key) {
      const link = resolvedAt(host, key);
      return link?.kind === "route" && link.ends !== link.address ? link.ends : undefined;
    },
  };
}
