import type { Migration } from "../migration.ts";

/** Swaps of addresses in delivered pages, every set of them kept; and whether a page itself tells readers of paid links. */
export const swaps: Migration = {
  name: "024-swaps",
  statements: [
    `CREATE TABLE swap_sets (
       site_id bigint NOT NULL REFERENCES sites ON DELETE CASCADE, version int NOT NULL, swaps jsonb NOT NULL, created_by text NOT NULL,
       created_at timestamptz NOT NULL DEFAULT now(), PRIMARY KEY (site_id, version))`,
    "ALTER TABLE sites ADD COLUMN swaps jsonb NOT NULL DEFAULT '[]'",
    `UPDATE programs SET terms = jsonb_build_object('tracksOnTheWay', false) || terms`,
    `UPDATE sites SET origin = '{"frame": null}' || origin WHERE origin IS NOT NULL`,
    "ALTER TABLE ledger_sources ADD COLUMN tells boolean NOT NULL DEFAULT false",
  ],
};
