import type { Migration } from "../migration.ts";

/** Programs and networks, the links built from them, creatives, and what was earned. */
export const programs: Migration = {
  name: "005-programs",
  statements: [
    // What a person says of a program is one document, checked by one schema; what is asked for often is taken from it.
    `CREATE TABLE programs (
      id bigserial PRIMARY KEY, site_id bigint NOT NULL REFERENCES sites ON DELETE CASCADE, terms jsonb NOT NULL,
      name text NOT NULL GENERATED ALWAYS AS (terms->>'name') STORED,
      network text NOT NULL GENERATED ALWAYS AS (terms->>'network') STORED,
      state text NOT NULL GENERATED ALWAYS AS (terms->>'state') STORED,
      state_dates jsonb NOT NULL DEFAULT '{}', credentials text, version integer NOT NULL DEFAULT 1,
      created_at timestamptz NOT NULL DEFAULT now(), updated_at timestamptz NOT NULL DEFAULT now(), deleted_at timestamptz)`,
    `CREATE UNIQUE INDEX programs_name ON programs (site_id, lower(name)) WHERE deleted_at IS NULL`,
    `CREATE TABLE networks (
      id bigserial PRIMARY KEY, site_id bigint NOT NULL REFERENCES sites ON DELETE CASCADE, name text NOT NULL,
      hosts text[] NOT NULL DEFAULT '{}', catalogue text NOT NULL DEFAULT '', report text NOT NULL DEFAULT '',
      columns jsonb, UNIQUE (site_id, name))`,
    // Which program a route leads to; kept by whoever keeps the ledger.
    `CREATE TABLE program_routes (
      route_id bigint PRIMARY KEY REFERENCES routes ON DELETE CASCADE, site_id bigint NOT NULL, program_id bigint NOT NULL REFERENCES programs ON DELETE CASCADE,
      tracking text NOT NULL, sub_id text)`,
    `CREATE INDEX program_routes_program ON program_routes (program_id)`,
    // Links that were built, so that a sub-ID in a report is known years later.
    `CREATE TABLE issued_links (
      id bigserial PRIMARY KEY, site_id bigint NOT NULL REFERENCES sites ON DELETE CASCADE, program_id bigint NOT NULL REFERENCES programs ON DELETE CASCADE,
      sub_id text NOT NULL, page_id bigint, destination text NOT NULL, address text NOT NULL,
      made_by text NOT NULL, made_at timestamptz NOT NULL DEFAULT now(), UNIQUE (site_id, address))`,
    `CREATE INDEX issued_links_sub_id ON issued_links (program_id, sub_id)`,
    `CREATE TABLE creatives (
      id bigserial PRIMARY KEY, site_id bigint NOT NULL REFERENCES sites ON DELETE CASCADE, program_id bigint NOT NULL REFERENCES programs ON DELETE CASCADE,
      name text NOT NULL, html text NOT NULL, read jsonb NOT NULL, version integer NOT NULL DEFAULT 1, deleted_at timestamptz,
      made_at timestamptz NOT NULL DEFAULT now())`,
    `CREATE INDEX creatives_program ON creatives (program_id) WHERE deleted_at IS NULL`,

    // Checking each of a million rows' site against the sites would take longer than writing them.
    `CREATE TABLE conversions (
      site_id bigint NOT NULL, network text COLLATE "C" NOT NULL, reference text COLLATE "C" NOT NULL,
      at timestamptz NOT NULL, kind text NOT NULL, state text NOT NULL, currency text NOT NULL, commission bigint NOT NULL, amount bigint,
      sub_id text COLLATE "C" NOT NULL, program_word text NOT NULL, program_id bigint, page_id bigint,
      PRIMARY KEY (reference, network, site_id))`,
    // A report has the rows of some weeks, which so lie together: a B-tree by time would cost a third of writing them.
    `CREATE INDEX conversions_at ON conversions USING brin (site_id, at)`,
    // What networks count themselves, by day and label.
    `CREATE TABLE network_clicks (
      site_id bigint NOT NULL REFERENCES sites ON DELETE CASCADE, network text NOT NULL, day date NOT NULL, program_word text NOT NULL,
      sub_id text COLLATE "C" NOT NULL, program_id bigint, page_id bigint, clicks integer NOT NULL,
      PRIMARY KEY (site_id, day, network, program_word, sub_id))`,
    `CREATE TABLE report_imports (
      id bigserial PRIMARY KEY, site_id bigint NOT NULL REFERENCES sites ON DELETE CASCADE, network text NOT NULL, rows integer NOT NULL,
      created integer NOT NULL, changed integer NOT NULL, made_by text NOT NULL, made_at timestamptz NOT NULL DEFAULT now())`,
  ],
};
