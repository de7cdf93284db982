import type { Migration } from "../migration.ts";

/** Sites whose pages stand elsewhere: where, what was found there, and each page as it was last read. */
export const origins: Migration = {
  name: "022-origins",
  statements: [
    // Where its pages stand and how they come to readers; null for a site that is written here.
    `ALTER TABLE sites ADD COLUMN origin jsonb`,
    `CREATE TABLE origins (
       site_id bigint PRIMARY KEY REFERENCES sites ON DELETE CASCADE, settings jsonb NOT NULL DEFAULT '{}', found jsonb, found_at timestamptz,
       traps jsonb NOT NULL DEFAULT '[]', read_at timestamptz, version integer NOT NULL DEFAULT 1)`,
    // A page of the origin, by its path and query; what it was when it was last asked for, and its blocks as they were read.
    `CREATE TABLE readings (
       id bigserial PRIMARY KEY, site_id bigint NOT NULL REFERENCES sites ON DELETE CASCADE, path text NOT NULL, key text NOT NULL,
       state text NOT NULL CHECK (state IN ('found', 'waiting', 'read', 'moved', 'gone', 'failing', 'hidden', 'elsewhere', 'scripts', 'other', 'forbidden')),
       part text NOT NULL, named boolean NOT NULL DEFAULT false, named_change timestamptz, depth integer NOT NULL DEFAULT 0,
       status integer, note text NOT NULL DEFAULT '', leads_to text, title text NOT NULL DEFAULT '', description text NOT NULL DEFAULT '', language text NOT NULL DEFAULT '',
       words integer NOT NULL DEFAULT 0, etag text, last_modified text, digest text, blocks jsonb, keys text NOT NULL DEFAULT '', tries integer NOT NULL DEFAULT 0,
       read_at timestamptz, changed_at timestamptz, waited_ms bigint, next_at timestamptz, page_id bigint REFERENCES pages ON DELETE SET NULL,
       UNIQUE (site_id, path))`,
    `CREATE INDEX readings_state ON readings (site_id, state, id)`,
    `CREATE INDEX readings_key ON readings (site_id, key)`,
    `CREATE INDEX readings_next ON readings (next_at) WHERE next_at IS NOT NULL`,
    // Blocks that stand on many pages, and the entry that they stand in once.
    `CREATE TABLE repeated_keys (
       site_id bigint NOT NULL REFERENCES sites ON DELETE CASCADE, key text NOT NULL, page_id bigint NOT NULL REFERENCES pages ON DELETE CASCADE,
       PRIMARY KEY (site_id, key))`,
    // What is to be changed in the other system: a link of a page there, as it is and as it is to be. Known again by page, address,
    // words, and which of several alike it is.
    `CREATE TABLE todos (
       id bigserial PRIMARY KEY, site_id bigint NOT NULL REFERENCES sites ON DELETE CASCADE, page_id bigint NOT NULL REFERENCES pages ON DELETE CASCADE,
       asked boolean NOT NULL, href text NOT NULL, words text NOT NULL, nth integer NOT NULL, sentence text NOT NULL DEFAULT '',
       before_rel text, before_target text, after_href text, after_rel text, after_target text, why text NOT NULL DEFAULT '',
       state text NOT NULL DEFAULT 'open' CHECK (state IN ('open', 'done', 'gone')), made_by text NOT NULL DEFAULT '',
       made_at timestamptz NOT NULL DEFAULT now(), ended_at timestamptz, UNIQUE (site_id, page_id, href, words, nth, asked))`,
    `CREATE INDEX todos_state ON todos (site_id, state, id)`,
    `ALTER TABLE pages DROP CONSTRAINT pages_kind_check, ADD CONSTRAINT pages_kind_check CHECK (kind IN ('page', 'block', 'read', 'repeated')),
       ADD COLUMN on_pages integer NOT NULL DEFAULT 0`,
    `ALTER TABLE ledger_sources DROP CONSTRAINT ledger_sources_kind_check,
       ADD CONSTRAINT ledger_sources_kind_check CHECK (kind IN ('page', 'block', 'navigation', 'read', 'repeated')),
       ADD COLUMN on_pages integer NOT NULL DEFAULT 0`,
    // What rules ask of a link that readers get as it is written elsewhere; null for all others.
    `ALTER TABLE ledger_links ADD COLUMN wanted_rel text, ADD COLUMN wanted_target text`,
  ],
};
