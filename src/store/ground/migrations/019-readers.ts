import type { Migration } from "../migration.ts";

/** What sites and pages are to readers and to the machines that read them; paths found in any letter case. */
export const readers: Migration = {
  name: "019-readers",
  statements: [
    `ALTER TABLE sites ADD COLUMN delivered jsonb NOT NULL DEFAULT '{}', ADD COLUMN feed_id uuid NOT NULL DEFAULT gen_random_uuid()`,
    `ALTER TABLE pages ADD COLUMN search jsonb NOT NULL DEFAULT '{}'`,
    `CREATE INDEX pages_letters ON pages (site_id, lower(published_key)) WHERE published_key IS NOT NULL AND deleted_at IS NULL`,
    `CREATE INDEX files_letters ON files (site_id, lower(path)) WHERE deleted_at IS NULL`,
  ],
};
