import type { Transaction } from "sequelize";
import type { Found, ReadingSettings, ReadingState } from "../../core/origin/origin.ts";
import type { SiteOrigin } from "../../core/sites/site-origin.ts";
import type { Trap } from "../../core/origin/traps.ts";
import type { Store } from "../ground/store.ts";

export interface OriginRow extends SiteOrigin {
  settings: Partial<ReadingSettings>;
  found: Found | null;
  foundAt: Date | null;
  traps: Trap[];
  readAt: Date | null;
  version: number;
}

/** Where a site's pages stand; none for a site that is written here. */
export function originOf(
  store: Store,
  of: { site: string },
  transaction?: Transaction,
): Promise<OriginRow[]> {
  return store.rows<OriginRow>(
    `SELECT s.origin->>'address' AS address, s.origin->>'comes' AS comes, coalesce(s.origin->>'passes', 'untouched') AS passes,
       coalesce(s.origin->'only', '[]') AS only, coalesce(s.origin->'here', '[]') AS here, s.origin->'frame' AS frame, o.settings, o.found, o.found_at AS "foundAt", o.traps, o.read_at AS "readAt", o.version
     FROM origins o JOIN sites s ON s.id = o.site_id WHERE o.site_id = $site::bigint AND s.origin IS NOT NULL`,
    of,
    transaction,
  );
}

/** Names where a site's pages stand; what was found at another address goes. */
export async function setOrigin(
  store: Store,
  of: { site: string; address: string; settings: Partial<ReadingSettings> },
  transaction: Transaction,
): Promise<void> {
  await store.rows(
    `UPDATE sites SET origin = coalesce(origin, '{"comes": "read", "passes": "untouched", "only": [], "here": [], "frame": null}') || jsonb_build_object('address', $address::text), version = version + 1
     WHERE id = $site::bigint RETURNING id`,
    { site: of.site, address: of.address },
    transaction,
  );
  await store.rows(
    `INSERT INTO origins AS o (site_id, settings) VALUES ($site::bigint, $settings::jsonb)
     ON CONFLICT (site_id) DO UPDATE SET settings = o.settings || excluded.settings, version = o.version + 1, found = NULL, found_at = NULL, traps = '[]'
     RETURNING site_id`,
    { site: of.site, settings: JSON.stringify(of.settings) },
    transaction,
  );
}

/** Changes what is set about reading; nothing is changed where another has done so since. */
export function changeOrigin(
  store: Store,
  of: { site: string; version: number; settings: Partial<ReadingSettings> },
  transaction: Transaction,
): Promise<{ version: number }[]> {
  return store.rows<{ version: number }>(
    `UPDATE origins SET settings = settings || $settings::jsonb, version = version + 1 WHERE site_id = $site::bigint AND version = $version RETURNING version`,
    { ...of, settings: JSON.stringify(of.settings) },
    transaction,
  );
}

/** Sets how pages come to readers, and what is done with them on the way. */
export async function setFront(
  store: Store,
  of: { site: string } & Pick<SiteOrigin, "comes" | "passes" | "only" | "here">,
  transaction: Transaction,
): Promise<void> {
  const { comes, passes, only, here } = of;
  await store.rows(
    "UPDATE sites SET origin = origin || $front::jsonb, version = version + 1 WHERE id = $site::bigint AND origin IS NOT NULL RETURNING id",
    { site: of.site, front: JSON.stringify({ comes, passes, only, here }) },
    transaction,
  );
}

/** Sets which page of the origin serves pages of ours as a frame; null: none. */
export async function setFrame(
  store: Store,
  of: { site: string; frame: SiteOrigin["frame"] },
  transaction: Transaction,
): Promise<void> {
  await store.rows(
    "UPDATE sites SET origin = origin || jsonb_build_object('frame', $frame::jsonb), version = version + 1 WHERE id = $site::bigint AND origin IS NOT NULL RETURNING id",
    { site: of.site, frame: JSON.stringify(of.frame) },
    transaction,
  );
}

/** A site is written here again. */
export async function dropOrigin(
  store: Store,
  of: { site: string },
  transaction: Transaction,
): Promise<void> {
  await store.rows(
    "UPDATE sites SET origin = NULL, version = version + 1 WHERE id = $site::bigint RETURNING id",
    of,
    transaction,
  );
  await store.rows("DELETE FROM origins WHERE site_id = $site::bigint RETURNING site_id", of, transaction);
}

/** Notes what a first look found. */
export async function noteFound(store: Store, of: { site: string; found: Found }): Promise<void> {
  await store.rows(
    "UPDATE origins SET found = $found::jsonb, found_at = now() WHERE site_id = $site::bigint RETURNING site_id",
    { site: of.site, found: JSON.stringify(of.found) },
  );
}

/** Notes when a round of reading ended, and what made endless addresses in it. */
export async function noteRound(store: Store, of: { site: string; traps: readonly Trap[] }): Promise<void> {
  await store.rows(
    "UPDATE origins SET traps = $traps::jsonb, read_at = now() WHERE site_id = $site::bigint RETURNING site_id",
    { site: of.site, traps: JSON.stringify(of.traps) },
  );
}

/** How many of a site's pages are in which state. */
export function readingStates(
  store: Store,
  of: { site: string },
): Promise<{ state: ReadingState; pages: number }[]> {
  return store.rows<{ state: ReadingState; pages: number }>(
    "SELECT state, count(*)::int AS pages FROM readings WHERE site_id = $site::bigint GROUP BY state ORDER BY state",
    of,
  );
}

/** How many pages were found in each part of a site. */
export function readingParts(store: Store, of: { site: string }): Promise<{ part: string; pages: number }[]> {
  return store.rows<{ part: string; pages: number }>(
    "SELECT part, count(*)::int AS pages FROM readings WHERE site_id = $site::bigint GROUP BY part ORDER BY 2 DESC, 1 LIMIT 500",
    of,
  );
}

/** Sites that have pages whose time to be read again has come, or whose sitemaps were not looked at for a day. */
export function sitesToRead(store: Store): Promise<{ site: string }[]> {
  return store.rows<{ site: string }>(
    `SELECT s.id::text AS site FROM sites s JOIN origins o ON o.site_id = s.id
     WHERE s.archived_at IS NULL AND s.origin IS NOT NULL AND o.read_at IS NOT NULL
       AND (o.found_at < now() - interval '1 day' OR EXISTS (SELECT FROM readings r WHERE r.site_id = s.id AND r.next_at <= now()))
     ORDER BY s.id LIMIT 20`,
  );
}

/** Notes that a look is on its way, so that nobody begins another one. */
export async function noteLooking(store: Store, of: { site: string }): Promise<void> {
  await store.rows("UPDATE origins SET found_at = now() WHERE site_id = $site::bigint RETURNING site_id", of);
}
