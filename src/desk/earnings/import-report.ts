import { settle } from "../jobs/settle.ts";
import type { Task } from "../jobs/task.ts";
import type { ReportColumns, ReportLook, ReportResult } from "../../core/earnings/earning.ts";
import { guessColumns, rowReader } from "../../core/earnings/read-report.ts";
import { guessNetwork, type GuessedNetwork } from "../../core/earnings/guess-network.ts";
import { possibleOrders } from "../../core/earnings/report-date.ts";
import {
  addConversions,
  beginReport,
  creditedPrograms,
  issuedSubIds,
  keptConversions,
  matcher,
  putNetworkClicks,
  updateConversions,
} from "../../store/earnings/report-rows.ts";
import { decodedText } from "../files/decoded-text.ts";
import type { Progress } from "../../threads/progress.ts";
import { Problem } from "../ground/problem.ts";
import { keptColumns, networksWithColumns } from "../programs/networks.ts";
import { readTable, type TextTable } from "./read-table.ts";
import { ReportReading } from "./report-reading.ts";
import type { OpenSite } from "../sites/open-site.ts";
import type { WithStore } from "../ground/parts.ts";
import { addReportImport, analyzeConversions } from "../../store/earnings/report-imports.ts";

const SAMPLE_ROWS = 8;
const MANY = 10_000;

/** A report as it came, and what its columns say. */
export interface ReportFile {
  network: string;
  bytes: Uint8Array;
  columns: ReportColumns;
  dryRun: boolean;
  by: string;
}

/**
 * Looks at a report before it is imported: whose it seems to be, and what its columns seem to say, or were said to say
 * the last time. Without a network, its columns are those of the one that it seems to be from.
 */
export async function lookAtReport(
  core: WithStore,
  site: OpenSite,
  { network, name, bytes }: { network: string; name: string; bytes: Uint8Array },
): Promise<ReportLook> {
  const table = tableOf(bytes);
  const [first = []] = table.portions();
  const sample = first.slice(0, SAMPLE_ROWS).map(({ cells }) => cells);
  const many = first.slice(0, 1000).map(({ cells }) => cells);
  const guessed = guessColumns(table.header, many);
  const seems = await seemsToBe(core, site, table.header, many, { ...guessed.columns, name });
  const kept = await keptColumns(core, site, network || (seems?.name ?? ""));
  const fits = kept !== undefined && typeof rowReader(table.header, kept) !== "string";
  const at = table.header.indexOf(kept?.at ?? "");
  return {
    header: table.header,
    sample,
    columns: fits ? kept : guessed.columns,
    remembered: fits,
    dateOrders:
      fits && at !== -1 ? possibleOrders(sample.map((cells) => cells[at] ?? "")) : guessed.dateOrders,
    seems: seems ?? null,
  };
}

async function seemsToBe(
  core: WithStore,
  site: OpenSite,
  header: readonly string[],
  rows: readonly (readonly string[])[],
  { program, subId, name }: { program?: string; subId?: string; name: string },
): Promise<GuessedNetwork | undefined> {
  const words = (column: string | undefined): string[] => {
    const at = column === undefined ? -1 : header.indexOf(column);
    return at === -1 ? [] : [...new Set(rows.map((cells) => (cells[at] ?? "").trim()).filter(Boolean))];
  };
  const [networks, programs, issued] = await Promise.all([
    networksWithColumns(core, site),
    creditedPrograms(core.store, site.id),
    issuedSubIds(core.store, site.id),
  ]);
  const signs = { header, fileName: name, programs: words(program), subIds: words(subId) };
  return guessNetwork(signs, networks, programs, issued);
}

/**
 * Imports a report in one transaction: rows that cannot be read are named and the rest goes in, each reference once
 * however often it was reported. Stopped half-way, nothing has happened.
 */
export async function importReport(
  core: WithStore,
  site: OpenSite,
  file: ReportFile,
  progress: Progress,
): Promise<ReportResult> {
  const table = tableOf(file.bytes);
  const read = rowReader(table.header, file.columns);
  if (typeof read === "string") throw new Problem(422, "This report cannot be read", read);
  const of = { siteId: site.id, network: file.network };
  return triedOrDone(() =>
    core.store.transaction(async (transaction) => {
      const isFirst = await beginReport(core.store, transaction, of);
      const match = await matcher(core.store, of);
      const kept = isFirst
        ? undefined
        : (references: string[]) => keptConversions(core.store, of, references);
      const reading = new ReportReading(table, (cells) => read(cells), match, kept, progress);
      let changed = 0;
      while (!reading.isDone) {
        await addConversions(transaction, of, reading.fresh());
        const later = reading.later.splice(0);
        if (later.length > 0) changed += await updateConversions(core.store, transaction, of, later);
      }
      const counted = reading.counted();
      if (counted.length > 0) await putNetworkClicks(core.store, transaction, of, counted);
      await progress.step(table.length, table.length);
      const result = reading.result(file.network, changed);
      if (file.dryRun) throw new Tried(result);
      await addReportImport(
        core.store,
        {
          site: site.id,
          network: file.network,
          rows: result.rows,
          created: result.created,
          changed,
          by: file.by,
        },
        transaction,
      );
      await settle(core, progress, result, transaction);
      // Until PostgreSQL has looked over a table that grew at once, it would read all of it for the next report's rows.
      if (result.created > MANY) await analyzeConversions(core.store, transaction);
      return result;
    }),
  );
}

// Thrown at the end of a dry run, so that nothing of it is kept.
class Tried extends Error {
  readonly result: ReportResult;

  constructor(result: ReportResult) {
    super("tried");
    this.result = result;
  }
}

async function triedOrDone(work: () => Promise<ReportResult>): Promise<ReportResult> {
  try {
    return await work();
  } catch (error) {
    if (error instanceof Tried) return error.result;
    throw error;
  }
}

function tableOf(bytes: Uint8Array): TextTable {
  const table = readTable(decodedText(bytes, []));
  if (!table)
    throw new Problem(
      422,
      "This report cannot be read",
      "It has no first row with the names of its columns.",
    );
  return table;
}

/** Imports a report of whatever length. */
export const importReportTask: Task<WithStore, ReportFile, ReportResult> = {
  name: "earnings.import",
  run: importReport,
};

/** Looks at a report of whatever length. */
export const lookAtReportTask: Task<
  WithStore,
  { network: string; name: string; bytes: Uint8Array },
  ReportLook
> = {
  name: "earnings.look",
  run: lookAtReport,
};
