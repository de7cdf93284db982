import type { ReportColumns, ReportLook, ReportResult } from "../../core/objects/earning.ts";
import { guessColumns, rowReader, type ReportedConversion } from "../../core/programs/read-report.ts";
import { possibleOrders } from "../../core/programs/report-date.ts";
import { addReportRows, beginReport, mergeReport, type MergedReport } from "../../store/conversions.ts";
import { decodedText } from "../decoded-text.ts";
import type { DeskCore } from "../desk.ts";
import type { Progress } from "../jobs.ts";
import { Problem } from "../problem.ts";
import { keptColumns } from "../programs/networks.ts";
import type { OpenSite } from "../sites.ts";
import { readTable, type TextTable } from "./read-table.ts";

/** The largest report that is taken, in bytes. */
export const MOST_REPORT = 400_000_000;
const SAMPLE_ROWS = 8;
const MOST_REFUSALS = 100;

/** A report as it came, and what its columns say. */
export interface ReportFile {
  network: string;
  bytes: Uint8Array;
  columns: ReportColumns;
  dryRun: boolean;
  by: string;
}

/** Looks at a report's columns before it is imported: what they seem to say, or were said to say the last time. */
export async function lookAtReport(
  core: DeskCore,
  site: OpenSite,
  network: string,
  bytes: Uint8Array,
): Promise<ReportLook> {
  const table = tableOf(bytes);
  const [first = []] = table.portions();
  const sample = first.slice(0, SAMPLE_ROWS).map(({ cells }) => cells);
  const kept = await keptColumns(core, site, network);
  const guessed = guessColumns(table.header, first.slice(0, 1000).map(({ cells }) => cells)); // prettier-ignore
  const fits = kept !== undefined && typeof rowReader(table.header, kept) !== "string";
  const at = table.header.indexOf(kept?.at ?? "");
  return {
    header: table.header,
    sample,
    columns: fits ? kept : guessed.columns,
    remembered: fits,
    dateOrders:
      fits && at !== -1 ? possibleOrders(sample.map((cells) => cells[at] ?? "")) : guessed.dateOrders,
  };
}

/**
 * Imports a report in one transaction: rows that cannot be read are named and the rest goes in, each reference once
 * however often it was reported. Stopped half-way, nothing has happened.
 */
export async function importReport(
  core: DeskCore,
  site: OpenSite,
  file: ReportFile,
  progress: Progress,
): Promise<ReportResult> {
  const table = tableOf(file.bytes);
  const read = rowReader(table.header, file.columns);
  if (typeof read === "string") throw new Problem(422, "This report cannot be read", read);
  const refusals: ReportResult["refusals"] = [];
  let rows = 0;
  let refused = 0;
  const references = new Set<string>();
  const result = await triedOrDone(() =>
    core.store.transaction(async (transaction) => {
      await beginReport(core.store, transaction);
      for (const portion of table.portions()) {
        const good: [number, ReportedConversion][] = [];
        for (const { line, cells } of portion) {
          rows += 1;
          const row = read(cells);
          if (row.ok) {
            good.push([line, row.conversion]);
            references.add(row.conversion.reference);
          } else if ((refused += 1) <= MOST_REFUSALS) refusals.push({ line, message: row.reason });
        }
        await addReportRows(transaction, good);
        await progress.step(table.done, table.length * 1.3);
      }
      const merged = await mergeReport(core.store, transaction, {
        siteId: site.id,
        network: file.network,
        repeated: references.size < rows - refused,
      });
      await progress.step(table.length * 1.3, table.length * 1.3);
      if (file.dryRun) throw new Tried(merged);
      await core.store.rows(
        "INSERT INTO report_imports (site_id, network, rows, created, changed, made_by) VALUES ($site::bigint, $network, $rows, $created, $changed, $by)",
        {
          site: site.id,
          network: file.network,
          rows,
          created: merged.created,
          changed: merged.changed,
          by: file.by,
        },
        transaction,
      );
      return merged;
    }),
  );
  const { created, changed, unchanged, toPages, toPrograms, unmatched } = result;
  return {
    network: file.network, rows, created, changed, unchanged, refused, refusals,
    matchedToPages: toPages, matchedToPrograms: toPrograms, unmatched,
  }; // prettier-ignore
}

// Thrown at the end of a dry run, so that nothing of it is kept.
class Tried extends Error {
  readonly merged: MergedReport;

  constructor(merged: MergedReport) {
    super("tried");
    this.merged = merged;
  }
}

async function triedOrDone(work: () => Promise<MergedReport>): Promise<MergedReport> {
  try {
    return await work();
  } catch (error) {
    if (error instanceof Tried) return error.merged;
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
