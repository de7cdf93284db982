import { ownPlace, type DestinationKind } from "../address/classify.ts";
import type { SiteSight } from "./link-facts.ts";

/** What the site says of an address: enough to judge links to it without asking again. */
export interface Look {
  address: string;
  kind: DestinationKind;
  /** Where it ends when it goes through our own routes, else the address itself. */
  ends: string;
  title?: string;
  draft?: boolean;
  redirect?: boolean;
}

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
