import type { Transaction } from "sequelize";
import type { Role } from "../../core/people/choices.ts";
import type { JobMark } from "../../threads/progress.ts";
import type { Store } from "../ground/store.ts";

export type JobState = "running" | "done" | "failed" | "stopped";

/** Where a job stands. `running` is also one that waits for its turn. */
export interface JobRow {
  id: string;
  kind: string;
  state: JobState;
  done: number;
  total: number;
  result: unknown;
  problem: unknown;
  note: string;
  createdAt: Date;
}

/** A job as one begins with it. */
export interface BegunJob {
  siteId: string;
  owner: string;
  role: Role;
  kind: string;
  input: unknown;
  attempt: number;
  /** The id of the request that asked for it. */
  request: string | null;
  /** Its work was kept by an attempt that came no further: there is nothing left to do. */
  settled: boolean;
}

/** How long a process may be silent about its job before that is given to another, as PostgreSQL's interval. */
const SILENT = "15 seconds";
const KEPT = "1 day";
/** How often a job is tried before it is given up. */
const MAX_ATTEMPTS = 4;
const FILE_PART = 4_000_000;

/** Keeps a job and puts it in the queue, both or neither; of one `queue` one is worked on at a time. */
export async function addJob(
  store: Store,
  job: {
    id: string;
    site: string;
    owner: string;
    role: Role;
    kind: string;
    input: unknown;
    queue: string | null;
    file: Uint8Array | undefined;
    request: string | undefined;
  },
): Promise<void> {
  const { id, site, owner, role, kind, input, queue, file, request = null } = job;
  await store.transaction(async (transaction) => {
    await store.rows(
      `INSERT INTO jobs (id, site_id, owner, role, kind, input, queue, request)
       VALUES ($id::uuid, $site::bigint, $owner, $role, $kind, $input::json, $queue, $request)`,
      { id, site, owner, role, kind, input: JSON.stringify(input), queue, request },
      transaction,
    );
    if (file) await putJobFile(store, id, file, transaction);
    await enqueue(store, id, transaction);
  });
}

async function enqueue(store: Store, id: string, transaction: Transaction): Promise<void> {
  await store.rows(
    `SELECT graphile_worker.add_job(kind, json_build_object('id', id), queue_name => queue, max_attempts => ${MAX_ATTEMPTS}, job_key => id::text) FROM jobs WHERE id = $id::uuid`,
    { id },
    transaction,
  );
}

/** Keeps the file that a job works on or brought, in parts. */
export async function putJobFile(
  store: Store,
  id: string,
  file: Uint8Array,
  transaction?: Transaction,
): Promise<void> {
  await store.rows("DELETE FROM job_files WHERE job_id = $id::uuid", { id }, transaction);
  for (let at = 0, part = 0; at < file.length; at += FILE_PART, part += 1)
    await store.rows(
      "INSERT INTO job_files (job_id, part, bytes) VALUES ($id::uuid, $part, $bytes::bytea)",
      { id, part, bytes: Buffer.from(file.subarray(at, at + FILE_PART)) },
      transaction,
    );
}

/** Forgets the file of a job that is done with it. */
export async function dropJobFile(store: Store, of: { id: string }): Promise<void> {
  await store.rows("DELETE FROM job_files WHERE job_id = $id::uuid", of);
}

/** The file of a job of this site; undefined when it is kept no more, or there never was one. */
export async function jobFile(
  store: Store,
  of: { id: string; site: string },
): Promise<Uint8Array | undefined> {
  const rows = await store.rows<{ bytes: Uint8Array }>(
    `SELECT f.bytes FROM job_files f JOIN jobs j ON j.id = f.job_id WHERE j.id = $id::uuid AND j.site_id = $site::bigint ORDER BY f.part`,
    of,
  );
  return rows.length === 0 ? undefined : new Uint8Array(Buffer.concat(rows.map(({ bytes }) => bytes)));
}

/** A person's job; no row when there is none of theirs by that id. */
export function jobOf(store: Store, of: { id: string; owner: string }): Promise<JobRow[]> {
  return store.rows<JobRow>(
    `SELECT id::text, kind, state, done, total, result, problem, note, created_at AS "createdAt" FROM jobs WHERE id = $id::uuid AND owner = $owner`,
    of,
  );
}

/** A person's jobs, the newest first, without what they came to. */
export function jobsOf(
  store: Store,
  of: { owner: string; site: string },
): Promise<Omit<JobRow, "result" | "problem">[]> {
  return store.rows<Omit<JobRow, "result" | "problem">>(
    `SELECT id::text, kind, state, done, total, note, created_at AS "createdAt" FROM jobs WHERE owner = $owner AND site_id = $site::bigint ORDER BY created_at DESC LIMIT 50`,
    of,
  );
}

/** Begins a job for a worker of the queue; no row when it is over, or is to stop. */
export function beginJob(store: Store, of: { id: string; worker: string }): Promise<BegunJob[]> {
  return store.rows<BegunJob>(
    `UPDATE jobs SET attempt = attempt + 1, worker = $worker, told_at = now(), note = ''
     WHERE id = $id::uuid AND state = 'running' AND NOT stopping
     RETURNING site_id::text AS "siteId", owner, role, kind, input, attempt, request, result IS NOT NULL AS settled`,
    of,
  );
}

/** Tells how far an attempt is; no row when it is this attempt's job no more, `stopping` when somebody asked for that. */
export function tellJob(
  store: Store,
  { id, attempt, done, total }: JobMark & { done: number; total: number },
): Promise<{ stopping: boolean }[]> {
  return store.rows<{ stopping: boolean }>(
    `UPDATE jobs SET told_at = now(), done = $done, total = $total
     WHERE id = $id::uuid AND attempt = $attempt AND state = 'running' RETURNING stopping`,
    { id, attempt, done, total },
  );
}

/**
 * Keeps what a job came to within the transaction that does its work: both or neither is there. No row when it is this
 * attempt's job no more.
 */
export function settleJob(
  store: Store,
  { id, attempt }: JobMark,
  result: unknown,
  transaction: Transaction,
): Promise<{ id: string }[]> {
  return store.rows<{ id: string }>(
    "UPDATE jobs SET result = $result::json WHERE id = $id::uuid AND attempt = $attempt AND state = 'running' RETURNING id::text",
    { id, attempt, result: JSON.stringify(result ?? null) },
    transaction,
  );
}

/** Ends an attempt; no row when it is this attempt's job no more. One whose work was kept is done, whatever came behind. */
export function endJob(
  store: Store,
  { id, attempt }: JobMark,
  end: { state: "done" | "failed" | "stopped"; result?: unknown; problem?: unknown },
): Promise<{ id: string }[]> {
  return store.rows<{ id: string }>(
    `UPDATE jobs SET state = CASE WHEN result IS NULL THEN $state ELSE 'done' END, result = coalesce(result, $result::json),
       problem = CASE WHEN result IS NULL THEN $problem::json END, done = CASE WHEN $state = 'done' THEN total ELSE done END,
       worker = NULL, note = '', ended_at = now()
     WHERE id = $id::uuid AND attempt = $attempt AND state = 'running' RETURNING id::text`,
    {
      id,
      attempt,
      state: end.state,
      result: end.result === undefined ? null : JSON.stringify(end.result),
      problem: end.problem === undefined ? null : JSON.stringify(end.problem),
    },
  );
}

/** Lets go of a job that failed for now: the queue gives it out again a little later. */
export async function waitWithJob(
  store: Store,
  { id, attempt, note }: JobMark & { note: string },
): Promise<void> {
  await store.rows(
    "UPDATE jobs SET worker = NULL, note = $note WHERE id = $id::uuid AND attempt = $attempt AND state = 'running'",
    { id, attempt, note },
  );
}

/** Hands a job back that this process cannot end with, because it ends itself: any other goes on at once. */
export async function handBackJob(store: Store, { id, attempt }: JobMark): Promise<void> {
  await store.transaction(async (transaction) => {
    const [mine] = await store.rows<{ worker: string }>(
      `UPDATE jobs j SET worker = NULL FROM (SELECT id, worker FROM jobs WHERE id = $id::uuid AND worker IS NOT NULL FOR UPDATE) was
       WHERE j.id = was.id AND j.attempt = $attempt AND j.state = 'running' RETURNING was.worker`,
      { id, attempt },
      transaction,
    );
    if (!mine) return;
    await enqueue(store, id, transaction);
    // The worker may never come to its end: others of its queue do not wait for it.
    await store.rows(
      "SELECT graphile_worker.force_unlock_workers($workers::text[])",
      { workers: [mine.worker] },
      transaction,
    );
  });
}

/** Asks for a job's end: one that nobody works on has ended. No row when it is not theirs, or over. */
export function stopJob(store: Store, of: { id: string; owner: string }): Promise<{ id: string }[]> {
  return store.rows<{ id: string }>(
    `UPDATE jobs SET stopping = true,
       state = CASE WHEN worker IS NOT NULL THEN state WHEN result IS NULL THEN 'stopped' ELSE 'done' END, ended_at = CASE WHEN worker IS NULL THEN now() END
     WHERE id = $id::uuid AND owner = $owner AND state = 'running' RETURNING id::text`,
    of,
  );
}

/** Begins a job anew that failed or was stopped. No row when it is not theirs, or not over. */
export async function retryJob(store: Store, of: { id: string; owner: string }): Promise<{ id: string }[]> {
  return store.transaction(async (transaction) => {
    const again = await store.rows<{ id: string }>(
      `UPDATE jobs SET state = 'running', stopping = false, result = NULL, problem = NULL, done = 0, total = 0, note = '', ended_at = NULL, told_at = NULL
       WHERE id = $id::uuid AND owner = $owner AND state IN ('failed', 'stopped') RETURNING id::text`,
      of,
      transaction,
    );
    if (again.length > 0) await enqueue(store, of.id, transaction);
    return again;
  });
}

/**
 * Gives the jobs of processes that have fallen silent back to the queue, ends those that the queue gives up, and
 * forgets what ended long ago. `problem` is what the given-up ones are told to have failed with.
 */
export async function tidyJobs(store: Store, problem: unknown): Promise<void> {
  await store.transaction(async (transaction) => {
    const silent = await store.rows<{ worker: string }>(
      `UPDATE jobs j SET worker = NULL, note = 'Its process ended; it is begun again.'
       FROM (SELECT id, worker FROM jobs WHERE state = 'running' AND worker IS NOT NULL AND told_at < now() - interval '${SILENT}' FOR UPDATE SKIP LOCKED) s
       WHERE j.id = s.id RETURNING s.worker`,
      {},
      transaction,
    );
    if (silent.length > 0)
      await store.rows(
        "SELECT graphile_worker.force_unlock_workers($workers::text[])",
        { workers: silent.map(({ worker }) => worker) },
        transaction,
      );
    const given = await store.rows<{ id: string }>(
      `UPDATE jobs j SET ended_at = now(), note = '', state = CASE WHEN result IS NOT NULL THEN 'done' WHEN stopping THEN 'stopped' ELSE 'failed' END,
         problem = CASE WHEN result IS NULL AND NOT stopping THEN $problem::json END
       WHERE state = 'running' AND worker IS NULL AND (stopping OR NOT EXISTS (
         SELECT FROM graphile_worker.jobs q WHERE q.key = j.id::text AND (q.attempts < q.max_attempts OR q.locked_at IS NOT NULL)))
       RETURNING id::text`,
      { problem: JSON.stringify(problem) },
      transaction,
    );
    await store.rows(
      "SELECT graphile_worker.remove_job(id) FROM unnest($ids::text[]) AS id",
      { ids: given.map(({ id }) => id) },
      transaction,
    );
    await store.rows(
      `DELETE FROM jobs WHERE state <> 'running' AND ended_at < now() - interval '${KEPT}'`,
      {},
      transaction,
    );
  });
}
