import type { ReportResult } from "../../core/objects/earning.ts";
import type { ReportedClicks, RowReader } from "../../core/programs/read-report.ts";
import {
  fingerprint,
  type LaterRow,
  type Match,
  type MatchedClicks,
  type MatchedConversion,
} from "../../store/report-rows.ts";
import type { Progress } from "../jobs.ts";
import type { TextTable } from "./read-table.ts";

const MOST_REFUSALS = 100;
const MOST_LATER = 50_000;

/** Whom a conversion belongs to. */
type Belongs = "page" | "program" | "nobody";

/**
 * One reading of a report from its first row to its last: tells rows whose reference is new from those that are known,
 * and counts. Rows of known references that say something new are put aside in `later`.
 */
export class ReportReading {
  readonly later: LaterRow[] = [];
  isDone = false;
  private readonly portions: ReturnType<TextTable["portions"]>;
  /** Every reference read, and whom its last row belongs to. */
  private readonly belongs = new Map<string, Belongs>();
  private readonly fromBefore = new Set<string>();
  private readonly clicks = new Map<string, MatchedClicks>();
  private clickRows = 0;
  private readonly counts = { page: 0, program: 0, nobody: 0 };
  private readonly refusals: ReportResult["refusals"] = [];
  private rows = 0;
  private refused = 0;
  private created = 0;

  /** `kept` answers what is kept of references, by their fingerprints; absent where nothing is kept yet. */
  constructor(
    private readonly table: TextTable,
    private readonly read: RowReader,
    private readonly match: Match,
    private readonly kept: ((references: string[]) => Promise<Map<string, string>>) | undefined,
    private readonly progress: Progress,
  ) {
    this.portions = table.portions();
  }

  /** Rows whose reference is new, until the report ends or much has been put aside. */
  async *fresh(): AsyncGenerator<MatchedConversion[]> {
    while (this.later.length < MOST_LATER) {
      const { value: portion, done } = this.portions.next();
      if (done) {
        this.isDone = true;
        return;
      }
      const good = this.readable(portion);
      const kept = await this.kept?.([...new Set(good.map(([, { reference }]) => reference))]);
      yield good.flatMap(([line, row]) => (this.isFresh(line, row, kept?.get(row.reference)) ? row : []));
      await this.progress.step(this.table.done, this.table.length);
    }
  }

  /** What the network counted, by day, program and label: where a report has several rows of the same, together. */
  counted(): MatchedClicks[] {
    return [...this.clicks.values()];
  }

  /** What all of it came to; `changed` is how many were kept otherwise before. */
  result(network: string, changed: number): ReportResult {
    const { rows, clickRows, refused, refusals, created, counts, belongs } = this;
    return {
      network, rows, created, changed, unchanged: belongs.size - created - changed, clickRows, refused, refusals,
      matchedToPages: counts.page, matchedToPrograms: counts.page + counts.program, unmatched: counts.nobody,
    }; // prettier-ignore
  }

  private readable(portion: readonly { line: number; cells: string[] }[]): [number, MatchedConversion][] {
    const good: [number, MatchedConversion][] = [];
    for (const { line, cells } of portion) {
      this.rows += 1;
      const row = this.read(cells);
      if (row.ok && row.conversion) good.push([line, this.match(row.conversion)]);
      else if (row.ok) this.count(row.counted);
      else if ((this.refused += 1) <= MOST_REFUSALS) this.refusals.push({ line, message: row.reason });
    }
    return good;
  }

  private count(row: ReportedClicks): void {
    this.clickRows += 1;
    const key = [row.day, row.program, row.subId].join("\t");
    const there = this.clicks.get(key);
    if (there) there.clicks += row.clicks;
    else this.clicks.set(key, this.match(row));
  }

  private isFresh(line: number, row: MatchedConversion, kept: string | undefined): boolean {
    const { reference } = row;
    const before = this.belongs.get(reference);
    if (before) this.counts[before] -= 1;
    const now = row.pageId !== null ? "page" : row.programId !== null ? "program" : "nobody";
    this.counts[now] += 1;
    this.belongs.set(reference, now);
    if (before === undefined && kept === undefined) {
      this.created += 1;
      return true;
    }
    if (kept !== undefined) this.fromBefore.add(reference);
    const isRepeated = before !== undefined;
    if (isRepeated || kept !== fingerprint(row))
      this.later.push({ line, fresh: !this.fromBefore.has(reference), row });
    return false;
  }
}
