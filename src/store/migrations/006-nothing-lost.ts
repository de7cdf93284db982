import type { Migration } from "../migrate.ts";

/** What keeps anything from slipping through or being lost. */
export const nothingLost: Migration = {
  name: "006-nothing-lost",
  statements: [
    // Pages from before the one gate of addresses are looked through once; what is written from now on has passed it.
    `ALTER TABLE pages ADD COLUMN admitted boolean NOT NULL DEFAULT false`,
    `ALTER TABLE pages ALTER COLUMN admitted SET DEFAULT true`,
    `CREATE INDEX pages_not_admitted ON pages (id) WHERE NOT admitted`,

    // Attempts that failed, by what they are counted by, and until when the next has to wait.
    `DROP TABLE sign_in_failures`,
    `CREATE TABLE attempts (
      who text PRIMARY KEY, tries integer NOT NULL, at timestamptz NOT NULL, until timestamptz NOT NULL)`,
    `CREATE INDEX attempts_at ON attempts (at)`,
    `CREATE TABLE own_places (
      person_id bigint NOT NULL REFERENCES people ON DELETE CASCADE, place text NOT NULL,
      last_at timestamptz NOT NULL DEFAULT now(), PRIMARY KEY (person_id, place))`,
  ],
};
