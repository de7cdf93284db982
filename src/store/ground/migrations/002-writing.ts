import type { Migration } from "../migration.ts";

const STAMPS = `created_at timestamptz NOT NULL DEFAULT now(), updated_at timestamptz NOT NULL DEFAULT now()`;

/** Files, navigation, shared blocks, site variables, set-aside versions, who has a page open. */
export const writing: Migration = {
  name: "002-writing",
  statements: [
    // A shared block is written, saved and published as a page is; it has a place instead of readers' path.
    `ALTER TABLE pages ADD COLUMN kind text NOT NULL DEFAULT 'page' CHECK (kind IN ('page', 'block')),
      ADD COLUMN placement jsonb, ADD COLUMN bound jsonb NOT NULL DEFAULT '{}'`,
    `CREATE INDEX pages_kind ON pages (site_id, kind) WHERE deleted_at IS NULL`,
    `ALTER TABLE revisions ADD COLUMN kind text NOT NULL DEFAULT 'published' CHECK (kind IN ('published', 'aside'))`,
    `ALTER TABLE revisions DROP CONSTRAINT revisions_page_id_version_key`,
    `CREATE UNIQUE INDEX revisions_published ON revisions (page_id, version) WHERE kind = 'published'`,
    `CREATE INDEX revisions_page ON revisions (page_id, id)`,

    `CREATE TABLE files (
      id bigserial PRIMARY KEY, site_id bigint NOT NULL REFERENCES sites ON DELETE CASCADE,
      path text NOT NULL, name text NOT NULL, media_type text NOT NULL, bytes integer NOT NULL,
      width integer, height integer, digest text NOT NULL, alt text NOT NULL DEFAULT '',
      created_by text NOT NULL, deleted_at timestamptz, ${STAMPS})`,
    `CREATE UNIQUE INDEX files_path ON files (site_id, path) WHERE deleted_at IS NULL`,
    `CREATE INDEX files_digest ON files (site_id, digest)`,
    `CREATE TABLE file_contents (file_id bigint PRIMARY KEY REFERENCES files ON DELETE CASCADE, content bytea NOT NULL)`,

    `CREATE TABLE navigations (
      site_id bigint PRIMARY KEY REFERENCES sites ON DELETE CASCADE, version integer NOT NULL,
      items jsonb NOT NULL, updated_by text NOT NULL, updated_at timestamptz NOT NULL DEFAULT now())`,
    `CREATE TABLE site_variables (
      site_id bigint NOT NULL REFERENCES sites ON DELETE CASCADE, name text NOT NULL, value text NOT NULL,
      PRIMARY KEY (site_id, name))`,
    `ALTER TABLE sites ADD COLUMN paid_limit integer NOT NULL DEFAULT 3, ADD COLUMN paid_limit_long integer NOT NULL DEFAULT 4,
      ADD COLUMN long_words integer NOT NULL DEFAULT 1500`,
    `CREATE UNLOGGED TABLE page_visits (
      page_id bigint NOT NULL REFERENCES pages ON DELETE CASCADE, tab text NOT NULL, person text NOT NULL,
      seen_at timestamptz NOT NULL DEFAULT now(), PRIMARY KEY (page_id, tab))`,
  ],
};
