import { useQuery } from "@tanstack/react-query";
import type { Earnings, EarningSums } from "../../core/earnings/earning.ts";
import { EARNINGS_BY } from "../../core/earnings/choices.ts";
import type { Site } from "../../core/sites/site.ts";
import { CsvLink } from "../../ui/filter/CsvLink.tsx";
import { FilterBar } from "../../ui/filter/FilterBar.tsx";
import { ViewChoice } from "../../ui/filter/ViewChoice.tsx";
import { FilterChoice } from "../../ui/filter/FilterChoice.tsx";
import { Bars } from "../../ui/charts/Bars.tsx";
import { later } from "../../ui/frame/later.tsx";
import { SectionTabs } from "../../ui/frame/SectionTabs.tsx";
import { Screen } from "../../ui/frame/Screen.tsx";
import { useAddressState } from "../../ui/client/url-state.ts";
import { usePrograms } from "../programs/use-programs.ts";
import { EarningsTable } from "./EarningsTable.tsx";
import { UnmatchedRows } from "./UnmatchedRows.tsx";
import { asking } from "../../ui/client/queries.ts";
import { hrefOf, messageOf } from "../../ui/client/api.ts";
import { count, money } from "../../ui/format/format.ts";
import * as say from "./words.ts";

const ImportReport = later(async () => (await import("./ImportReport.tsx")).ImportReport);
type By = (typeof EARNINGS_BY)[number];
const WORD: Readonly<Record<By, string>> = {
  program: say.program,
  page: say.page,
  subId: say.link,
  day: say.day,
  month: say.month,
  network: say.network,
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
  const [chosenBy] = useAddressState("by");
  const [days] = useAddressState("days");
  const [program] = useAddressState("program");
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
      <FilterBar
        view={
          <>
            <ViewChoice
              name="by"
              label={say.by}
              usual="program"
              options={EARNINGS_BY.map((one) => [one, WORD[one]])}
            />
            <ViewChoice
              name="days"
              label={say.ofTheLast}
              usual="90"
              options={SPANS.map((one) => [one, say.days(one)])}
            />
          </>
        }
        narrows={["program"]}
        actions={<CsvLink href={hrefOf("GET /sites/:site/earnings/export", asked)} />}
      >
        <FilterChoice
          name="program"
          label={say.program}
          every={say.allPrograms}
          options={programs.map(({ id, name, network }) => ({ value: id, word: name, note: network }))}
        />
      </FilterBar>
      {earnings.isError ? (
        <p role="alert" className="text-bad">
          {messageOf(earnings.error)}
        </p>
      ) : null}
      {earnings.data ? (
        <Figures site={site} by={by} earnings={earnings.data} />
      ) : (
        <p className="text-quiet">{say.counting}</p>
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
        {say.nothingWasEarnedInTheseDaysAs}
      </p>
    );
  const isTime = by === "day" || by === "month";
  const [first] = total.money;
  return (
    <>
      <p className="mb-2">
        {total.money.map((sum) => (
          <span key={sum.currency}>
            <strong>{money(added(sum), sum.currency)}</strong>{" "}
            {say.earnedApprovedPendingTakenBackSales(
              money(sum.approved, sum.currency),
              money(sum.pending, sum.currency),
              money(sum.reversed, sum.currency),
              sum.sales,
              sum.leads > 0 ? say.leads(sum.leads) : "",
              sum.epc === null
                ? say.noClicks
                : say.per100(
                    money(sum.epc, sum.currency),
                    total.per === "networks" ? say.clicksThatTheNetworksCounted : say.clicksOnShortLinks,
                  ),
            )}{" "}
          </span>
        ))}
        <span className="text-quiet">
          {say.clicksOnShortLinksToPrograms(
            count(total.clicks),
            total.theirClicks === null
              ? ""
              : say.theNetworksCountedOnAllTrackedLinks(count(total.theirClicks)),
          )}
        </span>
        {unmatched > 0 ? (
          <>
            {" "}
            <button
              className="text-warn underline"
              aria-expanded={shown !== ""}
              onClick={() => show(shown ? "" : "1")}
            >
              {say.toNoProgramThatIsKnown(
                unmatched === 1 ? say.n1RowBelongs : say.rowsBelong(count(unmatched)),
              )}
            </button>
          </>
        ) : null}
      </p>
      {unmatched > 0 && shown ? <UnmatchedRows site={site} from={earnings.from} to={earnings.to} /> : null}
      {by === "page" && silent.length > 0 ? (
        <p className="mb-2 text-sm text-warn">{say.manyClicksAndNothingEarned(silent.join(", "))}</p>
      ) : null}
      {first ? (
        <Bars
          rows={(isTime ? items : items.filter((item) => item.money.length > 0).slice(0, 15)).map((item) => {
            const sum = item.money.find(({ currency }) => currency === first.currency);
            return {
              label: item.label,
              approved: Number(sum?.approved ?? 0),
              pending: Number(sum?.pending ?? 0),
            };
          })}
          series={[
            {
              name: say.approved(first.currency),
              field: "approved",
              color: "--color-good",
              stack: "money",
            },
            {
              name: say.pending(first.currency),
              field: "pending",
              color: "--color-hemp",
              stack: "money",
            },
          ]}
          label={say.earnedByTheSameFiguresStandIn(WORD[by].toLowerCase())}
          heightPx={224}
        />
      ) : null}
      <EarningsTable site={site} by={by} word={WORD[by]} earnings={earnings} />
      {left > 0 ? (
        <p className="-mt-6 mb-8 text-sm text-quiet">{say.moreThatEarnedLessTheCsvHas(count(left))}</p>
      ) : null}
    </>
  );
}

// Shown only: what is counted with stays exact.
function added({ approved, pending }: EarningSums): string {
  return (Number(approved) + Number(pending)).toFixed(2);
}
