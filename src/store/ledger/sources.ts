import type { Store } from "../ground/store.ts";

export interface SourceAround {
  id: string;
  kind: string;
  words: number;
  disclosed: boolean | null;
  findings: string[];
}

/** Documents of the ledger with what surrounds their links. */
export function sourcesAround(store: Store, of: { site: string }): Promise<SourceAround[]> {
  return store.rows<SourceAround>(
    "SELECT id::text, kind, words, disclosed, findings FROM ledger_sources WHERE site_id = $site::bigint",
    of,
  );
}

/** Notes on which of these documents paid links are not disclosed, and on which they are. */
export function markUndisclosed(store: Store, of: { id: string; undisclosed: boolean }): Promise<object[]> {
  return store.rows(
    `UPDATE ledger_sources SET findings = array_remove(findings, 'undisclosed') || CASE WHEN $undisclosed THEN ARRAY['undisclosed'] ELSE '{}' END
     WHERE id = $id::bigint`,
    of,
  );
}
