import type { Migration } from "../migration.ts";

/** Long work: what was asked, how far it is, what it came to, and the file that it works on; catalogues as networks gave them. */
export const jobs: Migration = {
  name: "012-jobs",
  statements: [
    `CREATE TABLE jobs (
       id uuid PRIMARY KEY,
       site_id bigint NOT NULL REFERENCES sites (id) ON DELETE CASCADE,
       owner text NOT NULL,
       role text NOT NULL,
       kind text NOT NULL,
       input json NOT NULL,
       queue text,
       state text NOT NULL DEFAULT 'running' CHECK (state IN ('running', 'done', 'failed', 'stopped')),
       done integer NOT NULL DEFAULT 0,
       total integer NOT NULL DEFAULT 0,
       result json,
       problem json,
       note text NOT NULL DEFAULT '',
       attempt integer NOT NULL DEFAULT 0,
       worker text,
       stopping boolean NOT NULL DEFAULT false,
       created_at timestamptz NOT NULL DEFAULT now(),
       told_at timestamptz,
       ended_at timestamptz
     )`,
    `CREATE INDEX jobs_running ON jobs (told_at) WHERE state = 'running'`,
    `CREATE INDEX jobs_owner ON jobs (owner, created_at)`,
    `CREATE TABLE job_files (
       job_id uuid NOT NULL REFERENCES jobs (id) ON DELETE CASCADE,
       part integer NOT NULL,
       bytes bytea NOT NULL,
       PRIMARY KEY (job_id, part)
     )`,
    `CREATE TABLE catalogues (
       network_id bigint PRIMARY KEY REFERENCES networks (id) ON DELETE CASCADE,
       address text NOT NULL,
       is_json boolean NOT NULL,
       bytes bytea NOT NULL,
       pulled_at timestamptz NOT NULL DEFAULT now()
     )`,
  ],
};
