import type { Migration } from "../migration.ts";

/** What years of operation need: who asked for what, how long history is kept, former hosts, sites that were put away. */
export const years: Migration = {
  name: "017-years",
  statements: [
    // The id of the request that did it, as its log and its problems have it.
    `ALTER TABLE audit ADD COLUMN request text`,
    `ALTER TABLE sites ADD COLUMN history_months int NOT NULL DEFAULT 36, ADD COLUMN archived_at timestamptz`,
    // Saved views are deleted as all else is: they stand in the bin for a while.
    `ALTER TABLE ledger_views ADD COLUMN deleted_at timestamptz`,
    `ALTER TABLE ledger_views DROP CONSTRAINT ledger_views_site_id_name_key`,
    `CREATE UNIQUE INDEX ledger_views_name ON ledger_views (site_id, name) WHERE deleted_at IS NULL`,
    // A former host answers nothing itself: it leads to another host of its site, path by path.
    `ALTER TABLE hosts ADD COLUMN leads_to text`,
    `DO $$ DECLARE name text; BEGIN
       SELECT conname INTO name FROM pg_constraint WHERE conrelid = 'hosts'::regclass AND contype = 'c' AND pg_get_constraintdef(oid) LIKE '%role%';
       IF name IS NOT NULL THEN EXECUTE format('ALTER TABLE hosts DROP CONSTRAINT %I', name); END IF;
     END $$`,
    `ALTER TABLE hosts ADD CONSTRAINT hosts_role CHECK (role IN ('primary', 'short', 'other', 'former')),
       ADD CONSTRAINT hosts_leads_to CHECK ((role = 'former') = (leads_to IS NOT NULL))`,
  ],
};
