import type { ClicksAnswer, ClicksRow } from "../../core/clicks/clicks.ts";

const HEADS: Readonly<Record<string, string>> = {
  day: "Day",
  hour: "Hour",
  route: "Route",
  referrer: "Came from",
  page: "Page of ours",
  device: "Device",
  program: "Program",
};

/** The chart's numbers as a table; days newest first. With a period before, what it was then stands beside. */
export function ClicksTable({ answer, onRoute }: { answer: ClicksAnswer; onRoute: (id: string) => void }) {
  const { by, before } = answer;
  const items = by === "day" ? [...answer.items].reverse() : answer.items;
  const earlier = earlierOf(answer);
  return (
    <table className="w-full text-right tabular-nums">
      <thead className="text-sm text-quiet">
        <tr className="border-b border-line">
          {[
            HEADS[by] ?? by,
            "Clicks",
            ...(before ? ["Before"] : []),
            "Visitors",
            "Robots",
            "Prefetches",
            "HEAD",
          ].map((word, index) => (
            <th key={word} scope="col" className={`py-1.5 font-medium ${index === 0 ? "text-left" : ""}`}>
              {word}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {items.map((row) => (
          <tr key={row.key} className="border-b border-line/60">
            <th scope="row" className="max-w-0 truncate py-1 text-left font-normal">
              {by === "route" ? (
                <button className="font-mono text-[0.86em] hover:underline" onClick={() => onRoute(row.key)}>
                  {row.label}
                </button>
              ) : (
                row.label
              )}
            </th>
            <td>{row.clicks.toLocaleString("en-GB")}</td>
            {before ? (
              <td className="text-quiet">{(earlier.get(row.key)?.clicks ?? 0).toLocaleString("en-GB")}</td>
            ) : null}
            <td>{row.visitors.toLocaleString("en-GB")}</td>
            <td>{row.bots}</td>
            <td>{row.prefetches}</td>
            <td>{row.heads}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

// A day of the period before stands at the same place in its row of days; names stand for themselves.
function earlierOf({ by, items, before }: ClicksAnswer): ReadonlyMap<string, ClicksRow> {
  if (!before) return new Map();
  return by === "day"
    ? new Map(items.flatMap((row, index) => (before.items[index] ? [[row.key, before.items[index]]] : [])))
    : new Map(before.items.map((row) => [row.key, row]));
}
