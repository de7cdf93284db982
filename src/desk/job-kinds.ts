import type { StartingDesk } from "./desk.ts";
import { importReportJob, pullReportJob } from "./earnings/report-jobs.ts";
import type { JobKind } from "./jobs/job-kind.ts";
import { changeLinksJob, rebuildJob } from "./ledger/ledger-jobs.ts";
import { lookJob, roundJob } from "./origin/reading-jobs.ts";
import { pullCatalogueJob } from "./programs/catalogue.ts";
import { importPagesJob } from "./pages/transfer/import-pages.ts";
import { changeRoutesJob } from "./routes/many/bulk-job.ts";
import { importRoutesJob } from "./routes/transfer/import-routes.ts";
import { trySwapsJob } from "./rules/swaps/try-swaps.ts";
import { tryRulesJob } from "./rules/try-rules.ts";
import { healthJob, traceJob } from "./trace/trace-jobs.ts";

/** The kinds of long work, by the names under which it is kept. */
export const JOB_KINDS: ReadonlyMap<string, JobKind<StartingDesk, never, unknown>> = new Map(
  [
    changeLinksJob,
    changeRoutesJob,
    healthJob,
    importPagesJob,
    importReportJob,
    importRoutesJob,
    lookJob,
    pullCatalogueJob,
    pullReportJob,
    rebuildJob,
    roundJob,
    traceJob,
    tryRulesJob,
    trySwapsJob,
  ].map((kind) => [kind.name, kind]),
);
