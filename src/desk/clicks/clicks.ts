import { lostRecords } from "../../store/clicks/click-spool.ts";
import Papa from "papaparse";
import { z } from "zod";
import { utcDay } from "../../core/clicks/record.ts";
import { guardedCell } from "../../core/text/spreadsheet-cell.ts";
import type {
  ClicksAnswer,
  clicksExportQuestionSchema,
  clicksQuestionSchema,
  ClicksRow,
  LatestClicks,
} from "../../core/clicks/clicks.ts";
import type { ClickGrouping } from "../../core/clicks/choices.ts";
import { countClicks, singleClicks, type ClickSpan } from "../../store/clicks/click-counts.ts";
import { Problem } from "../ground/problem.ts";
import type { OpenSite } from "../sites/open-site.ts";
import type { WithStore } from "../ground/parts.ts";
import { latestClicksQuery } from "../../contract/clicks.ts";

const DAY = 86_400_000;
const MAX_DAYS = 3_700;
const MAX_EXPORTED = 1_000_000;

/** Clicks by day, route, referrer, page, device or hour; the last 60 days unless asked otherwise. Days and hours without clicks are there, with zeros. */
export async function askClicks(
  desk: WithStore,
  site: OpenSite,
  question: z.infer<typeof clicksQuestionSchema>,
  now: number,
): Promise<ClicksAnswer> {
  const span = spanOf(site, question, now);
  const [all, lost] = await Promise.all([
    counted(desk, span, question.by),
    lostRecords(desk.store, new Date(span.from), new Date(Date.parse(span.to) + DAY)),
  ]);
  const answer = { ...all, by: question.by, lost };
  if (question.compare !== "1") return answer;
  const days = (Date.parse(span.to) - Date.parse(span.from)) / DAY + 1;
  const back = (day: string): string => utcDay(Date.parse(day) - days * DAY);
  return {
    ...answer,
    before: await counted(desk, { ...span, from: back(span.from), to: back(span.to) }, question.by),
  };
}

function spanOf(
  site: OpenSite,
  question: { from?: string; to?: string; route?: string },
  now: number,
): ClickSpan {
  const to = question.to ?? utcDay(now);
  const from = question.from ?? utcDay(Date.parse(to) - 59 * DAY);
  if ((Date.parse(to) - Date.parse(from)) / DAY > MAX_DAYS)
    throw new Problem(422, "Too long a span", "Ask for at most ten years at once.");
  return { siteId: site.id, from, to, route: question.route };
}

async function counted(desk: WithStore, span: ClickSpan, by: ClickGrouping) {
  const [rows, days] = await Promise.all([
    countClicks(desk.store, span, by),
    // Totals come from the days whatever the rows are: a visitor is counted once a day.
    by === "day" ? undefined : countClicks(desk.store, span, "day"),
  ]);
  const items = by === "day" ? everyDay(rows, span.from, span.to) : by === "hour" ? everyHour(rows) : rows;
  const sum = (field: keyof typeof NONE): number =>
    (days ?? rows).reduce((total, row) => total + row[field], 0);
  return {
    from: span.from,
    to: span.to,
    items,
    total: {
      clicks: sum("clicks"),
      visitors: sum("visitors"),
      bots: sum("bots"),
      prefetches: sum("prefetches"),
      heads: sum("heads"),
      asides: sum("asides"),
    },
  };
}

const NONE = { clicks: 0, visitors: 0, bots: 0, prefetches: 0, heads: 0, asides: 0 } as const;

function everyDay(rows: readonly ClicksRow[], from: string, to: string): ClicksRow[] {
  const byDay = new Map(rows.map((row) => [row.key, row]));
  const days: ClicksRow[] = [];
  for (let at = Date.parse(from); at <= Date.parse(to); at += DAY) {
    const key = utcDay(at);
    days.push(byDay.get(key) ?? { key, label: key, ...NONE });
  }
  return days;
}

function everyHour(rows: readonly ClicksRow[]): ClicksRow[] {
  const byHour = new Map(rows.map((row) => [row.key, row]));
  return Array.from({ length: 24 }, (_, hour) => {
    const key = String(hour).padStart(2, "0");
    return { ...(byHour.get(key) ?? { key, ...NONE }), label: `${key}:00` };
  });
}

/** Single clicks, newest first: what a robot or a prefetch was, to look at. */
export async function latestClicks(
  desk: WithStore,
  site: OpenSite,
  query: z.infer<typeof latestClicksQuery>,
  now: number,
): Promise<LatestClicks> {
  const span = { ...spanOf(site, query, now), class: query.class };
  const rows = await singleClicks(desk.store, span, query.limit);
  return { items: rows.map((row) => ({ ...row, at: row.at.toISOString() })) as LatestClicks["items"] };
}

/** Clicks as CSV: every single one that is still kept, or the counts of a grouping. */
export async function exportClicks(
  desk: WithStore,
  site: OpenSite,
  question: z.infer<typeof clicksExportQuestionSchema>,
  now: number,
): Promise<string> {
  const span = spanOf(site, question, now);
  if (question.by !== "click") {
    const { items } = await counted(desk, span, question.by);
    const head = [question.by, "label", "clicks", "visitors", "robots", "prefetches", "heads", "asides"];
    return csv([
      head,
      ...items.map((row) =>
        [row.key, row.label, row.clicks, row.visitors, row.bots, row.prefetches, row.heads, row.asides].map(
          String,
        ),
      ),
    ]);
  }
  const rows = await singleClicks(desk.store, span, MAX_EXPORTED);
  const head = ["time", "route", "address", "who", "device", "referrer", "page"];
  return csv([
    head,
    ...rows.map((row) => [
      row.at.toISOString(),
      row.route,
      row.address,
      row.class,
      row.device,
      row.referrer,
      row.page,
    ]),
  ]);
}

function csv(rows: readonly string[][]): string {
  return `${Papa.unparse(
    rows.map((row) => row.map(guardedCell)),
    { newline: "\r\n" },
  )}\r\n`;
}
