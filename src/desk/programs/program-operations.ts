import { z } from "zod";
import {
  changedCreativeSchema,
  creativeChangeSchema,
  creativeInputSchema,
  creativePlaceSchema,
  creativeSchema,
  placedCreativeSchema,
} from "../../core/creatives/creative.ts";
import {
  earningsQuerySchema,
  earningsSchema,
  reportColumnsSchema,
  reportImportQuerySchema,
  reportLookQuerySchema,
  reportLookSchema,
  reportResultSchema,
  unmatchedQuerySchema,
  unmatchedSchema,
} from "../../core/earnings/earning.ts";
import {
  builtLinkSchema,
  credentialsInputSchema,
  credentialsSchema,
  linkQuestionSchema,
  networkInputSchema,
  networkSchema,
  programChangeSchema,
  programFiguresSchema,
  programInputSchema,
  programListQuery,
  programSchema,
} from "../../core/programs/program.ts";
import { exportEarnings, readEarnings } from "../earnings/earnings.ts";
import { listUnmatched } from "../earnings/unmatched.ts";
import { fetchReport } from "../earnings/fetch-report.ts";
import {
  MAX_REPORT,
  type ReportFile,
  importReportTask,
  lookAtReportTask,
} from "../earnings/import-report.ts";
import { UNWATCHED } from "../jobs/jobs.ts";
import { fieldErrors, invalid } from "../ground/problem.ts";
import { buildProgramLink } from "./build-link.ts";
import {
  catalogueAnswerSchema,
  catalogueQuery,
  MAX_CATALOGUE,
  searchCatalogue,
  searchFile,
} from "./catalogue.ts";
import { keepCreative, listCreatives, placeCreative, setCreativeDeleted } from "../creatives/creatives.ts";
import { dropCredentials, keepCredentials, renewSeals, showCredentials } from "./credentials.ts";
import { listPrograms } from "./list-programs.ts";
import { keepColumns, keepNetwork, keptColumns, listNetworks } from "./networks.ts";
import * as programs from "./programs.ts";
import { asPreferred, listOf, operation, type Operation, SITE, wholeList } from "../ground/http/operation.ts";
import { changeCreative } from "../creatives/change-creative.ts";

const PROGRAMS = `${SITE}/programs`;
const PROGRAM = `${PROGRAMS}/:id`;
const EARNINGS = `${SITE}/earnings`;

/** The calls of the station Programs. */
export const programOperations: readonly Operation[] = [
  operation("GET", PROGRAMS, {
    summary: "The programs with their figures, all of them",
    role: "reader",
    query: programListQuery,
    answer: listOf(programFiguresSchema),
    ofLedger: true,
    run: async ({ desk, site, query, now }) => wholeList(await listPrograms(desk, site, query, now)),
  }),
  operation("POST", PROGRAMS, {
    summary: "Add a program",
    role: "editor",
    body: programInputSchema,
    answer: programSchema,
    status: 201,
    run: ({ desk, actor, site, body, now }) => programs.createProgram(desk, actor, site, body, now),
  }),
  operation("GET", PROGRAM, {
    summary: "One program",
    role: "reader",
    answer: programSchema,
    run: async ({ desk, site, params }) =>
      programs.programView(await programs.openProgram(desk, site, params.id!)),
  }),
  operation("PATCH", PROGRAM, {
    summary: "Change a program over the version it was read at",
    role: "editor",
    body: programChangeSchema,
    answer: programSchema,
    run: ({ desk, actor, site, params, body, now }) =>
      programs.changeProgram(desk, actor, site, params.id!, body, now),
  }),
  operation("DELETE", PROGRAM, {
    summary: "Take a program away; it can be restored",
    role: "editor",
    status: 204,
    run: ({ desk, actor, site, params }) => programs.deleteProgram(desk, actor, site, params.id!),
  }),
  operation("POST", `${PROGRAM}/restore`, {
    summary: "Bring a program back",
    role: "editor",
    answer: programSchema,
    run: ({ desk, actor, site, params }) => programs.restoreProgram(desk, actor, site, params.id!),
  }),
  operation("POST", `${PROGRAM}/link`, {
    summary: "Build the tracked link to a page of the program's shop",
    role: "editor",
    body: linkQuestionSchema,
    answer: builtLinkSchema,
    run: ({ desk, actor, site, params, body }) => buildProgramLink(desk, actor, site, params.id!, body),
  }),
  operation("GET", `${PROGRAM}/creatives`, {
    summary: "What the program supplies, filled from its account, with the pages that use it",
    role: "reader",
    answer: listOf(creativeSchema),
    ofLedger: true,
    run: async ({ desk, site, params }) => wholeList(await listCreatives(desk, site, params.id!)),
  }),
  operation("POST", `${PROGRAM}/creatives`, {
    summary: "Keep a snippet as a creative",
    role: "editor",
    body: creativeInputSchema,
    answer: creativeSchema,
    status: 201,
    run: ({ desk, actor, site, params, body }) => keepCreative(desk, actor, site, params.id!, body),
  }),
  operation("GET", `${SITE}/creatives`, {
    summary: "What all joined programs supply, ready to be put into a text",
    role: "reader",
    answer: listOf(creativeSchema),
    ofLedger: true,
    run: async ({ desk, site }) => wholeList(await listCreatives(desk, site)),
  }),
  operation("POST", `${SITE}/creatives/:id/place`, {
    summary: "Make a creative ready for one place, with a label of its own",
    role: "editor",
    body: creativePlaceSchema,
    answer: placedCreativeSchema,
    run: ({ desk, actor, site, params, body }) => placeCreative(desk, actor, site, params.id!, body),
  }),
  operation("PUT", `${SITE}/creatives/:id`, {
    summary: "Change a creative, and every place that uses it",
    role: "editor",
    body: creativeChangeSchema,
    answer: changedCreativeSchema,
    run: ({ desk, actor, site, params, body }) => changeCreative(desk, actor, site, params.id!, body),
  }),
  operation("DELETE", `${SITE}/creatives/:id`, {
    summary: "Take a creative away; it can be restored",
    role: "editor",
    status: 204,
    run: ({ desk, actor, site, params }) => setCreativeDeleted(desk, actor, site, params.id!, true),
  }),
  operation("POST", `${SITE}/creatives/:id/restore`, {
    summary: "Bring a creative back",
    role: "editor",
    status: 204,
    run: ({ desk, actor, site, params }) => setCreativeDeleted(desk, actor, site, params.id!, false),
  }),
  operation("PUT", `${PROGRAM}/credentials`, {
    summary: "Store the name and password of the program's account, encrypted",
    role: "editor",
    body: credentialsInputSchema,
    status: 204,
    run: ({ desk, actor, site, params, body }) => keepCredentials(desk, actor, site, params.id!, body),
  }),
  operation("DELETE", `${PROGRAM}/credentials`, {
    summary: "Forget them",
    role: "editor",
    status: 204,
    run: ({ desk, actor, site, params }) => dropCredentials(desk, actor, site, params.id!),
  }),
  operation("POST", `${PROGRAM}/credentials/show`, {
    summary: "Show them; noted in the audit log",
    role: "editor",
    answer: credentialsSchema,
    run: ({ desk, actor, site, params }) => showCredentials(desk, actor, site, params.id!),
  }),
  operation("POST", `${SITE}/credentials/renew`, {
    summary: "Encrypt all stored credentials with the newest key",
    role: "owner",
    answer: z.object({ renewed: z.int(), unreadable: z.array(z.string()) }),
    run: ({ desk, actor, site }) => renewSeals(desk, actor, site),
  }),

  operation("GET", `${SITE}/networks`, {
    summary: "The networks that programs belong to",
    role: "reader",
    answer: listOf(networkSchema),
    run: async ({ desk, site }) => wholeList(await listNetworks(desk, site)),
  }),
  operation("PUT", `${SITE}/networks`, {
    summary: "Say what a network is; one of that name is replaced",
    role: "editor",
    body: networkInputSchema,
    answer: networkSchema,
    run: ({ desk, actor, site, body }) => keepNetwork(desk, actor, site, body),
  }),

  operation("GET", `${SITE}/catalogue`, {
    summary: "Search a network's catalogue",
    role: "reader",
    query: catalogueQuery,
    answer: catalogueAnswerSchema,
    run: ({ desk, site, query }) => searchCatalogue(desk, site, query),
  }),
  operation("POST", `${SITE}/catalogue`, {
    summary: "Search in a catalogue that comes as a file (CSV or JSON)",
    role: "reader",
    query: catalogueQuery.pick({ q: true }),
    takesBytes: MAX_CATALOGUE,
    answer: catalogueAnswerSchema,
    run: ({ desk, site, query, bytes }) => searchFile(desk, site, bytes, query.q),
  }),

  operation("GET", EARNINGS, {
    summary: "What was earned, beside the clicks that led there",
    role: "reader",
    query: earningsQuerySchema,
    answer: earningsSchema,
    run: ({ desk, site, query, now }) => readEarnings(desk, site, query, now),
  }),
  operation("GET", `${EARNINGS}/export`, {
    summary: "The same as CSV",
    role: "reader",
    query: earningsQuerySchema,
    media: "file",
    run: async ({ desk, site, query, now }) => ({
      name: `${site.key}-earnings-by-${query.by}.csv`,
      type: "text/csv; charset=utf-8",
      content: await exportEarnings(desk, site, query, now),
    }),
  }),
  operation("GET", `${EARNINGS}/unmatched`, {
    summary: "Rows of reports that no program was found for, by what the reports call it",
    role: "reader",
    query: unmatchedQuerySchema,
    answer: listOf(unmatchedSchema),
    run: async ({ desk, site, query, now }) => wholeList(await listUnmatched(desk, site, query, now)),
  }),
  operation("GET", `${EARNINGS}/report`, {
    summary: "A network's report as the network answers it",
    role: "editor",
    query: reportImportQuerySchema.pick({ network: true }),
    media: "file",
    run: async ({ desk, site, query }) => ({
      name: "report.csv",
      type: "text/csv; charset=utf-8",
      content: await fetchReport(desk, site, query.network),
    }),
  }),
  operation("POST", `${EARNINGS}/look`, {
    summary: "Look at a report's columns before it is imported (text/csv)",
    role: "reader",
    query: reportLookQuerySchema,
    takesBytes: MAX_REPORT,
    answer: reportLookSchema,
    run: ({ desk, site, query: { network = "", name = "" }, bytes }) =>
      desk.thread.run(lookAtReportTask, site.id, { network, name, bytes }, UNWATCHED),
  }),
  operation("POST", `${EARNINGS}/import`, {
    summary: "Import a network's report (text/csv); with “Prefer: respond-async” as a job",
    role: "editor",
    query: reportImportQuerySchema,
    takesBytes: MAX_REPORT,
    answer: reportResultSchema,
    run: async (call) => {
      const { desk, actor, site, query, bytes } = call;
      const columns =
        query.columns === undefined ? await keptColumns(desk, site, query.network) : columnsOf(query.columns);
      if (!columns)
        throw invalid([
          { path: "columns", message: "Nobody has said yet what this network's columns mean." },
        ]);
      const dryRun = query.dryRun === "1";
      if (!dryRun) await keepColumns(desk, site, query.network, columns);
      const report: ReportFile = { network: query.network, bytes, columns, dryRun, by: actor.name };
      return asPreferred(call, "earnings.import", (progress) =>
        desk.thread.run(importReportTask, site.id, report, progress),
      );
    },
  }),
];

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
