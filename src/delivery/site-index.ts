import { publicAddress } from "../core/address/public-address.ts";
import type { SiteSight } from "../core/rules/link-facts.ts";
import { RouteTable, type RouteAddress } from "../core/routes/table.ts";
import type { DeliveredFile, DeliveredPage, DeliveredRoute, DeliveredSite } from "../store/delivery-view.ts";

/** A route compiled for the hot path: everything that does not depend on the request is ready. */
export interface CompiledRoute {
  id: string;
  status: number;
  /** Absolute or site-relative address; null for gone. */
  destination: string | null;
  /** The same, absolute: for hosts that do not serve the site's pages. */
  absolute: string | null;
  query: DeliveredRoute["query"];
  counted: boolean;
  replacesPage: boolean;
  /** Milliseconds since the epoch; 0 and Infinity where there is no limit. */
  from: number;
  until: number;
  robots: string | undefined;
  addresses: RouteAddress[];
  /** Response headers for requests without query, made at the first one. */
  headersOnPrimary: string[] | undefined;
  headersElsewhere: string[] | undefined;
}

/** One site as delivery holds it in memory. */
export interface SiteIndex {
  site: DeliveredSite;
  primary: string;
  routes: RouteTable<CompiledRoute>;
  pages: Map<string, DeliveredPage>;
  files: Map<string, DeliveredFile>;
  /** Path of each published page, by its id. */
  paths: Map<string, string>;
  sight: SiteSight;
}

/** All sites by host, kept current by patches. */
export class DeliveryIndex {
  private readonly byHost = new Map<string, SiteIndex>();
  private readonly byId = new Map<string, SiteIndex>();
  private readonly compiled = new Map<string, CompiledRoute>();
  private readonly pageKeys = new Map<string, string>();
  private readonly filePaths = new Map<string, string>();
  private readonly deliveryPort: number;

  constructor(deliveryPort: number) {
    this.deliveryPort = deliveryPort;
  }

  /** Number of routes held. */
  get routeCount(): number {
    return this.compiled.size;
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
    const index = known ?? emptyIndex(site);
    index.site = site;
    index.primary = site.hosts.find((host) => host.role === "primary")!.name;
    index.sight = sightOf(index);
    this.byId.set(site.id, index);
    for (const [host, other] of this.byHost) if (other === index) this.byHost.delete(host);
    for (const { name } of site.hosts) this.byHost.set(name, index);
  }

  /** Puts a route in place of its earlier form; undefined takes it out. */
  putRoute(id: string, siteId: string, route: DeliveredRoute | undefined): void {
    const index = this.byId.get(siteId);
    if (!index) return;
    const before = this.compiled.get(id);
    for (const address of before?.addresses ?? []) index.routes.delete(address, before!);
    this.compiled.delete(id);
    if (!route) return;
    const compiled = compile(route, (path) => publicAddress(index.primary, path, this.deliveryPort));
    for (const address of compiled.addresses) index.routes.set(address, compiled);
    this.compiled.set(id, compiled);
  }

  /** Puts a published page in place of its earlier form; undefined takes it out. */
  putPage(id: string, siteId: string, page: DeliveredPage | undefined): void {
    const index = this.byId.get(siteId);
    if (!index) return;
    const before = this.pageKeys.get(id);
    if (before !== undefined && index.pages.get(before)?.id === id) index.pages.delete(before);
    this.pageKeys.delete(id);
    index.paths.delete(id);
    if (!page) return;
    index.pages.set(page.key, page);
    index.paths.set(id, page.path);
    this.pageKeys.set(id, page.key);
  }

  /** Puts a file in place of its earlier form; undefined takes it out. */
  putFile(id: string, siteId: string, file: DeliveredFile | undefined): void {
    const index = this.byId.get(siteId);
    if (!index) return;
    const before = this.filePaths.get(id);
    if (before !== undefined && index.files.get(before)?.id === id) index.files.delete(before);
    this.filePaths.delete(id);
    if (!file) return;
    index.files.set(file.path, file);
    this.filePaths.set(id, file.path);
  }
}

function compile(route: DeliveredRoute, absolute: (path: string) => string): CompiledRoute {
  const { destination } = route;
  const robots = [route.noindex ? "noindex" : "", route.nofollow ? "nofollow" : ""]
    .filter(Boolean)
    .join(", ");
  return {
    id: route.id,
    status: route.status,
    destination,
    absolute: destination?.startsWith("/") ? absolute(destination) : destination,
    query: route.query,
    counted: route.counted,
    replacesPage: route.replacesPage,
    from: route.validFrom?.getTime() ?? 0,
    until: route.validUntil?.getTime() ?? Infinity,
    robots: robots || undefined,
    headersOnPrimary: undefined,
    headersElsewhere: undefined,
    addresses: route.addresses.map(({ host, key }) => ({ host, key, folded: route.folded })),
  };
}

function emptyIndex(site: DeliveredSite): SiteIndex {
  const index: SiteIndex = {
    site,
    primary: "",
    routes: new RouteTable(),
    pages: new Map(),
    files: new Map(),
    paths: new Map(),
    sight: undefined!,
  };
  index.sight = sightOf(index);
  return index;
}

function sightOf(index: SiteIndex): SiteSight {
  const find = (host: string | null, key: string): CompiledRoute | undefined =>
    index.routes.find(host ?? index.primary, key);
  return {
    hosts: index.site.hosts.map(({ name }) => name),
    answers: (host, key) => {
      if (find(host, key)) return "route";
      return index.pages.has(key) ? "page" : index.files.has(key) ? "file" : undefined;
    },
    pagePath: (id) => index.paths.get(id),
    routeDestination: (host, key) => find(host, key)?.destination ?? undefined,
  };
}
