import { edgeEntries, type EdgeEntry, type EdgeLeft, type EdgeRoute, type EdgeSite } from "./edge-route.ts";

/** What an edge answers of a site, and why it leaves the rest to us, counted by routes. */
export interface EdgeCounts {
  routes: number;
  left: Partial<Record<EdgeLeft, number>>;
}

interface Put {
  siteId: string;
  made: EdgeEntry[] | EdgeLeft;
  /** Its addresses by site and path in lower case, and how many of them other routes have, too. */
  addresses: readonly string[];
  shared: number;
}

/**
 * The routes of all sites as an edge answers them, kept current by patches. Where two routes share an address but for
 * letter case or the host that they are for, which of them answers is ours to say: all of these are left to us.
 */
export class EdgeTable {
  private readonly sites = new Map<string, EdgeSite>();
  private readonly puts = new Map<string, Put>();
  /** Whose an address is: mostly one route's. */
  private readonly owners = new Map<string, string | readonly string[]>();
  /** The maps of which something is another since they were taken last. */
  private changed = new Set<string>();
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
    this.takeOut(id);
    const site = route && this.sites.get(route.siteId);
    if (!site) return;
    const { siteId, keys } = route;
    const addresses = [...new Set(keys.map((key) => `${siteId}${key.toLowerCase()}`))];
    const put: Put = { siteId, made: edgeEntries(route, site, this.deliveryPort), addresses, shared: 0 };
    this.puts.set(id, put);
    for (const address of addresses) this.claim(id, put, address);
    this.mark(put);
  }

  /** The maps of which something is another since this was asked last. */
  takeChanged(): ReadonlySet<string> {
    const { changed } = this;
    this.changed = new Set();
    return changed;
  }

  /** Takes back that these were written: they could not be. */
  putBack(changed: ReadonlySet<string>): void {
    for (const map of changed) this.changed.add(map);
  }

  /** Hands over every entry that an edge can answer, of these maps alone where they are named; counts all that it does, by site. */
  write(
    take: (site: EdgeSite, entry: EdgeEntry) => void,
    only?: ReadonlySet<string>,
  ): Map<string, EdgeCounts> {
    const counts = new Map<string, EdgeCounts>(
      [...this.sites.keys()].map((id) => [id, { routes: 0, left: {} }]),
    );
    for (const { siteId, made, shared } of this.puts.values()) {
      const of = counts.get(siteId)!;
      const left = typeof made === "string" ? made : shared > 0 ? "shared" : undefined;
      if (left !== undefined) {
        of.left[left] = (of.left[left] ?? 0) + 1;
        continue;
      }
      of.routes += 1;
      for (const entry of made as EdgeEntry[])
        if (only === undefined || only.has(entry.map)) take(this.sites.get(siteId)!, entry);
    }
    return counts;
  }

  private takeOut(id: string): void {
    const put = this.puts.get(id);
    if (!put) return;
    this.mark(put);
    this.puts.delete(id);
    for (const address of put.addresses) {
      const rest = this.ownersOf(address).filter((one) => one !== id);
      if (rest.length === 0) this.owners.delete(address);
      else this.owners.set(address, rest.length === 1 ? rest[0]! : rest);
      if (rest.length === 1) this.share(rest[0]!, -1);
    }
  }

  private claim(id: string, put: Put, address: string): void {
    if (!this.owners.has(address)) return void this.owners.set(address, id);
    const others = this.ownersOf(address);
    this.owners.set(address, [...others, id]);
    put.shared += 1;
    if (others.length === 1) this.share(others[0]!, 1);
  }

  private share(id: string, by: 1 | -1): void {
    const put = this.puts.get(id)!;
    put.shared += by;
    this.mark(put);
  }

  private ownersOf(address: string): readonly string[] {
    const owners = this.owners.get(address) ?? [];
    return typeof owners === "string" ? [owners] : owners;
  }

  private mark({ made }: Put): void {
    if (typeof made !== "string") for (const { map } of made) this.changed.add(map);
  }
}
