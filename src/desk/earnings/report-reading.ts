import { DOUBTFUL, type Credit } from "../../core/earnings/credit.ts";
import type { ReportResult } from "../../core/earnings/earning.ts";
import type { ReportedClicks, RowReader } from "../../core/earnings/read-report.ts";
import {
  fingerprint,
  type LaterRow,
  type Match,
  type MatchedClicks,
  type MatchedConversion,
} from "../../store/earnings/report-rows.ts";
import type { Progress } from "../../threads/progress.ts";
import type { TextTable } from "./read-table.ts";

const MAX_REFUSALS = 100;
const MAX_LATER = 50_000;

/** Whom a conversion belongs to. */
type Belongs = "page" | "program" | "doubtful" | "nobody";

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
    while (this.later.length < MAX_LATER) {
      const { value: portion, done } = this.portions.next();
      if (done) {
        this.isDone = true;
        return;
      }
      const lines: number[] = [];
      const good = this.readable(portion, lines);
      const kept = await this.kept?.([...new Set(good.map(({ row }) => row.reference))]);
      yield good.filter((one, at) => this.isFresh(lines[at]!, one, kept?.get(one.row.reference)));
      await this.progress.step(this.table.done, this.table.length);
    }
  }

  /** What the network counted, by day, program and label: where a report has several rows of the same, together. */
  counted(): MatchedClicks[] {
    return [...this.clicks.values()];
  }

  /** What all of it came to; `changed` is how many were kept otherwise before. */
  result(network: string, changed: number): ReportResult {
    const { rows, clickRows, refused, refusals, created, belongs } = this;
    const counts = { page: 0, program: 0, doubtful: 0, nobody: 0 };
    for (const who of belongs.values()) counts[who] += 1;
    return {
      network,
      rows,
      created,
      changed,
      unchanged: belongs.size - created - changed,
      clickRows,
      refused,
      refusals,
      matchedToPages: counts.page,
      matchedToPrograms: counts.page + counts.program,
      unmatched: counts.nobody,
      doubtful: counts.doubtful,
    };
  }

  private readable(
    portion: readonly { line: number; cells: string[] }[],
    lines: number[],
  ): MatchedConversion[] {
    const good: MatchedConversion[] = [];
    for (const { line, cells } of portion) {
      this.rows += 1;
      const row = this.read(cells);
      if (row.ok && row.conversion) {
        lines.push(line);
        good.push({ row: row.conversion, belonging: this.match(row.conversion) });
      } else if (row.ok) this.count(row.counted);
      else if ((this.refused += 1) <= MAX_REFUSALS) this.refusals.push({ line, message: row.reason });
    }
    return good;
  }

  private count(row: ReportedClicks): void {
    this.clickRows += 1;
    const key = [row.day, row.program, row.subId].join("\t");
    const there = this.clicks.get(key);
    if (there) there.counted.clicks += row.clicks;
    else this.clicks.set(key, { counted: { ...row }, belonging: this.match(row) });
  }

  private isFresh(line: number, one: MatchedConversion, kept: string | undefined): boolean {
    const {
      row: { reference },
      belonging,
    } = one;
    const references = this.belongs.size;
    const who = belongs(belonging);
    this.belongs.set(reference, who);
    const isRepeated = this.belongs.size === references;
    if (!isRepeated && kept === undefined) {
      this.created += 1;
      return true;
    }
    if (kept !== undefined) this.fromBefore.add(reference);
    if (isRepeated || kept !== fingerprint(one))
      this.later.push({ line, fresh: !this.fromBefore.has(reference), ...one });
    return false;
  }
}

function belongs(credit: Credit): Belongs {
  if (credit.programId !== null) return credit.pageId !== null ? "page" : "program";
  return credit === DOUBTFUL ? "doubtful" : "nobody";
}
