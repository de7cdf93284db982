import type { Migration } from "../migration.ts";

/** A tracked link in the ledger is known by the host where it ends; the network's, which it is written with, stands beside it. */
export const ends: Migration = {
  name: "009-ends",
  statements: [
    `ALTER TABLE ledger_links ADD COLUMN via text NOT NULL DEFAULT ''`,
    // What facets count by has it too: the same host may be reached straight and through a network.
    `ALTER TABLE ledger_links DROP COLUMN facet_key`,
    `ALTER TABLE ledger_links ADD COLUMN facet_key bigint GENERATED ALWAYS AS (
        hashtextextended(kind || ' ' || treatment || ' ' || reach || ' ' || coalesce(target, '') || ' ' || anchor || ' ' || host || ' ' || via || ' ' || source_kind, 0)
        # hash_array_extended(rules, 1) # hash_array_extended(programs, 2) # hash_array_extended(text_findings, 3) # hash_array_extended(rule_findings, 4)) STORED`,
    `CREATE INDEX ledger_links_via ON ledger_links (site_id, via, id) WHERE via <> ''`,
    // Each site's ledger is made anew when it is next asked for.
    `DELETE FROM ledger_states`,
  ],
};
