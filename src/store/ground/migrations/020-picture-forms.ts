import type { Migration } from "../migration.ts";

/**
 * The sizes and formats in which pictures are sent, and which part of each is shown. They are made of a shape (content, crop
 * and focus), counted by `shape`; those that there are were made of the one that `formed` names.
 */
export const pictureForms: Migration = {
  name: "020-picture-forms",
  statements: [
    `ALTER TABLE files ADD COLUMN crop jsonb, ADD COLUMN focus jsonb, ADD COLUMN shape integer NOT NULL DEFAULT 1, ADD COLUMN formed integer`,
    `CREATE TABLE file_forms (
       file_id bigint NOT NULL REFERENCES files (id) ON DELETE CASCADE, name text NOT NULL, media_type text NOT NULL,
       width integer NOT NULL, height integer NOT NULL, content bytea NOT NULL, PRIMARY KEY (file_id, name))`,
    `ALTER TABLE file_forms ALTER COLUMN content SET STORAGE EXTERNAL`,
    `CREATE INDEX files_unformed ON files (id) WHERE formed IS DISTINCT FROM shape AND deleted_at IS NULL`,
  ],
};
