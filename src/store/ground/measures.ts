import type { Store } from "./store.ts";

/** What a database tells of itself. */
export interface StoreMeasures {
  /** How many jobs are kept in each state. */
  jobs: Readonly<Record<JobStateName, number>>;
  /** The largest tables, partitions added up, with their indexes. */
  tables: readonly { table: string; bytes: number }[];
}
type JobStateName = "waiting" | "running" | "done" | "failed" | "stopped";

/** Asks a database what there is to be watched in it. */
export async function measures(store: Store): Promise<StoreMeasures> {
  const [jobs, tables] = await Promise.all([jobCounts(store), tableSizes(store)]);
  return {
    jobs: jobs[0]!,
    tables: tables.map(({ name, bytes }) => ({ table: name, bytes: Number(bytes) })),
  };
}

function jobCounts(store: Store): Promise<Record<JobStateName, number>[]> {
  return store.rows<Record<JobStateName, number>>(
    `SELECT count(*) FILTER (WHERE state = 'running' AND worker IS NULL)::int AS waiting,
       count(*) FILTER (WHERE state = 'running' AND worker IS NOT NULL)::int AS running,
       count(*) FILTER (WHERE state = 'done')::int AS done, count(*) FILTER (WHERE state = 'failed')::int AS failed,
       count(*) FILTER (WHERE state = 'stopped')::int AS stopped FROM jobs`,
  );
}

function tableSizes(store: Store): Promise<{ name: string; bytes: string }[]> {
  return store.rows<{ name: string; bytes: string }>(
    `SELECT coalesce(parent.relname, own.relname)::text AS name, sum(pg_total_relation_size(own.oid))::text AS bytes
     FROM pg_class own LEFT JOIN pg_inherits i ON i.inhrelid = own.oid LEFT JOIN pg_class parent ON parent.oid = i.inhparent
     WHERE own.relkind = 'r' AND own.relnamespace = 'public'::regnamespace
     GROUP BY 1 ORDER BY sum(pg_total_relation_size(own.oid)) DESC LIMIT 20`,
  );
}
