import type { Migration } from "../migration.ts";

/** Sessions can be told apart, looked at and ended one by one; those that nobody uses end by themselves. */
export const account: Migration = {
  name: "013-account",
  statements: [
    `ALTER TABLE sessions
       ADD COLUMN id uuid NOT NULL DEFAULT gen_random_uuid(),
       ADD COLUMN last_seen_at timestamptz NOT NULL DEFAULT now(),
       ADD COLUMN place text NOT NULL DEFAULT '',
       ADD COLUMN agent text NOT NULL DEFAULT ''`,
    `CREATE UNIQUE INDEX sessions_id ON sessions (id)`,
    `CREATE INDEX sessions_person ON sessions (person_id)`,
  ],
};
