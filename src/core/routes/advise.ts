import type { Advice } from "../objects/route.ts";
import { ownPlace } from "../address/classify.ts";
import { foldedKey, pathKey } from "../address/path-key.ts";

/** What the linter needs to know of the site around a route. */
export interface RouteSurroundings {
  hosts: readonly string[];
  /** The other route at this place (never the one that is being saved), and where it leads; destination null: gone. */
  routeAt(host: string | null, key: string): { id: string; destination: string | null } | undefined;
  /** The published page at this path key. */
  pageAt(key: string): { title: string } | undefined;
}

/** A route as far as the linter looks at it. */
export interface RouteDraft {
  host: string | null;
  addresses: readonly string[];
  folded: boolean;
  destination: string | null;
  replacesPage: boolean;
}

const MOST_HOPS = 20;

/** What is to be said of a route before it is saved (DESIGN section 8). Findings of severity "error" refuse it. */
export function adviseRoute(draft: RouteDraft, around: RouteSurroundings): Advice[] {
  const advice = draft.addresses.flatMap((address, index) => adviseAddress(address, index, draft, around));
  return draft.destination === null
    ? advice
    : [...advice, ...adviseDestination(draft, draft.destination, around)];
}

function adviseAddress(
  address: string,
  index: number,
  draft: RouteDraft,
  around: RouteSurroundings,
): Advice[] {
  const field = index === 0 ? "address" : `aliases.${index - 1}`;
  const key = routeKey(address, draft.folded);
  const twice = draft.addresses.slice(0, index).some((earlier) => routeKey(earlier, draft.folded) === key);
  if (twice)
    return [{ code: "taken", severity: "error", field, message: `${address} stands in this route twice.` }];
  const other = around.routeAt(draft.host, key) ?? around.routeAt(draft.host, pathKey(address));
  if (other) {
    const leads = other.destination ? `leads to ${other.destination}` : "is answered as gone";
    return [
      {
        code: "taken",
        severity: "error",
        field,
        message: `${address} is taken: it ${leads}. Choose another, or change that route.`,
      },
    ];
  }
  const page = around.pageAt(pathKey(address));
  if (!page) return [];
  return draft.replacesPage
    ? [
        {
          code: "page",
          severity: "warning",
          field,
          message: `This route replaces the published page “${page.title}”: readers no longer get it.`,
        },
      ]
    : [
        {
          code: "page",
          severity: "error",
          field,
          message: `The page “${page.title}” is published at ${address}. Choose another address, or say that the route replaces the page.`,
        },
      ];
}

function adviseDestination(draft: RouteDraft, destination: string, around: RouteSurroundings): Advice[] {
  const own = new Set(draft.addresses.map((address) => routeKey(address, draft.folded)));
  const isOwn = (host: string | null, key: string): boolean =>
    (own.has(key) || (draft.folded && own.has(foldedKey(key)))) &&
    (draft.host === null || host === null || host === draft.host);
  const visited: string[] = [];
  let current = destination;
  for (let hops = 0; hops <= MOST_HOPS; hops += 1) {
    const place = ownPlace(current, around.hosts);
    if (!place) return chainAdvice(visited, current);
    if (isOwn(place.host, place.key)) {
      const way = [...visited, current].join(", then ");
      return [
        {
          code: "loop",
          severity: "error",
          field: "destination",
          message: `This would go round in a circle: ${way} leads back to this route. Choose another destination.`,
        },
      ];
    }
    const next = around.routeAt(place.host, place.key) ?? around.routeAt(place.host, foldedKey(place.key));
    if (!next) {
      if (around.pageAt(place.key)) return chainAdvice(visited, current);
      return [
        ...chainAdvice(visited, current),
        {
          code: "dead-end",
          severity: "warning",
          field: "destination",
          message: `Nothing on this site answers ${current}; readers would get “not found”.`,
        },
      ];
    }
    if (next.destination === null) {
      return [
        {
          code: "dead-end",
          severity: "warning",
          field: "destination",
          message: `${current} is answered as gone (410).`,
        },
      ];
    }
    visited.push(current);
    current = next.destination;
    if (visited.includes(current)) {
      return [
        {
          code: "loop",
          severity: "error",
          field: "destination",
          message: `${destination} leads into a circle of other routes. Mend those first.`,
        },
      ];
    }
  }
  return [
    {
      code: "long-way",
      severity: "error",
      field: "destination",
      message: `${destination} takes more than ${MOST_HOPS} hops on this site.`,
    },
  ];
}

function chainAdvice(visited: readonly string[], end: string): Advice[] {
  if (visited.length === 0) return [];
  return [
    {
      code: "chain",
      severity: "warning",
      field: "destination",
      message: `${visited[0]} only redirects on to ${end}. Point straight at the end, so that readers save a hop.`,
      fix: end,
    },
  ];
}

/** The key under which an address is stored: letter case does not count for short links. */
export function routeKey(address: string, folded: boolean): string {
  return folded ? foldedKey(pathKey(address)) : pathKey(address);
}
