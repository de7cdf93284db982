import { useState, type ReactNode } from "react";
import type { Earnings, EarningSums } from "../../core/earnings/earning.ts";
import type { EARNINGS_BY } from "../../core/earnings/choices.ts";
import type { Site } from "../../core/sites/site.ts";
import { DataTable, type Column } from "../../ui/table/DataTable.tsx";
import { inOrder } from "../../ui/table/in-order.ts";
import { count, money, percent } from "../../ui/format/format.ts";
import * as say from "./words.ts";

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

/** One line of the table: a group's figures in one currency; only the first of a group tells what it is. */
interface Line {
  item: Item;
  sum: EarningSums | undefined;
  isFirst: boolean;
}

/** The figures of each group; without a sort in the order that fits it. */
export function EarningsTable(props: { site: Site; by: By; word: string; earnings: Earnings }) {
  const { site, by, word, earnings } = props;
  const { total, items } = earnings;
  const [sort, setSort] = useState("");
  const value = SORTS[sort.replace("-", "")];
  const sorted = value ? inOrder(items, value, sort.startsWith("-")) : items;
  const lines = sorted.flatMap((item) =>
    (item.money.length > 0 ? item.money : [undefined]).map((sum, at): Line => ({
      item,
      sum,
      isFirst: at === 0,
    })),
  );
  return (
    <div className="mb-8">
      <DataTable
        label={say.figuresOfEachGroup}
        rows={lines}
        columns={columnsOf(site, by, word, total.theirClicks !== null)}
        keyOf={({ item, sum }) => `${item.key} ${sum?.currency ?? ""}`}
        sort={sort}
        setSort={setSort}
      />
    </div>
  );
}

function columnsOf(site: Site, by: By, word: string, theirs: boolean): Column<Line>[] {
  const figure = (key: string, head: string, cell: (line: Line) => ReactNode): Column<Line> => ({
    key,
    word: head,
    sort: "down",
    number: true,
    cell,
  });
  const ofGroup =
    (of: (item: Item) => ReactNode) =>
    ({ item, isFirst }: Line) =>
      isFirst ? of(item) : "";
  const ofSum =
    (of: (sum: EarningSums, item: Item) => ReactNode) =>
    ({ sum, item }: Line) =>
      sum ? of(sum, item) : "";
  return [
    {
      key: "label",
      word,
      sort: "up",
      head: true,
      className: "min-w-32",
      cellClass: "wrap-anywhere",
      cell: ofGroup((item) => <GroupName site={site} by={by} item={item} />),
    },
    figure(
      "clicks",
      say.clicks,
      ofGroup(({ clicks }) => count(clicks)),
    ),
    ...(theirs
      ? [
          figure(
            "theirClicks",
            say.networksClicks,
            ofGroup(({ theirClicks }) => (theirClicks === null ? "" : count(theirClicks))),
          ),
        ]
      : []),
    figure(
      "sales",
      say.sales,
      ofSum(({ sales, leads }) => sales + leads),
    ),
    figure(
      "conversion",
      say.conversion,
      ofGroup(({ conversion }) => (conversion === null ? "" : percent(conversion))),
    ),
    figure(
      "approved",
      say.approved2,
      ofSum(({ approved, currency }) => money(approved, currency)),
    ),
    figure(
      "pending",
      say.pending2,
      ofSum(({ pending, currency }) => money(pending, currency)),
    ),
    figure(
      "reversed",
      say.takenBack,
      ofSum(({ reversed, currency }) =>
        Number(reversed) > 0 ? <span className="text-bad">{money(reversed, currency)}</span> : "",
      ),
    ),
    figure(
      "epc",
      "EPC",
      ofSum((sum, item) => <Epc sum={sum} item={item} />),
    ),
  ];
}

function GroupName({ site, by, item }: { site: Site; by: By; item: Item }) {
  const place =
    item.id &&
    (by === "program"
      ? `/${site.key}/programs?open=${item.id}`
      : by === "page"
        ? `/${site.key}/pages/${item.id}`
        : undefined);
  if (!place) return <span className={item.key === "" ? "text-quiet" : ""}>{item.label}</span>;
  return (
    <a className="hover:underline" href={place}>
      {item.label}
    </a>
  );
}

function Epc({ sum, item }: { sum: EarningSums; item: Item }) {
  if (!sum.epc) return null;
  return (
    <>
      {money(sum.epc, sum.currency)}
      {item.per === "networks" ? (
        <span className="block text-xs text-quiet">{say.byTheNetworksClicks}</span>
      ) : null}
    </>
  );
}
