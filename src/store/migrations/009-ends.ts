import type { Migration } from "../migrate.ts";

/** A tracked link in the ledger is known by the host where it ends; the network's, which it is written with, stands beside it. */
export const ends: Migration = {
  name: "009-ends",
  statements: [
    `ALTER TABLE ledger_links ADD COLUMN via text NOT NULL DEFAULT ''`,
    `CREATE INDEX ledger_links_via ON ledger_links (site_id, via, id) WHERE via <> ''`,
    // Each site's ledger is made anew when it is next asked for.
    `DELETE FROM ledger_states`,
  ],
};
