import { useState } from "react";
import type { Earnings, EarningSums, EARNINGS_BY } from "../../core/earnings/earning.ts";
import type { Site } from "../../core/sites/site.ts";
import { SortHead } from "../../ui/table/SortHead.tsx";
import { money } from "../programs/figures-in-words.ts";

type By = (typeof EARNINGS_BY)[number];
type Item = Earnings["items"][number];

const sumOf = (item: Item, of: (sum: EarningSums) => number): number =>
  item.money.reduce((total, sum) => total + of(sum), 0);
const most = (item: Item, field: "approved" | "pending" | "reversed" | "epc"): number =>
  Math.max(-Infinity, ...item.money.map((sum) => Number(sum[field] ?? -Infinity)));

/** What each column is sorted by. Sums of several currencies stand for the greatest of them. */
const SORTS: Readonly<Record<string, (item: Item) => number | string>> = {
  label: ({ label }) => label,
  clicks: ({ clicks }) => clicks,
  theirClicks: ({ theirClicks }) => theirClicks ?? -1,
  sales: (item) => sumOf(item, ({ sales, leads }) => sales + leads),
  conversion: ({ conversion }) => conversion ?? -1,
  approved: (item) => most(item, "approved"),
  pending: (item) => most(item, "pending"),
  reversed: (item) => most(item, "reversed"),
  epc: (item) => most(item, "epc"),
};

/** The figures of each group; without a sort in the order that fits it. */
export function EarningsTable(props: { site: Site; by: By; word: string; earnings: Earnings }) {
  const {
    site,
    by,
    word,
    earnings: { total, items },
  } = props;
  const [sort, setSort] = useState("");
  const key = SORTS[sort.replace("-", "")];
  const turn = sort.startsWith("-") ? -1 : 1;
  const sorted = key ? [...items].sort((a, b) => turn * compared(key(a), key(b))) : items;
  const theirs = total.theirClicks !== null;
  const heads: readonly (readonly [field: string, head: string])[] = [
    ["clicks", "Clicks"],
    ...(theirs ? [["theirClicks", "Network’s clicks"] as const] : []),
    ["sales", "Sales"],
    ["conversion", "Conversion"],
    ["approved", "Approved"],
    ["pending", "Pending"],
    ["reversed", "Taken back"],
    ["epc", "EPC"],
  ];
  return (
    <div className="mb-8 overflow-x-auto">
      <table className="w-full text-left">
        <thead className="text-sm text-quiet">
          <tr className="border-b border-line">
            <SortHead field="label" sort={sort} setSort={setSort}>
              {word}
            </SortHead>
            {heads.map(([field, head]) => (
              <SortHead
                key={field}
                field={field}
                sort={sort}
                setSort={setSort}
                downFirst
                className="pl-3 text-right"
              >
                {head}
              </SortHead>
            ))}
          </tr>
        </thead>
        <tbody>
          {sorted.map((item) => (
            <ItemRows key={item.key} site={site} by={by} item={item} theirs={theirs} />
          ))}
        </tbody>
      </table>
    </div>
  );
}

function compared(a: number | string, b: number | string): number {
  return typeof a === "number" && typeof b === "number"
    ? a < b
      ? -1
      : a > b
        ? 1
        : 0
    : String(a).localeCompare(String(b), "en");
}

function ItemRows(props: { site: Site; by: By; item: Item; theirs: boolean }) {
  const { site, by, item, theirs } = props;
  const sums = item.money.length > 0 ? item.money : [undefined];
  const place =
    item.id &&
    (by === "program"
      ? `/${site.key}/programs?open=${item.id}`
      : by === "page"
        ? `/${site.key}/pages/${item.id}`
        : undefined);
  return sums.map((sum, at) => (
    <tr key={sum?.currency ?? "none"} className="border-b border-line/60">
      <td className="min-w-32 py-1 pr-3 wrap-anywhere">
        {at > 0 ? null : place ? (
          <a className="hover:underline" href={place}>
            {item.label}
          </a>
        ) : (
          <span className={item.key === "" ? "text-quiet" : ""}>{item.label}</span>
        )}
      </td>
      <Cell>{at > 0 ? "" : item.clicks.toLocaleString("en-GB")}</Cell>
      {theirs ? <Cell>{at > 0 ? "" : (item.theirClicks?.toLocaleString("en-GB") ?? "")}</Cell> : null}
      <Cell>{sum ? sum.sales + sum.leads : ""}</Cell>
      <Cell>{at > 0 || item.conversion === null ? "" : `${(item.conversion * 100).toFixed(1)} %`}</Cell>
      <Cell>{sum ? money(sum.approved, sum.currency) : ""}</Cell>
      <Cell>{sum ? money(sum.pending, sum.currency) : ""}</Cell>
      <Cell>
        {sum && Number(sum.reversed) > 0 ? (
          <span className="text-bad">{money(sum.reversed, sum.currency)}</span>
        ) : (
          ""
        )}
      </Cell>
      <Cell>
        {sum?.epc ? money(sum.epc, sum.currency) : ""}
        {sum?.epc && item.per === "networks" ? (
          <span className="block text-xs text-quiet">by the network’s clicks</span>
        ) : null}
      </Cell>
    </tr>
  ));
}

function Cell({ children }: { children: React.ReactNode }) {
  return <td className="py-1 pr-3 pl-3 text-right tabular-nums whitespace-nowrap">{children}</td>;
}
