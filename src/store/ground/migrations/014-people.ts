import type { Migration } from "../migration.ts";

/** Roles for each site, people who may not come in any more, links with which a password is chosen, and whose a token is. */
export const peopleOfSites: Migration = {
  name: "014-people",
  statements: [
    `ALTER TABLE people ALTER COLUMN role DROP NOT NULL, ADD COLUMN deactivated_at timestamptz`,
    `CREATE TABLE site_roles (
       person_id bigint NOT NULL REFERENCES people (id) ON DELETE CASCADE,
       site_id bigint NOT NULL REFERENCES sites (id) ON DELETE CASCADE,
       role text NOT NULL CHECK (role IN ('owner', 'editor', 'reader')),
       PRIMARY KEY (person_id, site_id)
     )`,
    `CREATE INDEX site_roles_site ON site_roles (site_id)`,
    `CREATE TABLE password_resets (
       token_hash text PRIMARY KEY,
       person_id bigint NOT NULL REFERENCES people (id) ON DELETE CASCADE,
       expires_at timestamptz NOT NULL
     )`,
    `CREATE INDEX password_resets_person ON password_resets (person_id)`,
    `ALTER TABLE tokens ADD COLUMN person_id bigint REFERENCES people (id) ON DELETE CASCADE,
       ADD COLUMN site_ids bigint[], ADD COLUMN last_used_from text NOT NULL DEFAULT ''`,
    `CREATE INDEX tokens_person ON tokens (person_id)`,
  ],
};
