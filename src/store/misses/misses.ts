import type { Transaction } from "sequelize";
import { isRowId } from "../ground/row-ids.ts";
import type { MissRow, Row } from "../ground/models.ts";
import type { MissGroup } from "../../core/misses/miss.ts";
import { containing } from "../ground/like.ts";
import { orderOf, limitOf, type Portion } from "../ground/portions.ts";
import type { Store } from "../ground/store.ts";

export const MISS_SORTS = { lastSeen: "last_seen", times: "times", address: "key", host: "host" };
const MAX_PROPOSED_FROM = 5_000;
// A scanner's address is one whoever asks for it; what no person asked for is a robot's.
const GROUP: Readonly<Record<MissGroup, string>> = {
  people: "NOT probe AND times > 0",
  robots: "NOT probe AND times = 0",
  scanners: "probe",
};
const OPEN = "site_id = $site::bigint AND resolved_at IS NULL AND ignored_at IS NULL";

export interface OpenMiss {
  id: string;
  host: string;
  key: string;
  times: number;
  bots: number;
  first: Date;
  last: Date;
  referrers: string[];
  /** How many the list has. */
  total: string;
}

/** A portion of the misses that nobody has answered, or of those that were set aside. */
export function openMisses(
  store: Store,
  of: { site: string; group: MissGroup | undefined; ignored: boolean; q: string | undefined },
  portion: Portion,
): Promise<OpenMiss[]> {
  const where = [
    "site_id = $site::bigint AND resolved_at IS NULL",
    of.ignored ? "ignored_at IS NOT NULL" : "ignored_at IS NULL",
    of.group ? GROUP[of.group] : "true",
    of.q ? "key ILIKE $q" : "true",
  ].join(" AND ");
  return store.rows<OpenMiss>(
    `SELECT id::text, host, key, times, bots, first_seen AS first, last_seen AS last, referrers, count(*) OVER ()::text AS total
     FROM misses WHERE ${where} ORDER BY ${orderOf(MISS_SORTS, portion.sort)}, id DESC ${limitOf(portion)}`,
    { site: of.site, ...(of.q ? { q: containing(of.q) } : {}) },
  );
}

/** How many open misses there are of each group, and how often people asked for theirs; one row. */
export function missGroups(
  store: Store,
  of: { site: string },
): Promise<(Record<MissGroup, number> & { times: number })[]> {
  return store.rows<Record<MissGroup, number> & { times: number }>(
    `SELECT count(*) FILTER (WHERE ${GROUP.people})::int AS people, count(*) FILTER (WHERE ${GROUP.robots})::int AS robots,
       count(*) FILTER (WHERE ${GROUP.scanners})::int AS scanners, coalesce(sum(times) FILTER (WHERE ${GROUP.people}), 0)::int AS times
     FROM misses WHERE ${OPEN}`,
    of,
  );
}

/** The open misses that people asked for, the most asked for first; at most 5,000. */
export function missesOfPeople(
  store: Store,
  of: { site: string },
): Promise<{ host: string; address: string; times: number; referrers: string[] }[]> {
  return store.rows<{ host: string; address: string; times: number; referrers: string[] }>(
    `SELECT host, key AS address, times, referrers FROM misses WHERE ${OPEN} AND ${GROUP.people} ORDER BY times DESC LIMIT ${MAX_PROPOSED_FROM}`,
    of,
  );
}

/** A miss of a site; undefined when there is none. */
export async function findMiss(
  store: Store,
  { id, siteId }: { id: string; siteId: string },
): Promise<Row<MissRow> | undefined> {
  if (!isRowId(id)) return undefined;
  return (await store.misses.findOne({ where: { id, siteId } })) ?? undefined;
}

/** Takes misses out of the list from a time on, or back into it (null). */
export async function setIgnored(
  store: Store,
  { ids, siteId, ignoredAt }: { ids: readonly string[]; siteId: string; ignoredAt: Date | null },
  transaction: Transaction,
): Promise<void> {
  await store.misses.update({ ignoredAt }, { where: { id: [...ids], siteId }, transaction });
}
