import type { Migration } from "../migration.ts";

/** The ledger of links, the disclosure, rules at a time, changes of many links with their undo. */
export const ledger: Migration = {
  name: "004-ledger",
  statements: [
    `ALTER TABLE spool_progress ADD COLUMN closed_at timestamptz`,
    `CREATE INDEX spool_progress_closed ON spool_progress (closed_at) WHERE closed_at IS NOT NULL`,

    `ALTER TABLE sites ADD COLUMN disclosure jsonb NOT NULL DEFAULT '{"text": "", "place": false}'`,

    // A document that links stand in, as it is written (draft), as readers get it (published), or both alike.
    // page_id 0 is the navigation.
    `CREATE TABLE ledger_sources (
      id bigserial PRIMARY KEY, site_id bigint NOT NULL REFERENCES sites ON DELETE CASCADE,
      kind text NOT NULL CHECK (kind IN ('page', 'block', 'navigation')), page_id bigint NOT NULL,
      edition text NOT NULL CHECK (edition IN ('both', 'draft', 'published')),
      live boolean NOT NULL, stamp text NOT NULL, made_of text NOT NULL, path text NOT NULL, title text NOT NULL, category text NOT NULL,
      words integer NOT NULL, disclosed boolean, findings text[] NOT NULL DEFAULT '{}')`,
    `CREATE UNIQUE INDEX ledger_sources_page ON ledger_sources (site_id, page_id, edition)`,

    `CREATE TABLE ledger_links (
      id bigserial PRIMARY KEY, site_id bigint NOT NULL, source_id bigint NOT NULL,
      edition text NOT NULL, live boolean NOT NULL, source_kind text NOT NULL, place text NOT NULL, ordinal integer NOT NULL,
      words text NOT NULL, anchor text NOT NULL, href text NOT NULL, ends text NOT NULL, host text NOT NULL, kind text NOT NULL,
      reach text NOT NULL, category text NOT NULL, own_key text, destination_key text NOT NULL, route_id bigint, leads_to bigint, short_id bigint,
      stored_rel text, stored_target text, override text, creative_id bigint, rel text NOT NULL, target text, treatment text NOT NULL,
      rules text[] NOT NULL, programs text[] NOT NULL, networks text[] NOT NULL, sub_id text,
      text_findings text[] NOT NULL, rule_findings text[] NOT NULL, search text NOT NULL,
      -- One number for all that facets count by: hashing it is a fourth of hashing each of them.
      facet_key bigint GENERATED ALWAYS AS (
        hashtextextended(kind || ' ' || treatment || ' ' || reach || ' ' || coalesce(target, '') || ' ' || anchor || ' ' || host || ' ' || source_kind, 0)
        # hash_array_extended(rules, 1) # hash_array_extended(programs, 2) # hash_array_extended(text_findings, 3) # hash_array_extended(rule_findings, 4)) STORED)`,
    // Links go with their documents, all of a statement at once: a foreign key would ask for each link that is written.
    `CREATE FUNCTION forget_ledger_links() RETURNS trigger LANGUAGE plpgsql AS
      'BEGIN DELETE FROM ledger_links WHERE source_id IN (SELECT id FROM gone); RETURN NULL; END'`,
    `CREATE TRIGGER ledger_sources_gone AFTER DELETE ON ledger_sources REFERENCING OLD TABLE AS gone
      FOR EACH STATEMENT EXECUTE FUNCTION forget_ledger_links()`,
    `CREATE INDEX ledger_links_source ON ledger_links (source_id, ordinal)`,
    `CREATE INDEX ledger_links_place ON ledger_links (site_id, place, source_id, ordinal)`,
    `CREATE INDEX ledger_links_host ON ledger_links (site_id, host, id)`,
    `CREATE INDEX ledger_links_own ON ledger_links (site_id, own_key) WHERE own_key IS NOT NULL`,
    `CREATE INDEX ledger_links_destination ON ledger_links (site_id, destination_key)`,
    `CREATE INDEX ledger_links_route ON ledger_links (route_id) WHERE route_id IS NOT NULL`,
    `CREATE INDEX ledger_links_creative ON ledger_links (creative_id) WHERE creative_id IS NOT NULL`,
    `CREATE INDEX ledger_links_leads_to ON ledger_links (leads_to) WHERE leads_to IS NOT NULL`,

    // Up to which change a site's ledger is current.
    `CREATE TABLE ledger_states (
      site_id bigint PRIMARY KEY REFERENCES sites ON DELETE CASCADE, seq bigint NOT NULL,
      rules_version integer NOT NULL, kept_at timestamptz NOT NULL DEFAULT now())`,
    `CREATE TABLE ledger_days (
      site_id bigint NOT NULL REFERENCES sites ON DELETE CASCADE, day date NOT NULL, treatment text NOT NULL, links integer NOT NULL,
      PRIMARY KEY (site_id, day, treatment))`,
    `CREATE TABLE ledger_views (
      id bigserial PRIMARY KEY, site_id bigint NOT NULL REFERENCES sites ON DELETE CASCADE, name text NOT NULL, query text NOT NULL,
      made_by text NOT NULL, made_at timestamptz NOT NULL DEFAULT now(), UNIQUE (site_id, name))`,

    `CREATE TABLE rule_schedules (
      site_id bigint PRIMARY KEY REFERENCES sites ON DELETE CASCADE, version integer NOT NULL, rules jsonb NOT NULL,
      at timestamptz NOT NULL, made_by text NOT NULL, held text)`,

    // What many links were before they were changed together, for the undo.
    `CREATE TABLE link_batches (
      id bigserial PRIMARY KEY, site_id bigint NOT NULL REFERENCES sites ON DELETE CASCADE, action jsonb NOT NULL, before jsonb NOT NULL,
      made_by text NOT NULL, made_at timestamptz NOT NULL DEFAULT now(), undone_at timestamptz)`,
  ],
};
