import type { Migration } from "../migrate.ts";

/** What keeps anything from slipping through or being lost. */
export const nothingLost: Migration = {
  name: "006-nothing-lost",
  statements: [
    // Pages from before the one gate of addresses are looked through once; what is written from now on has passed it.
    `ALTER TABLE pages ADD COLUMN admitted boolean NOT NULL DEFAULT false`,
    `ALTER TABLE pages ALTER COLUMN admitted SET DEFAULT true`,
    `CREATE INDEX pages_not_admitted ON pages (id) WHERE NOT admitted`,
  ],
};
