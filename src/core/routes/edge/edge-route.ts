import { publicAddress } from "../../address/public-address.ts";
import { HOST_CHECK_PATH } from "../../sites/host.ts";
import { leadsBack } from "../chain/leads-back.ts";
import { headerSafe } from "../chain/header-safe.ts";
import { withParameters } from "../chain/parameters.ts";
import type { QueryMode } from "../choices.ts";
import { readRouteKey } from "../match/address-form.ts";
import { nginxMapOf } from "./nginx-maps.ts";

/** A route as an edge is asked to answer it. */
export interface EdgeRoute {
  id: string;
  siteId: string;
  /** Null: every host of the site. */
  host: string | null;
  keys: readonly string[];
  caseInsensitive: boolean;
  destination: string | null;
  status: number;
  counted: boolean;
  more: {
    query: QueryMode;
    parameters: string;
    noindex: boolean;
    nofollow: boolean;
    validFrom: string | null;
    validUntil: string | null;
  } | null;
}

/** A site as an edge knows it. */
export interface EdgeSite {
  id: string;
  primary: string;
  /** Hosts that answer themselves: those that only lead to others are left to us. */
  hosts: readonly string[];
  /** Hosts whose readers are led on by us. */
  former: readonly string[];
}

/** Why a route, or one of its addresses, is left to us. */
export const EDGE_LEFT = ["pattern", "page", "time", "query", "letters", "shared", "back"] as const;
export type EdgeLeft = (typeof EDGE_LEFT)[number];

/** An address that an edge answers by itself. */
export interface EdgeEntry {
  /** Null: on every host of its site. */
  host: string | null;
  key: string;
  /** The map of nginx that it stands in. */
  map: string;
  /** What nginx reads of it: status, query, robots, route, the key where letter case counts, and where it leads. */
  value: string;
}

// What nginx and we read alike, byte by byte, without decoding or dot segments.
const PLAIN_KEY = /^\/(?:[A-Za-z0-9\-_~!$&'()*+,;=:@]|\/(?!\.)|\.)*$/;
const OURS = new Set(["/healthz", "/readyz"]);

/** The entries of a route for an edge; the reason where it has none. */
export function edgeEntries(route: EdgeRoute, site: EdgeSite, deliveryPort: number): EdgeEntry[] | EdgeLeft {
  const { destination, status, more } = route;
  if (destination === null || status === 200) return "page";
  if (more && (more.validFrom !== null || more.validUntil !== null)) return "time";
  const to = headerSafe(withParameters(destination, more?.parameters ?? ""));
  const query = queryOf(more?.query ?? "drop", to);
  if (query === undefined) return "query";
  const entries: EdgeEntry[] = [];
  for (const stored of route.keys) {
    const { match, key } = readRouteKey(stored);
    if (match !== "exact") return "pattern";
    if (!PLAIN_KEY.test(key) || key.includes("/.") || OURS.has(key) || key.startsWith(HOST_CHECK_PATH))
      return "letters";
    // A path means the primary host: on the others it is written out.
    const isSplit = route.host === null && to.startsWith("/") && site.hosts.length > 1;
    const hosts = isSplit ? site.hosts : [route.host];
    for (const host of hosts) {
      const asked = host === null ? site.hosts : [host];
      if (asked.some((one) => leadsBack(to, one, key, site.primary))) return "back";
      const isPath = to.startsWith("/") && (host ?? site.primary) !== site.primary;
      const end = isPath ? publicAddress(site.primary, to, deliveryPort) : to;
      const letters = route.caseInsensitive ? "-" : key;
      const { id, counted } = route;
      entries.push({
        host,
        key,
        map: nginxMapOf(host, key),
        value: `${status} ${query} ${robotsOf(more)} ${counted ? id : 0} ${letters} ${end}`,
      });
    }
  }
  return entries;
}

// d: dropped; f: forwarded behind what the destination has of its own. Merging compares name by name.
function queryOf(mode: QueryMode, to: string): "d" | "f" | undefined {
  if (mode === "drop") return "d";
  // The sign that stands between the parts of what nginx puts together.
  if (to.includes("|")) return undefined;
  return mode === "merge" && to.includes("?") ? undefined : "f";
}

function robotsOf(more: EdgeRoute["more"]): "-" | "n" | "o" | "b" {
  if (!more || (!more.noindex && !more.nofollow)) return "-";
  return more.noindex ? (more.nofollow ? "b" : "n") : "o";
}
