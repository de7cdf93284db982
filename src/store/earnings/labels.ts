import type { Store } from "../ground/store.ts";

/** Names of programs, deleted ones too: reports outlive them. */
export function programLabels(
  store: Store,
  of: { ids: readonly string[] },
): Promise<{ id: string; label: string }[]> {
  return store.rows<{ id: string; label: string }>(
    "SELECT id::text, name AS label FROM programs WHERE id = ANY($ids::bigint[])",
    of,
  );
}

/** Titles of pages, deleted ones too. */
export function pageLabels(
  store: Store,
  of: { ids: readonly string[] },
): Promise<{ id: string; label: string }[]> {
  return store.rows<{ id: string; label: string }>(
    "SELECT id::text, title AS label FROM pages WHERE id = ANY($ids::bigint[])",
    of,
  );
}
