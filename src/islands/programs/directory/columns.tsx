import { createColumnHelper } from "@tanstack/react-table";
import type { ProgramFigures } from "../../../core/programs/program.ts";
import { setAddressState } from "../../../ui/client/url-state.ts";
import { commissionWords, nextPayout, STATE_TONE } from "../figures-in-words.ts";
import type { Columns } from "../../../ui/table/columns.ts";
import { count, money, shortDay } from "../../../ui/format/format.ts";
import * as say from "../words.ts";

const column = createColumnHelper<ProgramFigures>();
/** The columns of the comparison besides the program's name. */
export const PROGRAM_COLUMNS: Columns = {
  table: "programs",
  words: {
    state: say.state,
    network: say.network,
    commission: say.pays,
    epc7: say.theirEpc7Days,
    epc30: say.theirEpc30Days,
    epc90: say.theirEpc90Days,
    own7: say.ourEpc7Days,
    own30: say.ourEpc30Days,
    own90: say.ourEpc90Days,
    cookieDays: say.cookie,
    payout: say.toItsPayout,
    links: say.links,
    clicks: say.clicks,
    earned: say.earned,
    nextStep: say.nextStep,
    tags: say.tags,
  },
  standard: "state,network,commission,epc30,own30,own90,payout,links,clicks,earned,nextStep",
};
const heads = PROGRAM_COLUMNS.words;

/** The columns of the comparison, the program's name first. */
export const programColumns = [
  column.accessor("name", {
    header: say.program,
    cell: ({ row: { original } }) => (
      <button
        className="block max-w-full truncate text-left font-medium hover:underline"
        onClick={() => setAddressState({ open: original.id })}
      >
        {original.name}
      </button>
    ),
  }),
  column.accessor("state", {
    header: heads.state,
    cell: ({ getValue }) => <span className={STATE_TONE[getValue()]}>{getValue()}</span>,
  }),
  column.accessor("network", { header: heads.network }),
  column.accessor("commission", {
    header: heads.commission,
    cell: ({ row }) => commissionWords(row.original),
  }),
  ...(["7", "30", "90"] as const).map((days) =>
    column.accessor(({ epc }) => epc[`d${days}`], {
      id: `epc${days}`,
      header: heads[`epc${days}`],
      sortDescFirst: true,
      cell: ({ row: { original } }) => (
        <Amount amount={original.epc[`d${days}`]} currency={original.currency} />
      ),
    }),
  ),
  ...(["7", "30", "90"] as const).map((days) =>
    column.accessor(({ ownEpc }) => ownEpc[`d${days}`], {
      id: `own${days}`,
      header: heads[`own${days}`],
      sortDescFirst: true,
      cell: ({ row: { original } }) => (
        <span title={original.ownEpcPer[`d${days}`] === "networks" ? PER_NETWORK : PER_OURS}>
          <Amount amount={original.ownEpc[`d${days}`]} currency={original.currency} strong />
        </span>
      ),
    }),
  ),
  column.accessor("cookieDays", { header: heads.cookieDays, cell: ({ getValue }) => say.days2(getValue()) }),
  column.accessor("towardsPayout", {
    id: "payout",
    header: heads.payout,
    sortDescFirst: true,
    cell: ({ row: { original } }) => <Payout program={original} />,
  }),
  column.accessor("links", {
    header: heads.links,
    sortDescFirst: true,
    cell: ({ row: { original } }) => (
      <span className="block text-right tabular-nums">
        {original.links}
        {original.untracked > 0 ? (
          <span className="block text-xs whitespace-nowrap text-warn">
            {say.untracked(original.untracked)}
          </span>
        ) : null}
      </span>
    ),
  }),
  column.accessor("clicks", {
    header: heads.clicks,
    sortDescFirst: true,
    cell: ({ getValue }) => <span className="block text-right tabular-nums">{count(getValue())}</span>,
  }),
  column.accessor(({ earned }) => earned.length, {
    id: "earned",
    header: heads.earned,
    sortDescFirst: true,
    cell: ({ row: { original } }) => (
      <span className="block text-right tabular-nums">
        {original.earned.map(({ amount, currency }) => money(amount, currency)).join(" + ") || <Nothing />}
      </span>
    ),
  }),
  column.accessor("nextStep", {
    header: heads.nextStep,
    cell: ({ row: { original } }) => (
      <span className="block truncate text-sm" title={original.nextStep}>
        {original.nextStepDue ? (
          <span className={isDue(original.nextStepDue) ? "text-bad" : "text-quiet"}>
            {shortDay(original.nextStepDue)}{" "}
          </span>
        ) : null}
        {original.nextStep}
      </span>
    ),
  }),
  column.accessor(({ tags }) => tags.join(", "), { id: "tags", header: heads.tags, enableSorting: false }),
];

/** True when a day has come. */
export function isDue(day: string): boolean {
  return day <= new Date().toISOString().slice(0, 10);
}

function Nothing() {
  return <span className="text-quiet">–</span>;
}

const PER_OURS = say.per100ClicksOnShortLinks;
const PER_NETWORK = say.per100ClicksAsTheNetworkCounted;

function Amount(props: { amount: string | null; currency: string; strong?: boolean }) {
  return (
    <span className={`block text-right tabular-nums ${props.strong ? "font-medium" : ""}`}>
      {props.amount === null ? <Nothing /> : money(props.amount, props.currency)}
    </span>
  );
}

/** How far a program is from paying, and when it pays next. */
export function Payout({ program }: { program: ProgramFigures }) {
  const { payoutThreshold, towardsPayout, currency } = program;
  if (!payoutThreshold || Number(payoutThreshold) === 0) return <Nothing />;
  const share = Math.min(1, Number(towardsPayout) / Number(payoutThreshold));
  const due = share === 1 ? nextPayout(program, new Date()) : undefined;
  return (
    <span className="block min-w-24 text-xs">
      <span className="mb-0.5 block h-1.5 overflow-hidden rounded-full bg-sunk" aria-hidden>
        <span
          className={`block h-full ${share === 1 ? "bg-good" : "bg-accent"}`}
          style={{ width: `${share * 100}%` }}
        />
      </span>
      <span className="block whitespace-nowrap tabular-nums">
        {say.ofWord(money(towardsPayout, currency), money(payoutThreshold, currency))}
      </span>
      {due ? <span className="block whitespace-nowrap">{say.pays2(shortDay(due))}</span> : null}
    </span>
  );
}
