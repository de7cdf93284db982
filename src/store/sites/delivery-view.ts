import type { Transaction } from "sequelize";
import { PARTNERS } from "../programs/programs.ts";
import type { NavigationItem } from "../../core/navigation/navigation.ts";
import type { Placement } from "../../core/pages/page.ts";
import type { Rule } from "../../core/rules/rule.ts";
import type { Disclosure, Partner } from "../../core/programs/partner.ts";
import type { KeptPicture } from "../../core/files/picture.ts";
import { FORMS_OF_FILE } from "../files/forms.ts";
import type { PageSearch } from "../../core/pages/search.ts";
import type { SiteOrigin } from "../../core/sites/site-origin.ts";
import type { Swap } from "../../core/rules/swaps/swap.ts";
import type { DeliveredSiteSettings } from "../../core/sites/delivered-site.ts";
import type { MissPolicy } from "../../core/sites/site.ts";
import { newestChange } from "../ground/changes.ts";
import type { HostRow, PublishedPage } from "../ground/models.ts";
import { MORE_OF_ROUTE, streamRoutes } from "../routes/route-stream.ts";
import type { Store } from "../ground/store.ts";
import type { DeliveredRoute } from "../routes/delivered-route.ts";

export interface DeliveredPage {
  id: string;
  siteId: string;
  key: string;
  path: string;
  title: string;
  inNavigation: boolean;
  search: PageSearch;
  /** When readers got it as it is. */
  changedAt: Date;
  version: number;
}

/** An uploaded file as delivery needs it; its content is read when it is first asked for. */
export interface DeliveredFile extends KeptPicture {
  siteId: string;
  path: string;
  mediaType: string;
  name: string;
  updatedAt: Date;
}

/** A published shared block. */
export interface DeliveredBlock extends Placement {
  id: string;
  html: string;
  bound: Record<string, string>;
}

export interface DeliveredSite {
  id: string;
  name: string;
  tagline: string;
  language: string;
  hosts: Pick<HostRow, "name" | "role" | "leadsTo">[];
  rules: Rule[];
  rulesVersion: number;
  misses: MissPolicy;
  partners: Partner[];
  disclosure: Disclosure;
  variables: Record<string, string>;
  /** Null when nobody has made one: then pages say themselves whether they stand in it. */
  navigation: NavigationItem[] | null;
  delivered: DeliveredSiteSettings;
  origin: SiteOrigin | null;
  swaps: Swap[];
  feedId: string;
  blocks: DeliveredBlock[];
}

const ROUTE_ADDRESSES = `SELECT r.id::text, r.site_id::text AS "siteId", r.kind = 'short' AS "caseInsensitive", r.host, r.destination, r.status, r.counted,
    ${MORE_OF_ROUTE} AS more, a.key`;

interface RouteAddressRow extends Omit<DeliveredRoute, "keys"> {
  key: string;
}

function routesOf(rows: readonly RouteAddressRow[]): DeliveredRoute[] {
  const routes: DeliveredRoute[] = [];
  for (const { key, ...route } of rows) {
    const last = routes.at(-1);
    if (last?.id === route.id) last.keys.push(key);
    else routes.push({ ...route, keys: [key] });
  }
  return routes;
}

const PAGE = `SELECT id::text, site_id::text AS "siteId", published_key AS key, published->>'path' AS path, published->>'title' AS title,
    (published->>'inNavigation')::boolean AS "inNavigation", coalesce(published->'search', '{}') AS search,
    coalesce((published->>'at')::timestamptz, published_at) AS "changedAt", coalesce(published_version, 0) AS version
  FROM pages WHERE kind = 'page' AND deleted_at IS NULL AND published_key IS NOT NULL`;

const SITE = `SELECT s.id::text, s.name, s.tagline, s.language,
    (SELECT json_agg(json_build_object('name', h.name, 'role', h.role, 'leadsTo', h.leads_to) ORDER BY h.id) FROM hosts h WHERE h.site_id = s.id) AS hosts,
    coalesce(c.rules, '[]') AS rules, coalesce(c.version, 0) AS "rulesVersion", s.misses, ${PARTNERS} AS partners, s.disclosure, s.delivered, s.origin, s.swaps, s.feed_id::text AS "feedId",
    (SELECT coalesce(json_object_agg(v.name, v.value), '{}') FROM site_variables v WHERE v.site_id = s.id) AS variables,
    (SELECT n.items FROM navigations n WHERE n.site_id = s.id) AS navigation,
    (SELECT coalesce(json_agg(json_build_object('id', b.id::text, 'html', b.published->>'html', 'bound', coalesce(b.published->'bound', '{}'),
        'place', b.published->'placement'->>'place', 'shown', b.published->'placement'->>'shown', 'on', b.published->'placement'->'on') ORDER BY b.id), '[]')
      FROM pages b WHERE b.site_id = s.id AND b.kind = 'block' AND b.deleted_at IS NULL AND b.published IS NOT NULL) AS blocks
  FROM sites s LEFT JOIN LATERAL (SELECT rules, version FROM rule_sets WHERE site_id = s.id ORDER BY version DESC LIMIT 1) c ON true`;

const FILE = `SELECT id::text, site_id::text AS "siteId", path, media_type AS "mediaType", name, digest, updated_at AS "updatedAt", width, height, formed,
    ${FORMS_OF_FILE} AS forms FROM files WHERE deleted_at IS NULL`;

/** Everything delivery answers from, as one consistent picture, and the change up to which it is current. */
export interface DeliverySnapshot {
  seq: string;
  pages: DeliveredPage[];
  files: DeliveredFile[];
}

/** All sites, then all routes one by one, as they stand at the change that is answered. */
export async function readAllRoutes(
  store: Store,
  take: { sites(sites: DeliveredSite[]): void; route(route: DeliveredRoute): void },
): Promise<string> {
  return atOneMoment(store, async (transaction) => {
    const seq = await newestChange(store, transaction);
    take.sites(await readDeliveredSites(store, transaction));
    await streamRoutes(transaction, take.route);
    return seq;
  });
}

function atOneMoment<T>(store: Store, read: (transaction: Transaction) => Promise<T>): Promise<T> {
  return store.transaction(async (transaction) => {
    await store.sequelize.query("SET TRANSACTION ISOLATION LEVEL REPEATABLE READ, READ ONLY", {
      transaction,
    });
    return read(transaction);
  });
}

/** Reads the snapshot. Sites are handed over first, then routes one by one, so that a million of them is never one answer. */
export async function readDelivery(
  store: Store,
  take: { sites(sites: DeliveredSite[]): void; route(route: DeliveredRoute): void },
): Promise<DeliverySnapshot> {
  return atOneMoment(store, async (transaction) => {
    const seq = await newestChange(store, transaction);
    take.sites(await readDeliveredSites(store, transaction));
    const pages = await store.rows<DeliveredPage>(PAGE, {}, transaction);
    const files = await store.rows<DeliveredFile>(FILE, {}, transaction);
    await streamRoutes(transaction, take.route);
    return { seq, pages, files };
  });
}

/** These routes as delivery needs them now; those that are no longer answered are not among them. */
export async function readDeliveredRoutes(store: Store, ids: readonly string[]): Promise<DeliveredRoute[]> {
  return routesOf(
    await store.rows<RouteAddressRow>(
      `${ROUTE_ADDRESSES} FROM routes r JOIN route_addresses a ON a.route_id = r.id
       WHERE r.id = ANY($ids::bigint[]) AND r.deleted_at IS NULL AND r.enabled ORDER BY r.id`,
      { ids },
    ),
  );
}

/** One published page's entry; undefined when it is no longer published. */
export async function readDeliveredPage(store: Store, id: string): Promise<DeliveredPage | undefined> {
  return (await store.rows<DeliveredPage>(`${PAGE} AND id = $id::bigint`, { id }))[0];
}

/** One file's entry; undefined when it was taken away. */
export async function readDeliveredFile(store: Store, id: string): Promise<DeliveredFile | undefined> {
  return (await store.rows<DeliveredFile>(`${FILE} AND id = $id::bigint`, { id }))[0];
}

// All sites with their hosts and current rules.
function readDeliveredSites(store: Store, transaction: Transaction): Promise<DeliveredSite[]> {
  return store.rows<DeliveredSite>(SITE, {}, transaction);
}

/** One site with its hosts and current rules. */
export async function readDeliveredSite(store: Store, id: string): Promise<DeliveredSite | undefined> {
  return (await store.rows<DeliveredSite>(`${SITE} WHERE s.id = $id::bigint`, { id }))[0];
}

/** What was published of a page, in full, and when it was first. */
export async function readPublished(
  store: Store,
  id: string,
): Promise<(PublishedPage & { publishedAt: Date | null }) | undefined> {
  const page = await store.pages.findOne({ where: { id, deletedAt: null } });
  return page?.published ? { ...page.published, publishedAt: page.publishedAt } : undefined;
}
