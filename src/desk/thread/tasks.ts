import type { Rule } from "../../core/objects/rule.ts";
import type { DeskCore } from "../desk.ts";
import { importReport, type ReportFile } from "../earnings/import-report.ts";
import type { Progress } from "../jobs.ts";
import { catchUpLedger, rebuildLedger } from "../ledger/follow-ledger.ts";
import { tryOnLedger } from "../rules/try-rules.ts";
import { openSite } from "../sites.ts";

/** Work that the desk's thread knows. */
export type DeskTask =
  | { do: "catch-up"; siteId: string }
  | { do: "rebuild"; siteId: string }
  | { do: "report"; siteId: string; report: ReportFile }
  | { do: "try"; siteId: string; rules: Rule[]; only?: { change: string; offset: number } };

/** Runs a task, on whatever thread. */
export async function runTask(core: DeskCore, task: DeskTask, progress: Progress): Promise<unknown> {
  const site = await openSite(core, task.siteId);
  switch (task.do) {
    case "catch-up":
      return catchUpLedger(core, site, progress);
    case "rebuild":
      return rebuildLedger(core, site, progress);
    case "report":
      return importReport(core, site, task.report, progress);
    case "try":
      return tryOnLedger(core, site, task.rules, progress, task.only);
  }
}
