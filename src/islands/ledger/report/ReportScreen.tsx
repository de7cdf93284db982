import { useQuery } from "@tanstack/react-query";
import { Download, Printer } from "lucide-react";
import type { Site } from "../../../core/sites/site.ts";
import { TREATMENTS } from "../../../core/rules/treatment.ts";
import { Bars } from "../../../ui/charts/Bars.tsx";
import { SectionTabs } from "../../../ui/frame/SectionTabs.tsx";
import { TREATMENT_COLOR } from "../../../ui/links/link-words.ts";
import { Screen } from "../../../ui/frame/Screen.tsx";
import { TreatmentTable } from "../GroupTable.tsx";
import { asking } from "../../../ui/client/queries.ts";
import { hrefOf, messageOf } from "../../../ui/client/api.ts";
import { DataTable, type Column } from "../../../ui/table/DataTable.tsx";
import { count, moment } from "../../../ui/format/format.ts";
import * as say from "../words.ts";

const MEANING = {
  sponsored: say.sayThatTheyArePaidSponsored,
  ugc: say.wereWrittenByReadersUgc,
  nofollow: say.vouchForNothingNofollow,
  plain: say.arePlainRecommendations,
} as const;

/** How the site's outside links are marked, to show to whoever asks; on paper without the workspace around it. */
export function ReportScreen({ site }: { site: Site }) {
  return (
    <Screen>
      <div className="print:hidden">
        <SectionTabs site={site} tab="ledger/report" />
      </div>
      <Report site={site} />
    </Screen>
  );
}

function Report({ site }: { site: Site }) {
  const report = useQuery(asking("GET /sites/:site/links/report", { site: site.id }));
  if (report.isError) return <p className="text-bad">{messageOf(report.error)}</p>;
  if (!report.data) return <p className="text-quiet">{say.counting}</p>;
  const { madeAt, total, newTab, hosts, hostsInAll, pages, pagesInAll, days, notLetOut } = report.data;
  const all = TREATMENTS.reduce((sum, one) => sum + total[one], 0);
  const percent = (count: number): number => (all === 0 ? 0 : Math.round((count / all) * 100));
  const columns: Column<(typeof TREATMENTS)[number]>[] = [
    {
      key: "count",
      word: say.links,
      number: true,
      className: "w-20",
      cellClass: "font-semibold",
      cell: (one) => count(total[one]),
    },
    {
      key: "share",
      word: say.ofAll,
      number: true,
      className: "w-16",
      cellClass: "text-quiet",
      cell: (one) => `${percent(total[one])} %`,
    },
    { key: "means", word: say.treatment, head: true, className: "pl-4", cell: (one) => MEANING[one] },
    {
      key: "bar",
      word: say.asABar,
      className: "w-1/3",
      cell: (one) => (
        <span
          className="block h-3 rounded-sm"
          style={{ width: `${percent(total[one])}%`, background: `var(${TREATMENT_COLOR[one]})` }}
          aria-hidden
        />
      ),
    },
  ];
  return (
    <article className="grid max-w-5xl grid-cols-[minmax(0,1fr)] gap-6">
      <header className="flex flex-wrap items-start gap-3">
        <div className="grow">
          <h2 className="text-lg font-semibold">{say.howOutsideLinksAreMarkedOn(site.name)}</h2>
          <p className="text-quiet">
            {say.asDeliveredToReaders(
              site.hosts.find(({ role }) => role === "primary")!.name,
              moment(madeAt),
            )}
          </p>
        </div>
        <button className="action print:hidden" onClick={() => print()}>
          <Printer size={15} aria-hidden /> {say.printOrSaveAsPdf}
        </button>
        <a
          className="action print:hidden"
          download
          href={hrefOf("GET /sites/:site/links/export", {
            site: site.id,
            query: { edition: "readers", reach: "external" },
          })}
        >
          <Download size={15} aria-hidden /> {say.csv}
        </a>
      </header>
      <section aria-label={say.byTreatment}>
        <p className="mb-2">
          {say.readersMeet} <strong>{count(all)}</strong> {say.outsideLinksOfWhichOpenInA(count(newTab))}
        </p>
        <div className="max-w-2xl">
          <DataTable
            label={say.outsideLinksByTreatment}
            rows={TREATMENTS}
            columns={columns}
            keyOf={(one) => one}
            isHeadHidden
          />
        </div>
      </section>
      {notLetOut.length > 0 ? (
        <section aria-label={say.blockedAddresses}>
          <h3 className="font-semibold text-bad">
            {say.notLetOut(notLetOut.length === 1 ? say.oneAddressIs : say.addressesAre(notLetOut.length))}
          </h3>
          <p className="mb-1 text-quiet">{say.onlyHttpHttpsMailtoAndTelAddresses}</p>
          <ul className="grid gap-1">
            {notLetOut.map(({ page, title, words, address }, index) => (
              <li key={index}>
                {title} <span className="font-mono text-sm text-quiet">{page}</span>: “{words}”
                {address ? <span className="font-mono text-sm wrap-anywhere"> {address}</span> : null}
              </li>
            ))}
          </ul>
        </section>
      ) : null}
      <section aria-label={say.overTime}>
        <h3 className="font-semibold">{say.overTime}</h3>
        {days.length < 2 ? (
          <p className="text-quiet">{say.countedDailySinceFromTheSecondDay(days[0]?.day ?? say.today)}</p>
        ) : (
          <Bars
            rows={days.map((day) => ({ ...day, label: day.day }))}
            series={TREATMENTS.map((one) => ({ name: one, field: one, color: TREATMENT_COLOR[one] }))}
            label={say.outsideLinksByTreatmentOnDaysFrom(days.length, days[0]!.day, days.at(-1)!.day)}
            heightPx={256}
            usualWidthPx={1024}
          />
        )}
      </section>
      <section>
        <h3 className="font-semibold">
          {say.byHost2(hostsInAll > hosts.length ? say.theFirstOf(hosts.length, hostsInAll) : "")}
        </h3>
        <TreatmentTable by="host" groups={hosts} quiet />
      </section>
      <section>
        <h3 className="font-semibold">
          {say.byPage2(pagesInAll > pages.length ? say.theFirstOf2(pages.length, pagesInAll) : "")}
        </h3>
        <TreatmentTable by="page" groups={pages} quiet />
      </section>
    </article>
  );
}
