import { DataTable, type Column } from "../../ui/table/DataTable.tsx";
import type { ClicksAnswer, ClicksRow } from "../../core/clicks/clicks.ts";
import { count } from "../../ui/format/format.ts";
import * as say from "./words.ts";

const HEADS: Readonly<Record<string, string>> = {
  day: say.day,
  hour: say.hour,
  route: say.route,
  referrer: say.cameFrom,
  page: say.pageOfOurs,
  device: say.device,
  program: say.program,
};

/** The chart's numbers as a table; days newest first. With a period before, what it was then stands beside. */
export function ClicksTable({ answer, onRoute }: { answer: ClicksAnswer; onRoute: (id: string) => void }) {
  const { by, before } = answer;
  const items = by === "day" ? [...answer.items].reverse() : answer.items;
  const earlier = earlierOf(answer);
  const figure = (key: string, word: string, of: (row: ClicksRow) => number): Column<ClicksRow> => ({
    key,
    word,
    number: true,
    cell: (row) => count(of(row)),
  });
  const columns: Column<ClicksRow>[] = [
    {
      key: "label",
      word: HEADS[by] ?? by,
      head: true,
      className: "max-w-0 w-full",
      cellClass: "truncate",
      cell: ({ key, label }) =>
        by === "route" ? (
          <button className="font-mono text-[0.86em] hover:underline" onClick={() => onRoute(key)}>
            {label}
          </button>
        ) : (
          label
        ),
    },
    figure("clicks", say.clicks, ({ clicks }) => clicks),
    ...(before ? [figure("before", say.before, ({ key }) => earlier.get(key)?.clicks ?? 0)] : []),
    figure("visitors", say.visitors, ({ visitors }) => visitors),
    figure("bots", say.robots, ({ bots }) => bots),
    figure("prefetches", say.prefetches, ({ prefetches }) => prefetches),
    figure("heads", "HEAD", ({ heads }) => heads),
  ];
  return (
    <DataTable label={say.theNumbersOfTheChart} rows={items} columns={columns} keyOf={({ key }) => key} />
  );
}

// A day of the period before stands at the same place in its row of days; names stand for themselves.
function earlierOf({ by, items, before }: ClicksAnswer): ReadonlyMap<string, ClicksRow> {
  if (!before) return new Map();
  return by === "day"
    ? new Map(items.flatMap((row, index) => (before.items[index] ? [[row.key, before.items[index]]] : [])))
    : new Map(before.items.map((row) => [row.key, row]));
}
