import type { Migration } from "../migration.ts";

/** What keeps anything from slipping through or being lost. */
export const nothingLost: Migration = {
  name: "006-nothing-lost",
  statements: [
    // Databases of 25 November ran an earlier text of 004 and 005: this brings them level with those made later.
    `ALTER TABLE ledger_links ADD COLUMN IF NOT EXISTS creative_id bigint`,
    `CREATE INDEX IF NOT EXISTS ledger_links_creative ON ledger_links (creative_id) WHERE creative_id IS NOT NULL`,
    `ALTER TABLE conversions DROP CONSTRAINT IF EXISTS conversions_site_id_fkey`,
    `ALTER TABLE conversions DROP CONSTRAINT conversions_pkey, ALTER COLUMN network TYPE text COLLATE "C",
      ADD PRIMARY KEY (reference, network, site_id)`,
    `DROP INDEX IF EXISTS conversions_unmatched`,
    `DROP INDEX conversions_at`,
    `CREATE INDEX conversions_at ON conversions USING brin (site_id, at)`,
    `CREATE TABLE IF NOT EXISTS network_clicks (
      site_id bigint NOT NULL REFERENCES sites ON DELETE CASCADE, network text NOT NULL, day date NOT NULL, program_word text NOT NULL,
      sub_id text COLLATE "C" NOT NULL, program_id bigint, page_id bigint, clicks integer NOT NULL,
      PRIMARY KEY (site_id, day, network, program_word, sub_id))`,

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

    // What all processes of an installation have in common, by name.
    `CREATE TABLE installation (name text PRIMARY KEY, value text NOT NULL)`,

    // Records that could not be kept: what the disk refused, and lines that nobody can read.
    `CREATE TABLE lost_records (
      at timestamptz NOT NULL, records bigint NOT NULL, why text NOT NULL CHECK (why IN ('disk', 'unreadable')))`,
    `CREATE INDEX lost_records_at ON lost_records (at)`,

    // How many misses a site has let go of to stay within its bound.
    `CREATE TABLE misses_let_go (
      site_id bigint PRIMARY KEY REFERENCES sites ON DELETE CASCADE, misses bigint NOT NULL, last_at timestamptz NOT NULL)`,
  ],
};
