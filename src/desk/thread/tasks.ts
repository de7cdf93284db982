import type { PageChange, PageInput } from "../../core/objects/page.ts";
import type { Rule } from "../../core/objects/rule.ts";
import type { Actor, PageDesk } from "../desk.ts";
import { importReport, lookAtReport, type ReportFile } from "../earnings/import-report.ts";
import type { Progress } from "../jobs.ts";
import { catchUpLedger, rebuildLedger } from "../ledger/follow-ledger.ts";
import { createPage, savePage } from "../pages.ts";
import { importRoutes, type ImportQuery, type RouteFile } from "../routes/import-routes.ts";
import { tryOnLedger } from "../rules/try-rules.ts";
import { openSite } from "../sites.ts";

/** Work that the desk's thread knows. */
export type DeskTask =
  | { do: "catch-up"; siteId: string }
  | { do: "rebuild"; siteId: string }
  | { do: "report"; siteId: string; report: ReportFile }
  | { do: "look"; siteId: string; network: string; name: string; bytes: Uint8Array }
  | { do: "routes"; siteId: string; actor: Actor; file: RouteFile; query: ImportQuery }
  | { do: "page.create"; siteId: string; actor: Actor; input: PageInput }
  | { do: "page.save"; siteId: string; actor: Actor; id: string; change: PageChange }
  | { do: "try"; siteId: string; rules: Rule[]; only?: { change: string; offset: number } };

/** Runs a task, on whatever thread. */
export async function runTask(core: PageDesk, task: DeskTask, progress: Progress): Promise<unknown> {
  const site = await openSite(core, task.siteId);
  switch (task.do) {
    case "catch-up":
      return catchUpLedger(core, site, progress);
    case "rebuild":
      return rebuildLedger(core, site, progress);
    case "report":
      return importReport(core, site, task.report, progress);
    case "look":
      return lookAtReport(core, site, task);
    case "routes":
      return importRoutes(core, task.actor, site, task.file, task.query, progress);
    case "page.create":
      return createPage(core, task.actor, site, task.input);
    case "page.save":
      return savePage(core, task.actor, site, task.id, task.change);
    case "try":
      return tryOnLedger(core, site, task.rules, progress, task.only);
  }
}
