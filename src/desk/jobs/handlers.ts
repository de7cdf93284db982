import type { jobs as contract } from "../../contract/jobs.ts";
import { notFound } from "../ground/problem.ts";
import { wholeList, type Handlers } from "../ground/http/handler.ts";
import type { WithJobs } from "./jobs.ts";

/** What the calls about jobs do. */
export const jobsHandlers: Handlers<typeof contract, WithJobs> = {
  list: async ({ desk, actor, site }) => wholeList(await desk.jobs.list(actor.name, site)),
  read: async ({ desk, actor, params }) => found(await desk.jobs.find(actor.name, params.job)),
  stop: async ({ desk, actor, params }) => {
    found(await desk.jobs.find(actor.name, params.job));
    await desk.jobs.stop(actor.name, params.job);
  },
  retry: async ({ desk, actor, params }) => {
    await desk.jobs.retry(actor.name, params.job);
    return found(await desk.jobs.find(actor.name, params.job));
  },
};

function found<T>(job: T | undefined): T {
  if (!job) throw notFound("This job");
  return job;
}
