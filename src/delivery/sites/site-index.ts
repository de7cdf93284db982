import { whatAnswers, type StandingAt } from "../../core/routes/chain/what-answers.ts";
import { AnyLetters } from "../../core/address/any-letters.ts";
import { machineDocument } from "../../core/sites/machine-documents.ts";
import { spelledPath } from "../../core/sites/spelling.ts";
import { compareKey } from "../../core/address/compare.ts";
import { publicAddress } from "../../core/address/public-address.ts";
import { readRouteKey } from "../../core/routes/match/address-form.ts";
import { PatternTable } from "../../core/routes/match/pattern-table.ts";
import { RouteTable } from "../../core/routes/match/table.ts";
import { inEffect } from "../../core/routes/chain/in-effect.ts";
import { swapsOf } from "../../core/rules/swaps/swapped.ts";
import type { LinkResolver } from "../../core/rules/resolve/link-facts.ts";
import type { DeliveredFile, DeliveredPage, DeliveredSite } from "../../store/sites/delivery-view.ts";
import { RouteSlots, type CompiledRoute } from "../routes/route-slots.ts";
import type { DeliveredRoute } from "../../store/routes/delivered-route.ts";

/** A route that stands in content in place of its raw destination. */
interface InContent {
  route: string;
  url: string;
  /** Ids of the chosen pages; undefined: everywhere. */
  pages: ReadonlySet<string> | undefined;
}

/** One site as delivery holds it in memory. */
export interface SiteIndex {
  site: DeliveredSite;
  primary: string;
  /** Hosts that only lead to another of the site's, path by path, and which. */
  former: ReadonlyMap<string, string>;
  /** Slots of the exact routes. */
  routes: RouteTable<number>;
  /** Slots of prefix, wildcard and pattern routes. */
  patterns: PatternTable<number>;
  pages: Map<string, DeliveredPage>;
  files: Map<string, DeliveredFile>;
  /** Path of each file, by its id. */
  pathOfFile: Map<string, string>;
  /** The keys of pages and files, as they are found in any letter case. */
  letters: AnyLetters;
  /** Counts what changes which pages there are. */
  pagesChanged: number;
  /** Path of each published page, by its id. */
  paths: Map<string, string>;
  /** Compare key of a destination to the route that replaces it in content. */
  inContent: Map<string, InContent>;
  links: LinkResolver;
}

/** All sites by host, kept current by patches. */
export class DeliveryIndex {
  private readonly byHost = new Map<string, SiteIndex>();
  private readonly byId = new Map<string, SiteIndex>();
  private readonly slots = new RouteSlots();
  private readonly pageKeys = new Map<string, string>();
  private readonly filePaths = new Map<string, string>();
  private readonly deliveryPort: number;

  constructor(deliveryPort: number) {
    this.deliveryPort = deliveryPort;
  }

  /** Number of routes held. */
  get routeCount(): number {
    return this.slots.size;
  }

  siteOfHost(host: string): SiteIndex | undefined {
    return this.byHost.get(host);
  }

  siteById(id: string): SiteIndex | undefined {
    return this.byId.get(id);
  }

  /** The site that is meant when the process is asked under a bare loopback address: the only one there is. */
  onlySite(): SiteIndex | undefined {
    return this.byId.size === 1 ? [...this.byId.values()][0] : undefined;
  }

  /** Adds a site, or takes over its new name, hosts and rules. */
  putSite(site: DeliveredSite): void {
    const known = this.byId.get(site.id);
    const index = known ?? this.emptyIndex(site);
    index.site = site;
    index.pagesChanged += 1;
    index.primary = site.hosts.find((host) => host.role === "primary")!.name;
    index.former = new Map(
      site.hosts.flatMap(({ name, leadsTo }) => (leadsTo === null ? [] : [[name, leadsTo]])),
    );
    index.links = this.resolverOf(index);
    this.byId.set(site.id, index);
    for (const [host, other] of this.byHost) if (other === index) this.byHost.delete(host);
    for (const { name } of site.hosts) this.byHost.set(name, index);
  }

  /** The route in a slot. */
  routeIn(slot: number): CompiledRoute {
    return this.slots.read(slot);
  }

  /** Puts a route in place of its earlier form; undefined takes it out. */
  putRoute(id: string, siteId: string, route: DeliveredRoute | undefined): void {
    const index = this.byId.get(siteId);
    if (!index) return;
    const before = this.slots.slotOf(id);
    if (before !== undefined) {
      this.unlist(index, before, id);
      if (!route) this.slots.remove(before);
    }
    if (route) this.list(index, this.slots.put(route), route);
  }

  private list(index: SiteIndex, slot: number, route: DeliveredRoute): void {
    const { host, caseInsensitive } = route;
    for (const stored of route.keys) {
      const { match, key } = readRouteKey(stored);
      if (match === "exact") index.routes.set({ host, key, caseInsensitive }, slot);
      else index.patterns.add({ match, host, key, caseInsensitive }, slot, Number(route.id));
    }
    const { more } = route;
    if (!more || more.inContent === "nowhere" || more.destinationKey === null) return;
    index.inContent.set(more.destinationKey, {
      route: route.id,
      url: publicAddress(host ?? index.primary, more.address, this.deliveryPort),
      pages: more.inContent === "pages" ? new Set(more.contentPages) : undefined,
    });
  }

  private unlist(index: SiteIndex, slot: number, id: string): void {
    const { host, keys, caseInsensitive } = this.slots.placesOf(slot);
    for (const stored of keys) {
      const { match, key } = readRouteKey(stored);
      if (match === "exact") index.routes.delete({ host, key, caseInsensitive }, slot);
      else index.patterns.delete({ match, host, key, caseInsensitive }, slot);
    }
    for (const [key, { route }] of index.inContent) if (route === id) index.inContent.delete(key);
  }

  /** Puts a published page in place of its earlier form; undefined takes it out. */
  putPage(id: string, siteId: string, page: DeliveredPage | undefined): void {
    const index = this.byId.get(siteId);
    if (!index) return;
    index.pagesChanged += 1;
    const before = this.pageKeys.get(id);
    if (before !== undefined && index.pages.get(before)?.id === id) {
      index.pages.delete(before);
      index.letters.delete(before);
    }
    this.pageKeys.delete(id);
    index.paths.delete(id);
    if (!page) return;
    index.pages.set(page.key, page);
    index.letters.add(page.key);
    index.paths.set(id, page.path);
    this.pageKeys.set(id, page.key);
  }

  /** Puts a file in place of its earlier form; undefined takes it out. */
  putFile(id: string, siteId: string, file: DeliveredFile | undefined): void {
    const index = this.byId.get(siteId);
    if (!index) return;
    const before = this.filePaths.get(id);
    if (before !== undefined && index.files.get(before)?.id === id) {
      index.files.delete(before);
      index.letters.delete(before);
    }
    this.filePaths.delete(id);
    index.pathOfFile.delete(id);
    if (!file) return;
    index.pathOfFile.set(id, file.path);
    index.files.set(file.path, file);
    index.letters.add(file.path);
    this.filePaths.set(id, file.path);
  }

  private emptyIndex(site: DeliveredSite): SiteIndex {
    const index: SiteIndex = {
      site,
      primary: "",
      former: new Map(),
      routes: new RouteTable(),
      patterns: new PatternTable(),
      pages: new Map(),
      files: new Map(),
      pathOfFile: new Map(),
      letters: new AnyLetters(),
      pagesChanged: 0,
      paths: new Map(),
      inContent: new Map(),
      links: undefined!,
    };
    index.links = this.resolverOf(index);
    return index;
  }

  private resolverOf(index: SiteIndex): LinkResolver {
    const standing: StandingAt<{ destination: string | null }, true> = {
      routeAt: (host, key) => {
        const slot = index.routes.find(host, key);
        return slot === undefined ? undefined : this.slots.read(slot);
      },
      pageAt: (_host, key) => pageAt(index, key) && true,
      fileAt: (key) => fileAt(index, key)?.path ?? (machineDocument(key) ? key : undefined),
      patternAt: (host, key) => {
        const [hit] = index.patterns.find(host, key);
        // A link is judged by where its route leads in its time, whenever that is.
        return hit && inEffect({ ...this.slots.read(hit.entry), from: 0, until: Infinity }, 0, hit.captures);
      },
    };
    const answering = (host: string | null, key: string) => whatAnswers(standing, host ?? index.primary, key);
    return {
      hosts: index.site.hosts.map(({ name }) => name),
      partners: index.site.partners,
      swapped: (href) => swapsOf(index.site.swaps)(href)?.address,
      answers: (host, key) => answering(host, key)?.by,
      pagePath: (id) => index.paths.get(id),
      spelled: (host, key) => {
        const there = answering(host, key);
        if (there?.by === "file") return there.path;
        const page = there?.by === "page" ? pageAt(index, key) : undefined;
        return page && pathOfPage(index, page);
      },
      routeDestination: (host, key) => {
        const there = answering(host, key);
        return there?.by === "route" ? (there.route.destination ?? undefined) : undefined;
      },
      inContent: (href, page) => {
        if (index.inContent.size === 0) return undefined;
        const found = index.inContent.get(compareKey(href));
        return found && (!found.pages || (page !== undefined && found.pages.has(page)))
          ? found.url
          : undefined;
      },
    };
  }
}

/** The published page that is found at a path key: in any letter case where the site says so. */
export function pageAt(index: SiteIndex, key: string): DeliveredPage | undefined {
  return index.pages.get(key) ?? index.pages.get(inAnyLetters(index, key));
}

/** The file that is found at a path key: in any letter case where the site says so. */
export function fileAt(index: SiteIndex, key: string): DeliveredFile | undefined {
  return index.files.get(key) ?? index.files.get(inAnyLetters(index, key));
}

function inAnyLetters({ site, letters }: SiteIndex, key: string): string {
  return (site.delivered.anyLetters ? letters.find(key) : undefined) ?? key;
}

/** The file that the site has chosen for its icon, while there is one. */
export function iconOf(index: SiteIndex): DeliveredFile | undefined {
  const { icon } = index.site.delivered;
  return icon === undefined ? undefined : fileWithId(index, icon);
}

/** The file with an id. */
export function fileWithId({ files, pathOfFile }: SiteIndex, id: string): DeliveredFile | undefined {
  const path = pathOfFile.get(id);
  const file = path === undefined ? undefined : files.get(path);
  return file?.id === id ? file : undefined;
}

/** The path under which readers find a page: spelled as the site has chosen. */
export function pathOfPage({ site }: SiteIndex, page: Pick<DeliveredPage, "path">): string {
  return spelledPath(page.path, site.delivered.slashes);
}
