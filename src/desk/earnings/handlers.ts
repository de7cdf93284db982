import type { earnings as contract } from "../../contract/earnings.ts";
import { readEarnings, exportEarnings } from "./earnings.ts";
import { wholeList, asJob, asPreferred, type Handlers } from "../ground/http/handler.ts";
import { listUnmatched } from "./unmatched.ts";
import { fetchReport } from "./fetch-report.ts";
import { lookAtReportTask } from "./import-report.ts";
import { importReportJob, pulledReport, pullReportJob } from "./report-jobs.ts";
import { UNWATCHED } from "../../threads/progress.ts";
import type { WithJobs } from "../jobs/jobs.ts";
import { keptColumns, keepColumns } from "../programs/networks.ts";
import { invalid, fieldErrors } from "../ground/problem.ts";
import { reportColumnsSchema } from "../../core/earnings/earning.ts";
import type { WithStore, WithOutgoing } from "../ground/parts.ts";
import type { WithThread } from "../jobs/desk-thread.ts";

/** What the calls about earnings do. */
export const earningsHandlers: Handlers<typeof contract, WithStore & WithOutgoing & WithJobs & WithThread> = {
  read: ({ desk, site, query, now }) => readEarnings(desk, site, query, now),
  export: async ({ desk, site, query, now }) => ({
    name: `${site.key}-earnings-by-${query.by}.csv`,
    type: "text/csv; charset=utf-8",
    content: await exportEarnings(desk, site, query, now),
  }),
  unmatched: async ({ desk, site, query, now }) => wholeList(await listUnmatched(desk, site, query, now)),
  report: async ({ desk, site, query }) => ({
    name: "report.csv",
    type: "text/csv; charset=utf-8",
    content: await fetchReport(desk, site, query.network),
  }),
  pull: (call) => asJob(call, pullReportJob, call.body),
  look: async ({ desk, site, query: { network = "", name = "", pulled }, bytes }) =>
    desk.thread.run(
      lookAtReportTask,
      site.id,
      { network, name, bytes: pulled === undefined ? bytes : await pulledReport(desk, site, pulled) },
      UNWATCHED,
    ),
  import: async (call) => {
    const { desk, site, query, bytes } = call;
    const columns =
      query.columns === undefined ? await keptColumns(desk, site, query.network) : columnsOf(query.columns);
    if (!columns)
      throw invalid([{ path: "columns", message: "Nobody has said yet what this network's columns mean." }]);
    const dryRun = query.dryRun === "1";
    if (!dryRun) await keepColumns(desk, site, query.network, columns);
    const { network, pulled } = query;
    return asPreferred(call, importReportJob, { network, columns, dryRun, pulled }, bytes);
  },
};

function columnsOf(text: string) {
  let given: unknown;
  try {
    given = JSON.parse(text);
  } catch {
    throw invalid([{ path: "columns", message: "columns is JSON." }]);
  }
  const checked = reportColumnsSchema.safeParse(given);
  if (!checked.success)
    throw invalid(
      fieldErrors(checked.error).map(({ path, message }) => ({ path: `columns.${path}`, message })),
    );
  return checked.data;
}
