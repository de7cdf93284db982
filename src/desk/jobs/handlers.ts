import type { jobs as contract } from "../../contract/jobs.ts";
import { notFound } from "../ground/problem.ts";
import { type Handlers } from "../ground/http/handler.ts";
import type { WithJobs } from "./jobs.ts";

/** What the calls about jobs do. */
export const jobsHandlers: Handlers<typeof contract, WithJobs> = {
  read: async ({ desk, actor, params }) => found(desk.jobs.find(actor.name, params.job)),
  stop: async ({ desk, actor, params }) => {
    if (!desk.jobs.stop(actor.name, params.job)) throw notFound("This job");
  },
};

function found<T>(job: T | undefined): T {
  if (!job) throw notFound("This job");
  return job;
}
