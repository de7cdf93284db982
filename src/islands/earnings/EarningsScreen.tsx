import { useQuery } from "@tanstack/react-query";
import { Download } from "lucide-react";
import { lazy, Suspense } from "react";
import { EARNINGS_BY, type Earnings, type EarningSums } from "../../core/earnings/earning.ts";
import type { Site } from "../../core/sites/site.ts";
import { Choice } from "../../ui/fields/Choice.tsx";
import { SectionTabs } from "../../ui/frame/SectionTabs.tsx";
import { Screen } from "../../ui/frame/Screen.tsx";
import { useAddressState } from "../../ui/client/url-state.ts";
import { money } from "../programs/figures-in-words.ts";
import { usePrograms } from "../programs/use-programs.ts";
import { EarningsTable } from "./EarningsTable.tsx";
import { ImportReport } from "./ImportReport.tsx";
import { UnmatchedRows } from "./UnmatchedRows.tsx";
import { asking } from "../../ui/client/queries.ts";
import { hrefOf, messageOf } from "../../ui/client/api.ts";

const Bars = lazy(async () => ({ default: (await import("../../ui/charts/Bars.tsx")).Bars }));
type By = (typeof EARNINGS_BY)[number];
const WORD: Readonly<Record<By, string>> = {
  program: "Program",
  page: "Page",
  subId: "Link",
  day: "Day",
  month: "Month",
  network: "Network",
};
const DAY_MS = 86_400_000;
const SPANS = ["30", "90", "365"] as const;

/** What programs, pages and links earned, beside the clicks that led there. */
export function EarningsScreen({ site }: { site: Site }) {
  return (
    <Screen>
      <div className="flex flex-wrap items-start gap-3">
        <SectionTabs site={site} tab="earnings" />
      </div>
      <EarningsView site={site} />
    </Screen>
  );
}

function EarningsView({ site }: { site: Site }) {
  const [chosenBy, setBy] = useAddressState("by");
  const [days, setDays] = useAddressState("days");
  const [program, setProgram] = useAddressState("program");
  const by = (EARNINGS_BY as readonly string[]).includes(chosenBy) ? (chosenBy as By) : "program";
  const span = (SPANS as readonly string[]).includes(days) ? days : "90";
  const from = new Date(Date.now() - (Number(span) - 1) * DAY_MS).toISOString().slice(0, 10);
  const asked = { site: site.id, query: { by, from, ...(program ? { program } : {}) } };
  const earnings = useQuery({
    ...asking("GET /sites/:site/earnings", asked),
    placeholderData: (previous) => previous,
  });
  const programs = usePrograms(site).data ?? [];
  return (
    <>
      <div className="mb-3 flex flex-wrap items-center gap-3">
        <Choice
          label="By"
          value={by}
          options={EARNINGS_BY.map((value) => ({ value, word: WORD[value] }))}
          onChange={(value) => setBy(value === "program" ? "" : value)}
        />
        <Choice
          label="Of the last"
          value={span}
          options={SPANS.map((value) => ({ value, word: `${value} days` }))}
          onChange={(value) => setDays(value === "90" ? "" : value)}
        />
        <select
          className="field w-auto"
          aria-label="Program"
          value={program}
          onChange={(event) => setProgram(event.target.value)}
        >
          <option value="">All programs</option>
          {programs.map(({ id, name }) => (
            <option key={id} value={id}>
              {name}
            </option>
          ))}
        </select>
        <a
          className="action ml-auto py-1 text-sm"
          download
          href={hrefOf("GET /sites/:site/earnings/export", asked)}
        >
          <Download size={14} aria-hidden /> CSV
        </a>
      </div>
      {earnings.isError ? (
        <p role="alert" className="text-bad">
          {messageOf(earnings.error)}
        </p>
      ) : null}
      {earnings.data ? (
        <Figures site={site} by={by} earnings={earnings.data} />
      ) : (
        <p className="text-quiet">Counting…</p>
      )}
      <ImportReport site={site} />
    </>
  );
}

function Figures({ site, by, earnings }: { site: Site; by: By; earnings: Earnings }) {
  const { total, items, left, silent, unmatched } = earnings;
  const [shown, show] = useAddressState("unmatched");
  if (total.money.length === 0 && total.clicks === 0)
    return (
      <p className="mb-6 rounded border border-dashed border-line p-8 text-center text-quiet">
        Nothing was earned in these days as far as is known. Import a network’s report below, and it stands
        here.
      </p>
    );
  const isTime = by === "day" || by === "month";
  const [first] = total.money;
  return (
    <>
      <p className="mb-2">
        {total.money.map((sum) => (
          <span key={sum.currency}>
            <strong>{money(added(sum), sum.currency)}</strong> earned ({money(sum.approved, sum.currency)}{" "}
            approved, {money(sum.pending, sum.currency)} pending), {money(sum.reversed, sum.currency)} taken
            back; {sum.sales} sales{sum.leads > 0 ? `, ${sum.leads} leads` : ""};{" "}
            {sum.epc === null
              ? "no clicks"
              : `${money(sum.epc, sum.currency)} per 100 ${total.per === "networks" ? "clicks that the networks counted" : "clicks on short links"}`}
            .{" "}
          </span>
        ))}
        <span className="text-quiet">
          {total.clicks.toLocaleString("en-GB")} clicks on short links to programs
          {total.theirClicks === null
            ? ""
            : `; the networks counted ${total.theirClicks.toLocaleString("en-GB")} on all tracked links`}
          .
        </span>
        {unmatched > 0 ? (
          <>
            {" "}
            <button
              className="text-warn underline"
              aria-expanded={shown !== ""}
              onClick={() => show(shown ? "" : "1")}
            >
              {unmatched === 1 ? "1 row belongs" : `${unmatched.toLocaleString("en-GB")} rows belong`} to no
              program that is known.
            </button>
          </>
        ) : null}
      </p>
      {unmatched > 0 && shown ? <UnmatchedRows site={site} from={earnings.from} to={earnings.to} /> : null}
      {by === "page" && silent.length > 0 ? (
        <p className="mb-2 text-sm text-warn">Many clicks and nothing earned: {silent.join(", ")}.</p>
      ) : null}
      {first ? (
        <Suspense fallback={<p className="h-56 text-quiet">Drawing…</p>}>
          <Bars
            rows={(isTime ? items : items.filter((item) => item.money.length > 0).slice(0, 15)).map(
              (item) => {
                const sum = item.money.find(({ currency }) => currency === first.currency);
                return {
                  label: item.label,
                  approved: Number(sum?.approved ?? 0),
                  pending: Number(sum?.pending ?? 0),
                };
              },
            )}
            series={[
              {
                name: `Approved (${first.currency})`,
                field: "approved",
                color: "--color-good",
                stack: "money",
              },
              {
                name: `Pending (${first.currency})`,
                field: "pending",
                color: "--color-hemp",
                stack: "money",
              },
            ]}
            label={`Earned by ${WORD[by].toLowerCase()}; the same figures stand in the table.`}
            className="h-56 w-full"
          />
        </Suspense>
      ) : null}
      <EarningsTable site={site} by={by} word={WORD[by]} earnings={earnings} />
      {left > 0 ? (
        <p className="-mt-6 mb-8 text-sm text-quiet">
          {left.toLocaleString("en-GB")} more that earned less; the CSV has all of them.
        </p>
      ) : null}
    </>
  );
}

// Shown only: what is counted with stays exact.
function added({ approved, pending }: EarningSums): string {
  return (Number(approved) + Number(pending)).toFixed(2);
}
