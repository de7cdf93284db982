import { Problem } from "../ground/problem.ts";
import type { ReportColumns, ReportResult } from "../../core/earnings/earning.ts";
import { jobFile, putJobFile } from "../../store/jobs/jobs.ts";
import type { WithOutgoing, WithStore } from "../ground/parts.ts";
import type { WithThread } from "../jobs/desk-thread.ts";
import type { JobKind } from "../jobs/job-kind.ts";
import type { OpenSite } from "../sites/open-site.ts";
import { fetchReport } from "./fetch-report.ts";
import { importReportTask } from "./import-report.ts";

/** What is said of a report that is to be imported. */
export interface ReportInput {
  network: string;
  columns: ReportColumns;
  dryRun: boolean;
  /** The job that asked the network for it; undefined when it comes along. */
  pulled: string | undefined;
}

/** Imports a report while whoever brought it looks elsewhere. */
export const importReportJob: JobKind<WithStore & WithThread, ReportInput, ReportResult> = {
  name: "earnings.import",
  run: async (desk, { actor, site, input, file }, progress) => {
    const { network, columns, dryRun, pulled } = input;
    const bytes = pulled === undefined ? await file() : await pulledReport(desk, site, pulled);
    const report = { network, columns, dryRun, bytes, by: actor.name };
    return desk.thread.run(importReportTask, site.id, report, progress);
  },
  oneOf: (siteId, { dryRun }) => `report ${dryRun ? "tried" : "imported"} ${siteId}`,
};

/** Asks a network for its report, and keeps it with the job. */
export const pullReportJob: JobKind<
  WithStore & WithOutgoing,
  { network: string },
  { network: string; bytes: number }
> = {
  name: "earnings.pull",
  bringsFile: true,
  run: async (desk, { site, input: { network } }, { job }) => {
    if (!job) throw new Error("a report that is asked for is kept with its job");
    const bytes = await fetchReport(desk, site, network);
    await putJobFile(desk.store, job.id, bytes);
    return { network, bytes: bytes.length };
  },
  oneOf: (siteId, { network }) => `report ${siteId} ${network}`.slice(0, 120),
};

/** A report that a network was asked for. Throws a 422 when it is kept no more. */
export async function pulledReport(desk: WithStore, site: OpenSite, job: string): Promise<Uint8Array> {
  const bytes = await jobFile(desk.store, { id: job, site: site.id });
  if (bytes) return bytes;
  throw new Problem(
    422,
    "This report is not there any more",
    "What a network was asked for is kept for a day. Ask for it again.",
  );
}
