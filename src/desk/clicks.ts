import type { z } from "zod";
import { utcDay } from "../core/clicks/record.ts";
import type { ClicksAnswer, ClicksRow, clicksQuestionSchema } from "../core/objects/clicks.ts";
import { countClicks } from "../store/click-counts.ts";
import type { Desk } from "./desk.ts";
import { Problem } from "./problem.ts";
import type { OpenSite } from "./sites.ts";

const DAY = 86_400_000;
const MOST_DAYS = 3_700;

/** Clicks by day, route, referrer or device; the last 60 days unless asked otherwise. Days without clicks are there, with zeros. */
export async function askClicks(
  desk: Desk,
  site: OpenSite,
  question: z.infer<typeof clicksQuestionSchema>,
  now: number,
): Promise<ClicksAnswer> {
  const to = question.to ?? utcDay(now);
  const from = question.from ?? utcDay(Date.parse(to) - 59 * DAY);
  if ((Date.parse(to) - Date.parse(from)) / DAY > MOST_DAYS) {
    throw new Problem(422, "Too long a span", "Ask for at most ten years at once.");
  }
  const rows = await countClicks(
    desk.store,
    { siteId: site.id, from, to, route: question.route },
    question.by,
  );
  const items = question.by === "day" ? everyDay(rows, from, to) : rows;
  const sum = (field: "clicks" | "visitors" | "bots" | "prefetches" | "heads"): number =>
    rows.reduce((total, row) => total + row[field], 0);
  return {
    from,
    to,
    by: question.by,
    items,
    total: {
      clicks: sum("clicks"),
      visitors: sum("visitors"),
      bots: sum("bots"),
      prefetches: sum("prefetches"),
      heads: sum("heads"),
    },
  };
}

function everyDay(rows: readonly ClicksRow[], from: string, to: string): ClicksRow[] {
  const byDay = new Map(rows.map((row) => [row.key, row]));
  const days: ClicksRow[] = [];
  for (let at = Date.parse(from); at <= Date.parse(to); at += DAY) {
    const key = utcDay(at);
    days.push(
      byDay.get(key) ?? { key, label: key, clicks: 0, visitors: 0, bots: 0, prefetches: 0, heads: 0 },
    );
  }
  return days;
}
