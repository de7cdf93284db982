import pg from "pg";
import { addressesOf, connectingTo } from "../ground/connection.ts";
import { Logger, run, runMigrations, type Runner, type Task } from "graphile-worker";

/** One job as the queue gives it out. */
export interface QueuedJob {
  id: string;
  /** The worker of the queue that it is given to. */
  worker: string;
  /** The queue does not give it out again, should this fail. */
  isLast: boolean;
}

/** A process's part in the queue. */
export interface Queue {
  /** Takes no more jobs, says so, and waits for those that run. */
  stop(takesNoMore: () => void): Promise<void>;
}

const AT_ONCE = 4;
const LOOK_ANYWAY_MS = 2_000;
const AGAIN_MS = 2_000;

// The queue's own lines are for its makers; what fails is told by whoever works on the job.
const SILENT = new Logger(() => () => undefined);

// Its listener and its advisory locks need sessions of their own.
function poolOf(url: string, max: number): pg.Pool {
  const pool = new pg.Pool({ ...connectingTo(addressesOf(url).direct), max });
  pool.on("error", () => undefined); // an idle connection that is lost is replaced; a busy one fails whoever uses it
  return pool;
}

/** Brings the queue's own tables up to date. */
export async function migrateQueue(url: string): Promise<void> {
  const pool = poolOf(url, 1);
  try {
    await runMigrations({ pgPool: pool, logger: SILENT });
  } finally {
    await pool.end();
  }
}

/**
 * Takes jobs of the kinds that are known here from the queue as they come, and has them worked on, a few at a time. When the database has been away for
 * so long that the queue gives up, it is told of and begun again.
 */
export function startQueue(
  url: string,
  kinds: readonly string[],
  work: (job: QueuedJob) => Promise<void>,
  report: (message: string, error: unknown) => void,
): Queue {
  let starting: Promise<Runner> | undefined;
  let again: NodeJS.Timeout | undefined;
  let stopping = false;
  let failing = false;
  let ended: Promise<void> = Promise.resolve();

  const begin = (): void => {
    ended = turn().then(
      () => undefined,
      (error: unknown) => {
        if (!failing && !stopping) report("The queue of long work failed; it is begun again.", error);
        failing = true;
        if (!stopping) again = setTimeout(begin, AGAIN_MS);
      },
    );
  };
  const task: Task = async (payload, { job }) => {
    const { id } = payload as { id: string };
    await work({ id, worker: job.locked_by!, isLast: job.attempts >= job.max_attempts });
  };
  async function turn(): Promise<void> {
    // One connection listens, and each worker may need one.
    const pool = poolOf(url, AT_ONCE + 1);
    starting = run({
      pgPool: pool,
      concurrency: AT_ONCE,
      noHandleSignals: true,
      noPreparedStatements: false,
      pollInterval: LOOK_ANYWAY_MS,
      logger: SILENT,
      taskList: Object.fromEntries(kinds.map((kind) => [kind, task])),
    });
    try {
      const { promise } = await starting;
      failing = false;
      await promise;
    } finally {
      await pool.end();
    }
    if (!stopping) throw new Error("the queue ended by itself");
  }
  begin();
  return {
    async stop(takesNoMore) {
      if (stopping) return;
      stopping = true;
      clearTimeout(again);
      // One that could not be started takes none either.
      const runner = await starting?.catch(() => undefined);
      const stopped = runner?.stop().catch((error: unknown) => {
        // It ended by itself meanwhile.
        if (!/already stopped/.test((error as Error).message)) throw error;
      });
      takesNoMore();
      await stopped;
      await ended;
    },
  };
}
