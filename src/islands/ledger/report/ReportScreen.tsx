import { useQuery } from "@tanstack/react-query";
import { Download, Printer } from "lucide-react";
import type { Site } from "../../../core/sites/site.ts";
import { TREATMENTS } from "../../../core/rules/treatment.ts";
import { whenSeen } from "../../../ui/frame/later.tsx";
import { SectionTabs } from "../../../ui/frame/SectionTabs.tsx";
import { TREATMENT_COLOR } from "../../../ui/links/link-words.ts";
import { Screen } from "../../../ui/frame/Screen.tsx";
import { TreatmentTable } from "../GroupTable.tsx";
import { asking } from "../../../ui/client/queries.ts";
import { hrefOf, messageOf } from "../../../ui/client/api.ts";
import { DataTable, type Column } from "../../../ui/table/DataTable.tsx";
import { count, moment } from "../../../ui/format/format.ts";

const Bars = whenSeen(
  async () => (await import("../../../ui/charts/Bars.tsx")).Bars,
  () => <p className="h-64 text-quiet">Drawing…</p>,
);

const MEANING = {
  sponsored: "say that they are paid (sponsored)",
  ugc: "were written by readers (ugc)",
  nofollow: "vouch for nothing (nofollow)",
  plain: "are plain recommendations",
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
  if (!report.data) return <p className="text-quiet">Counting…</p>;
  const { madeAt, total, newTab, hosts, hostsInAll, pages, pagesInAll, days, notLetOut } = report.data;
  const all = TREATMENTS.reduce((sum, one) => sum + total[one], 0);
  const percent = (count: number): number => (all === 0 ? 0 : Math.round((count / all) * 100));
  const columns: Column<(typeof TREATMENTS)[number]>[] = [
    {
      key: "count",
      word: "Links",
      number: true,
      className: "w-20",
      cellClass: "font-semibold",
      cell: (one) => count(total[one]),
    },
    {
      key: "share",
      word: "Of all",
      number: true,
      className: "w-16",
      cellClass: "text-quiet",
      cell: (one) => `${percent(total[one])} %`,
    },
    { key: "means", word: "Treatment", head: true, className: "pl-4", cell: (one) => MEANING[one] },
    {
      key: "bar",
      word: "As a bar",
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
          <h2 className="text-lg font-semibold">How outside links are marked on {site.name}</h2>
          <p className="text-quiet">
            {site.hosts.find(({ role }) => role === "primary")!.name}, as delivered to readers,{" "}
            {moment(madeAt)}
          </p>
        </div>
        <button className="action print:hidden" onClick={() => print()}>
          <Printer size={15} aria-hidden /> Print or save as PDF
        </button>
        <a
          className="action print:hidden"
          download
          href={hrefOf("GET /sites/:site/links/export", {
            site: site.id,
            query: { edition: "readers", reach: "external" },
          })}
        >
          <Download size={15} aria-hidden /> CSV
        </a>
      </header>
      <section aria-label="By treatment">
        <p className="mb-2">
          Readers meet <strong>{count(all)}</strong> outside links, of which {count(newTab)} open in a new
          tab. Of all of them,
        </p>
        <div className="max-w-2xl">
          <DataTable
            label="Outside links by treatment"
            rows={TREATMENTS}
            columns={columns}
            keyOf={(one) => one}
            isHeadHidden
          />
        </div>
      </section>
      {notLetOut.length > 0 ? (
        <section aria-label="Blocked addresses">
          <h3 className="font-semibold text-bad">
            {notLetOut.length === 1 ? "One address is" : `${notLetOut.length} addresses are`} not let out
          </h3>
          <p className="mb-1 text-quiet">
            Only http, https, mailto and tel addresses and paths of the site are. Of such a link readers get
            the words alone, of such a picture nothing.
          </p>
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
      <section aria-label="Over time">
        <h3 className="font-semibold">Over time</h3>
        {days.length < 2 ? (
          <p className="text-quiet">
            Counted daily since {days[0]?.day ?? "today"}; from the second day on a chart stands here.
          </p>
        ) : (
          <Bars
            rows={days.map((day) => ({ ...day, label: day.day }))}
            series={TREATMENTS.map((one) => ({ name: one, field: one, color: TREATMENT_COLOR[one] }))}
            label={`Outside links by treatment on ${days.length} days, from ${days[0]!.day} to ${days.at(-1)!.day}.`}
            className="h-64 w-full"
          />
        )}
      </section>
      <section>
        <h3 className="font-semibold">
          By host{hostsInAll > hosts.length ? `: the first ${hosts.length} of ${hostsInAll}` : ""}
        </h3>
        <TreatmentTable by="host" groups={hosts} quiet />
      </section>
      <section>
        <h3 className="font-semibold">
          By page{pagesInAll > pages.length ? `: the first ${pages.length} of ${pagesInAll}` : ""}
        </h3>
        <TreatmentTable by="page" groups={pages} quiet />
      </section>
    </article>
  );
}
