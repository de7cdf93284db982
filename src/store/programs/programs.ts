import type { Transaction } from "sequelize";
import type { Partner } from "../../core/programs/partner.ts";
import type { ProgramInput } from "../../core/programs/program.ts";
import { JOINED, type ProgramState } from "../../core/programs/choices.ts";
import type { Store } from "../ground/store.ts";

/** The joined programs of a site s, as rules see them, as a list in JSON. */
export const PARTNERS = `(SELECT coalesce(json_agg(json_build_object('id', p.id::text, 'name', p.name, 'network', p.network, 'domains', p.terms->'domains',
    'needsReferrer', p.terms->'needsReferrer', 'tracksOnTheWay', coalesce(p.terms->'tracksOnTheWay', 'false'), 'trackingId', p.terms->>'trackingId', 'template', p.terms->>'template', 'subIdPattern', p.terms->>'subIdPattern', 'subIdLimit', p.terms->'subIdLimit') ORDER BY p.id), '[]')
  FROM programs p WHERE p.site_id = s.id AND p.deleted_at IS NULL AND p.state IN (${JOINED.map((state) => `'${state}'`).join(", ")}))`;

/** The joined programs of these sites. */
export async function partnersOfSites(store: Store, ids: readonly string[]): Promise<Map<string, Partner[]>> {
  const rows = await store.rows<{ id: string; partners: Partner[] }>(
    `SELECT s.id::text, ${PARTNERS} AS partners FROM sites s WHERE s.id = ANY($ids::bigint[])`,
    { ids },
  );
  return new Map(rows.map(({ id, partners }) => [id, partners]));
}

/** A program as it is stored. Its credentials are only ever read by themselves. */
export interface ProgramRow {
  id: string;
  terms: ProgramInput;
  stateDates: Partial<Record<ProgramState, string>>;
  hasCredentials: boolean;
  version: number;
  createdAt: Date;
  updatedAt: Date;
}

const COLUMNS = `id::text, terms, state_dates AS "stateDates", credentials IS NOT NULL AS "hasCredentials", version,
  created_at AS "createdAt", updated_at AS "updatedAt"`;

/** All programs of a site, by name; of one id when it is given. */
export function programRows(store: Store, siteId: string, id?: string): Promise<ProgramRow[]> {
  return store.rows<ProgramRow>(
    `SELECT ${COLUMNS} FROM programs WHERE site_id = $siteId::bigint AND deleted_at IS NULL ${id === undefined ? "" : "AND id = $id::bigint"} ORDER BY lower(name)`,
    { siteId, ...(id === undefined ? {} : { id }) },
  );
}

/** Writes a new program and answers its id. Throws what `violatedIndex` knows when the name is taken. */
export async function insertProgram(
  store: Store,
  transaction: Transaction,
  row: { siteId: string; terms: ProgramInput; stateDates: object },
): Promise<string> {
  const [made] = await store.rows<{ id: string }>(
    `WITH made AS (INSERT INTO programs (site_id, terms, state_dates) VALUES ($siteId::bigint, $terms::jsonb, $dates::jsonb) RETURNING id)
     SELECT id::text FROM made`,
    { siteId: row.siteId, terms: JSON.stringify(row.terms), dates: JSON.stringify(row.stateDates) },
    transaction,
  );
  return made!.id;
}

/** Writes a program over the version it was read at; answers whether it was still that one. */
export async function updateProgram(
  store: Store,
  transaction: Transaction,
  row: { id: string; version: number; terms: ProgramInput; stateDates: object },
): Promise<boolean> {
  const saved = await store.rows(
    `WITH saved AS (UPDATE programs SET terms = $terms::jsonb, state_dates = $dates::jsonb, version = version + 1, updated_at = now()
       WHERE id = $id::bigint AND version = $version AND deleted_at IS NULL RETURNING id) SELECT id FROM saved`,
    {
      id: row.id,
      version: row.version,
      terms: JSON.stringify(row.terms),
      dates: JSON.stringify(row.stateDates),
    },
    transaction,
  );
  return saved.length > 0;
}

/** Takes a program away, or brings it back; answers the name of the one there was. */
export async function setProgramDeleted(
  store: Store,
  transaction: Transaction,
  program: { siteId: string; id: string; deleted: boolean },
): Promise<string | undefined> {
  const [changed] = await store.rows<{ name: string }>(
    `WITH changed AS (UPDATE programs SET deleted_at = CASE WHEN $deleted THEN now() END
       WHERE id = $id::bigint AND site_id = $siteId::bigint AND (deleted_at IS NULL) = $deleted RETURNING terms->>'name' AS name)
     SELECT name FROM changed`,
    program,
    transaction,
  );
  return changed?.name;
}

/** The sealed credentials of a program; null when none are stored. */
export async function sealedCredentials(store: Store, id: string): Promise<string | null> {
  const [row] = await store.rows<{ credentials: string | null }>(
    "SELECT credentials FROM programs WHERE id = $id::bigint",
    { id },
  );
  return row?.credentials ?? null;
}

/** Stores sealed credentials, or forgets them. */
export async function keepSealed(
  store: Store,
  id: string,
  sealed: string | null,
  transaction?: Transaction,
): Promise<void> {
  await store.rows(
    "UPDATE programs SET credentials = $sealed WHERE id = $id::bigint",
    { id, sealed },
    transaction,
  );
}

/** All sealed credentials of a site. */
export function allSealed(
  store: Store,
  siteId: string,
): Promise<{ id: string; name: string; sealed: string }[]> {
  return store.rows(
    "SELECT id::text, name, credentials AS sealed FROM programs WHERE site_id = $siteId::bigint AND credentials IS NOT NULL ORDER BY id",
    { siteId },
  );
}

/** What a program does for the site, over the last 90 days where it counts something. */
export interface ProgramNumbers {
  id: string;
  links: number;
  untracked: number;
  clicks7: number;
  clicks30: number;
  clicks90: number;
  /** The same as the networks counted them; null where none said so. */
  theirs7: number | null;
  theirs30: number | null;
  theirs90: number | null;
  money: { currency: string; d7: string; d30: string; d90: string; approved: string }[];
}

/** The numbers of all programs of a site; `today` is the UTC day that the last days are counted from. */
export function programNumbers(store: Store, siteId: string, today: string): Promise<ProgramNumbers[]> {
  return store.rows<ProgramNumbers>(
    `WITH p AS (SELECT id, name FROM programs WHERE site_id = $siteId::bigint AND deleted_at IS NULL),
     l AS (SELECT name, count(*)::int AS links, count(*) FILTER (WHERE 'untracked' = ANY(text_findings))::int AS untracked
       FROM ledger_links, unnest(programs) AS name WHERE site_id = $siteId::bigint AND edition <> 'draft' AND live GROUP BY name),
     c AS (SELECT r.program_id AS id, sum(d.clicks) FILTER (WHERE d.day > $today::date - 7) AS clicks7,
         sum(d.clicks) FILTER (WHERE d.day > $today::date - 30) AS clicks30, sum(d.clicks) AS clicks90
       FROM click_counts d JOIN program_routes r ON r.route_id = d.route_id
       WHERE d.site_id = $siteId::bigint AND d.day > $today::date - 90 AND d.facet = 'all' AND d.route_id > 0 AND d.class = 'person'
       GROUP BY r.program_id),
     n AS (SELECT program_id AS id, sum(clicks) FILTER (WHERE day > $today::date - 7) AS theirs7,
         sum(clicks) FILTER (WHERE day > $today::date - 30) AS theirs30, sum(clicks) AS theirs90
       FROM network_clicks WHERE site_id = $siteId::bigint AND day > $today::date - 90 AND program_id IS NOT NULL GROUP BY program_id),
     -- Asked for each program below, it would be counted anew each time.
     e AS MATERIALIZED (SELECT c.program_id AS id, c.currency,
         coalesce(sum(commission) FILTER (WHERE at >= $today::date - 6), 0)::text AS d7,
         coalesce(sum(commission) FILTER (WHERE at >= $today::date - 29), 0)::text AS d30,
         coalesce(sum(commission) FILTER (WHERE at >= $today::date - 89), 0)::text AS d90,
         coalesce(sum(commission) FILTER (WHERE c.state = 'approved' AND c.at >= coalesce((p.terms->>'paidUntil')::date + 1, '-infinity')), 0)::text AS approved
       FROM conversions c JOIN programs p ON p.id = c.program_id WHERE c.site_id = $siteId::bigint AND c.state <> 'reversed' GROUP BY c.program_id, c.currency)
     SELECT p.id::text, coalesce(l.links, 0) AS links, coalesce(l.untracked, 0) AS untracked,
       coalesce(c.clicks7, 0)::int AS "clicks7", coalesce(c.clicks30, 0)::int AS "clicks30", coalesce(c.clicks90, 0)::int AS "clicks90",
       n.theirs7::int AS "theirs7", n.theirs30::int AS "theirs30", n.theirs90::int AS "theirs90",
       coalesce((SELECT json_agg(json_build_object('currency', e.currency, 'd7', e.d7, 'd30', e.d30, 'd90', e.d90, 'approved', e.approved) ORDER BY e.currency)
         FROM e WHERE e.id = p.id), '[]') AS money
     FROM p LEFT JOIN l ON l.name = p.name LEFT JOIN c ON c.id = p.id LEFT JOIN n ON n.id = p.id`,
    { siteId, today },
  );
}
