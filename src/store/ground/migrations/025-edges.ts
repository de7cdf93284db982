import type { Migration } from "../migration.ts";

/** Web servers that answer for us: what each has, what it left to us, and what was collected of it. */
export const edges: Migration = {
  name: "025-edges",
  statements: [
    `CREATE TABLE edges (
       name text PRIMARY KEY, written_at timestamptz, change_seq bigint, counts jsonb NOT NULL DEFAULT '{}', fault text NOT NULL DEFAULT '', seen_at timestamptz,
       collected_at timestamptz, collected bigint NOT NULL DEFAULT 0, unreadable bigint NOT NULL DEFAULT 0, waiting_bytes bigint NOT NULL DEFAULT 0,
       collect_fault text NOT NULL DEFAULT '', clock_ms integer NOT NULL DEFAULT 0, made_at timestamptz NOT NULL DEFAULT now())`,
  ],
};
