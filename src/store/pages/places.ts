import { amongKeys } from "../ground/any-letters.ts";
import type { Store } from "../ground/store.ts";

/** The pages that stand at these path keys, in draft or published. */
export function pagesAtKeys(
  store: Store,
  of: { site: string; keys: readonly string[] },
): Promise<{ id: string; key: string | null; publishedKey: string | null }[]> {
  return store.rows<{ id: string; key: string | null; publishedKey: string | null }>(
    `SELECT id::text, key, published_key AS "publishedKey" FROM pages
     WHERE site_id = $site::bigint AND kind IN ('page', 'read') AND deleted_at IS NULL AND (key = ANY($keys::text[]) OR published_key = ANY($keys::text[]))`,
    of,
  );
}

/** Where these pages are now. */
export function pathsOfPages(
  store: Store,
  of: { site: string; ids: readonly string[] },
): Promise<{ id: string; path: string }[]> {
  return store.rows<{ id: string; path: string }>(
    `SELECT id::text, coalesce(published->>'path', path) AS path FROM pages
     WHERE site_id = $site::bigint AND deleted_at IS NULL AND id = ANY($ids::bigint[])`,
    of,
  );
}
export interface PageThere {
  id: string;
  key: string;
  /** As it is written: readers get it there, or would. */
  path: string;
  title: string;
  published: boolean;
}

/**
 * The pages that stand at these path keys, and whether readers get them there; in any letter case where published ones
 * are found so.
 */
export function pagesStandingAt(
  store: Store,
  { anyLetters = false, ...of }: { site: string; keys: readonly string[]; anyLetters?: boolean },
): Promise<PageThere[]> {
  return store.rows<PageThere>(
    `SELECT id::text, key, path, title, published_key IS NOT DISTINCT FROM key AS published FROM pages
         WHERE site_id = $site::bigint AND kind IN ('page', 'read') AND deleted_at IS NULL AND key = ANY($keys::text[])
         UNION ALL SELECT id::text, published_key, published->>'path', published->>'title', true FROM pages
         WHERE site_id = $site::bigint AND deleted_at IS NULL AND published_key IS NOT NULL AND ${amongKeys("published_key", anyLetters)}`,
    of,
  );
}

/** Which of these ids are pages of the site. */
export function pagesAmong(
  store: Store,
  of: { site: string; ids: readonly string[] },
): Promise<{ id: string }[]> {
  return store.rows<{ id: string }>(
    "SELECT id::text FROM pages WHERE site_id = $site::bigint AND deleted_at IS NULL AND id = ANY($ids::bigint[])",
    of,
  );
}

/** The path keys of a site's published pages and files. */
export function publishedPaths(store: Store, of: { site: string }): Promise<{ key: string }[]> {
  return store.rows<{ key: string }>(
    `SELECT published_key AS key FROM pages WHERE site_id = $site::bigint AND kind IN ('page', 'read') AND deleted_at IS NULL AND published_key IS NOT NULL
     UNION SELECT path FROM files WHERE site_id = $site::bigint AND deleted_at IS NULL`,
    of,
  );
}

/** Which of these path keys are published pages. */
export function publishedKeysAmong(
  store: Store,
  of: { site: string; keys: readonly string[] },
): Promise<{ key: string }[]> {
  return store.rows<{ key: string }>(
    `SELECT published_key AS key FROM pages WHERE site_id = $site::bigint AND deleted_at IS NULL AND published_key = ANY($keys::text[])
     UNION ALL SELECT path FROM files WHERE site_id = $site::bigint AND path = ANY($keys::text[])`,
    of,
  );
}

/** The published pages of a site at these path keys. */
export function publishedTitlesAt(
  store: Store,
  of: { site: string; keys: readonly string[] },
): Promise<{ key: string; title: string }[]> {
  return store.rows<{ key: string; title: string }>(
    `SELECT published_key AS key, published->>'title' AS title FROM pages
         WHERE site_id = $site::bigint AND kind IN ('page', 'read') AND deleted_at IS NULL AND published_key = ANY($keys::text[])`,
    of,
  );
}

/** The published pages of a site by their path keys. */
export function publishedTitles(
  store: Store,
  of: { site: string },
): Promise<{ key: string; title: string }[]> {
  return store.rows<{ key: string; title: string }>(
    `SELECT published_key AS key, published->>'title' AS title FROM pages
       WHERE site_id = $site::bigint AND kind IN ('page', 'read') AND deleted_at IS NULL AND published_key IS NOT NULL`,
    of,
  );
}
