import { requestId } from "../ground/request-id.ts";
import { randomUUID } from "node:crypto";
import type { Job, JobSummary } from "../../contract/jobs.ts";
import type { Actor } from "../../core/people/actor.ts";
import type { Store } from "../../store/ground/store.ts";
import { addJob, jobOf, jobsOf, retryJob, stopJob, type JobRow } from "../../store/jobs/jobs.ts";
import type { OpenSite } from "../sites/open-site.ts";
import type { JobKind } from "./job-kind.ts";

/** Long work, kept in the database: any process may take it on, and its owner finds it from every one. */
export interface Jobs {
  /** Keeps the work, with its file, for whichever process is free. */
  start<Input>(
    actor: Actor,
    site: OpenSite,
    kind: JobKind<never, Input, unknown>,
    input: Input,
    file?: Uint8Array,
  ): Promise<Job>;
  find(owner: string, id: string): Promise<Job | undefined>;
  /** The newest of a person's at a site. */
  list(owner: string, site: OpenSite): Promise<JobSummary[]>;
  /** False when there is none of theirs that could be stopped. */
  stop(owner: string, id: string): Promise<boolean>;
  /** Begins one anew that failed or was stopped; false when there is none of theirs. */
  retry(owner: string, id: string): Promise<boolean>;
}

export interface WithJobs {
  /** Long work that goes on while its asker looks elsewhere. */
  jobs: Jobs;
}

/** Jobs of a database; who works on them is `startJobs`. */
export function createJobs(store: Store): Jobs {
  return {
    async start(actor, site, kind, input, file) {
      const id = randomUUID();
      const queue = kind.oneOf?.(site.id, input) ?? null;
      const { name: owner } = actor;
      // They began it on a site: without a role there they could not have.
      const role = actor.role!;
      await addJob(store, {
        id,
        site: site.id,
        owner,
        role,
        kind: kind.name,
        input,
        queue,
        file,
        request: requestId(),
      });
      return jobIn((await jobOf(store, { id, owner }))[0]!);
    },
    async find(owner, id) {
      const [row] = await jobOf(store, { id, owner });
      return row && jobIn(row);
    },
    list: async (owner, site) =>
      (await jobsOf(store, { owner, site: site.id })).map(({ kind: name, createdAt, ...row }) => ({
        ...row,
        name,
        createdAt: createdAt.toISOString(),
      })),
    stop: async (owner, id) => (await stopJob(store, { id, owner })).length > 0,
    retry: async (owner, id) => (await retryJob(store, { id, owner })).length > 0,
  };
}

function jobIn({ kind: name, createdAt, ...row }: JobRow): Job {
  return { ...row, name, createdAt: createdAt.toISOString() };
}
