import type { Migration } from "../migration.ts";

/** Calls that came with an `Idempotency-Key`, and how they were answered: one that comes again is answered so, and not done again. */
export const repeats: Migration = {
  name: "021-repeats",
  statements: [
    `CREATE TABLE repeats (
       who text NOT NULL, key text NOT NULL, call text NOT NULL, status integer, headers jsonb, body text,
       at timestamptz NOT NULL DEFAULT now(), PRIMARY KEY (who, key))`,
    `CREATE INDEX repeats_at ON repeats (at)`,
  ],
};
