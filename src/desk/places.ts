import { ownPlace } from "../core/address/classify.ts";
import { foldedKey } from "../core/address/path-key.ts";
import type { RouteSurroundings } from "../core/routes/advise.ts";
import type { SiteSight } from "../core/rules/link-facts.ts";
import type { Desk } from "./desk.ts";
import type { OpenSite } from "./sites.ts";

interface RouteThere {
  id: string;
  host: string;
  key: string;
  folded: boolean;
  enabled: boolean;
  destination: string | null;
}

interface PageThere {
  id: string;
  key: string;
  title: string;
  published: boolean;
}

/** What stands at some places of a site, looked up once; answers questions of core without further queries. */
export class Places {
  private readonly routes = new Map<string, RouteThere[]>();
  private readonly pages = new Map<string, PageThere>();
  private readonly files = new Set<string>();
  private readonly site: OpenSite;

  constructor(site: OpenSite) {
    this.site = site;
  }

  addRoute(route: RouteThere): void {
    this.routes.set(route.key, [
      ...(this.routes.get(route.key) ?? []).filter((other) => other.id !== route.id),
      route,
    ]);
  }

  addFile(path: string): void {
    this.files.add(path);
  }

  addPage(page: PageThere): void {
    this.pages.set(page.key, page);
  }

  /** The route that answers this place, or that claims it while switched off. Host null asks for all hosts at once. */
  routeAt(host: string | null, key: string): RouteThere | undefined {
    const there = [
      ...(this.routes.get(key) ?? []),
      ...(this.routes.get(foldedKey(key)) ?? []).filter((route) => route.folded),
    ];
    return (
      there.find((route) => host === null || route.host === host) ?? there.find((route) => route.host === "*")
    );
  }

  pageAt(key: string): PageThere | undefined {
    return this.pages.get(key);
  }

  /** The site as rules and classification see it; a path without a host is one of the primary host. */
  sight(): SiteSight {
    const answering = (host: string | null, key: string): RouteThere | undefined => {
      const route = this.routeAt(host ?? this.site.primary, key);
      return route?.enabled ? route : undefined;
    };
    return {
      hosts: this.site.hostNames,
      answers: (host, key) => {
        if (answering(host, key)) return "route";
        return this.pages.has(key) ? "page" : this.files.has(key) ? "file" : undefined;
      },
      routeDestination: (host, key) => answering(host, key)?.destination ?? undefined,
    };
  }

  /** The site as the route linter sees it, without the route that is being saved. */
  surroundings(exceptRoute?: string): RouteSurroundings {
    return {
      hosts: this.site.hostNames,
      routeAt: (host, key) => {
        const route = this.routeAt(host, key);
        return route && route.id !== exceptRoute ? route : undefined;
      },
      pageAt: (key) => {
        const page = this.pages.get(key);
        return page?.published ? page : undefined;
      },
    };
  }
}

const MOST_HOPS = 20;

/** Looks up what stands at these addresses and keys, and at what they lead on to, in a few queries whatever their number. */
export async function lookUpPlaces(
  desk: Desk,
  site: OpenSite,
  addresses: readonly string[],
  keys: readonly string[] = [],
): Promise<Places> {
  const places = new Places(site);
  const seen = new Set<string>();
  let wanted = [...keys, ...addresses.flatMap((address) => ownPlace(address, site.hostNames)?.key ?? [])];
  for (let hop = 0; hop <= MOST_HOPS && wanted.length > 0; hop += 1) {
    const fresh = [...new Set(wanted.flatMap((key) => [key, foldedKey(key)]))].filter(
      (key) => !seen.has(key),
    );
    if (fresh.length === 0) break;
    for (const key of fresh) seen.add(key);
    const [routes, pages, files] = await Promise.all([
      desk.store.rows<RouteThere>(
        `SELECT r.id::text, a.host, a.key, r.kind = 'short' AS folded, r.enabled, r.destination
         FROM route_addresses a JOIN routes r ON r.id = a.route_id WHERE a.site_id = $site::bigint AND a.key = ANY($keys::text[])`,
        { site: site.id, keys: fresh },
      ),
      desk.store.rows<PageThere>(
        `SELECT id::text, key, title, published_key IS NOT DISTINCT FROM key AS published FROM pages
         WHERE site_id = $site::bigint AND kind = 'page' AND deleted_at IS NULL AND key = ANY($keys::text[])
         UNION ALL SELECT id::text, published_key, published->>'title', true FROM pages
         WHERE site_id = $site::bigint AND deleted_at IS NULL AND published_key = ANY($keys::text[])`,
        { site: site.id, keys: fresh },
      ),
      desk.store.rows<{ path: string }>(
        "SELECT path FROM files WHERE site_id = $site::bigint AND deleted_at IS NULL AND path = ANY($keys::text[])",
        { site: site.id, keys: fresh },
      ),
    ]);
    for (const { path } of files) places.addFile(path);
    for (const page of pages) places.addPage(page);
    for (const route of routes) places.addRoute(route);
    wanted = routes.flatMap((route) =>
      route.destination ? (ownPlace(route.destination, site.hostNames)?.key ?? []) : [],
    );
  }
  return places;
}
