import { z } from "zod";
import { DESTINATION_KINDS, ownPlace } from "../address/classify.ts";
import type { SiteSight } from "./resolve/link-facts.ts";

/** What the site says of an address: enough to judge links to it without asking again. */
export const lookSchema = z.object({
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
export type Look = z.infer<typeof lookSchema>;

/** The site as far as these looks tell of it, for rules and classification. */
export function sightOfLooks(hosts: readonly string[], looks: Iterable<Look>): SiteSight {
  const places = new Map<string, Look>();
  for (const look of looks) {
    const place = ownPlace(look.address, hosts);
    if (place) places.set(`${place.host ?? ""} ${place.key}`, look);
  }
  const lookAt = (host: string | null, key: string): Look | undefined => places.get(`${host ?? ""} ${key}`);
  return {
    hosts,
    answers(host, key) {
      const kind = lookAt(host, key)?.kind;
      return kind === "page" || kind === "file" || kind === "route" ? kind : undefined;
    },
    routeDestination(host, key) {
      const look = lookAt(host, key);
      return look?.kind === "route" && look.ends !== look.address ? look.ends : undefined;
    },
  };
}
