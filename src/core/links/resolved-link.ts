import { z } from "zod";
import { DESTINATION_KINDS, ownPlace } from "../address/classify.ts";
import type { LinkResolver } from "../rules/resolve/link-facts.ts";

/** What the site says of an address: enough to judge links to it without asking again. */
export const resolvedLinkSchema = z.object({
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
});
export type ResolvedLink = z.infer<typeof resolvedLinkSchema>;

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
