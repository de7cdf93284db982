import { edgeEntries, type EdgeEntry, type EdgeLeft, type EdgeRoute, type EdgeSite } from "./edge-route.ts";

/** What an edge answers of a site, and why it leaves the rest to us, counted by routes. */
export interface EdgeCounts {
  routes: number;
  left: Partial<Record<EdgeLeft, number>>;
}

/** The routes of all sites as an edge answers them, kept current by patches. */
export class EdgeTable {
  private readonly sites = new Map<string, EdgeSite>();
  private readonly entries = new Map<
    string,
    { siteId: string; made: EdgeEntry[] | EdgeLeft; keys: readonly string[] }
  >();
  private readonly deliveryPort: number;

  constructor(deliveryPort: number) {
    this.deliveryPort = deliveryPort;
  }

  /** The sites, in the order in which they came. */
  all(): readonly EdgeSite[] {
    return [...this.sites.values()];
  }

  /** Puts a site in place of its earlier form. Answers whether its routes have to be put anew: its hosts have changed. */
  putSite(site: EdgeSite): boolean {
    const before = this.sites.get(site.id);
    this.sites.set(site.id, site);
    return before === undefined || JSON.stringify(before) !== JSON.stringify(site);
  }

  /** Puts a route in place of its earlier form; undefined takes it out. */
  putRoute(id: string, route: EdgeRoute | undefined): void {
    const site = route && this.sites.get(route.siteId);
    if (!site) return void this.entries.delete(id);
    const made = edgeEntries(route, site, this.deliveryPort);
    this.entries.set(id, { siteId: route.siteId, made, keys: route.keys });
  }

  /**
   * Hands over every entry that an edge can answer; counts what it does by site. Where two routes share an address but
   * for letter case or the host that they are for, which of them answers is ours to say: all of these are left to us.
   */
  write(take: (site: EdgeSite, entry: EdgeEntry) => void): Map<string, EdgeCounts> {
    const counts = new Map<string, EdgeCounts>(
      [...this.sites.keys()].map((id) => [id, { routes: 0, left: {} }]),
    );
    const shared = this.sharedKeys();
    for (const { siteId, made } of this.entries.values()) {
      const site = this.sites.get(siteId)!;
      const of = counts.get(siteId)!;
      const left =
        typeof made === "string"
          ? made
          : made.some(({ key }) => shared.has(`${siteId}${key.toLowerCase()}`))
            ? "shared"
            : undefined;
      if (left !== undefined) of.left[left] = (of.left[left] ?? 0) + 1;
      else {
        of.routes += 1;
        for (const entry of made as EdgeEntry[]) take(site, entry);
      }
    }
    return counts;
  }

  // By site and path in lower case; a path that several routes have, whether an edge can answer them or not.
  private sharedKeys(): ReadonlySet<string> {
    const seen = new Set<string>();
    const shared = new Set<string>();
    for (const { siteId, keys } of this.entries.values())
      for (const one of new Set(keys.map((key) => `${siteId}${key.toLowerCase()}`)))
        if (seen.has(one)) shared.add(one);
        else seen.add(one);
    return shared;
  }
}
