import { Download, Upload } from "lucide-react";
import type { Site } from "../../core/sites/site.ts";
import { ChooseFiles } from "../../ui/fields/ChooseFiles.tsx";
import { ChooseOne } from "../../ui/choose/choose.tsx";
import { asOptions } from "../../ui/choose/options.ts";
import { WorkBar } from "../../ui/notices/WorkBar.tsx";
import { useNetworks } from "../programs/use-programs.ts";
import { ColumnMapping } from "./ColumnMapping.tsx";
import { ReportOutcome } from "./ReportOutcome.tsx";
import { useReport } from "./use-report.ts";
import * as say from "./words.ts";

/** A network's report: what its columns say is asked once and remembered, it is tried, then taken in as one step. */
export function ImportReport({ site }: { site: Site }) {
  const networks = useNetworks(site).data ?? [];
  const report = useReport(site);
  const { network, look, other, work, dry } = report;
  return (
    <section
      data-needs="editor"
      aria-labelledby="bring-report"
      className="grid max-w-4xl gap-3 border-t border-line pt-4"
    >
      <h2 id="bring-report" className="font-semibold">
        {say.importANetworksReport}
      </h2>
      <div className="flex flex-wrap items-center gap-2">
        <ChooseOne
          attributes={{ "aria-label": say.networkOfTheReport }}
          className="w-56"
          isFree
          placeholder={say.seenFromTheFile}
          options={asOptions(networks.map(({ name }) => name))}
          value={network}
          onChange={report.setNetwork}
        />
        {networks.find(({ name }) => name === network)?.report ? (
          <button className="action" onClick={report.pull} disabled={report.pulling.state === "running"}>
            <Download size={15} aria-hidden /> {say.askForIt(network)}
          </button>
        ) : null}
        <ChooseFiles
          label={say.reportOfANetwork}
          accept=".csv,.tsv,.txt"
          className="action"
          onChoose={([one]) => one && report.take(one)}
        >
          <Upload size={15} aria-hidden /> {say.chooseAFile}
        </ChooseFiles>
        <span className="text-sm text-quiet">{say.csvAsOftenAsYouLikeNothing}</span>
      </div>
      <WorkBar work={report.pulling} label={say.asking(network)} />
      {look ? (
        <>
          <Whose report={report} />
          <ColumnMapping look={look} columns={report.columns} onChange={report.setColumns} />
          <div className="flex flex-wrap items-center gap-3">
            <button
              className="action"
              disabled={!network || other !== undefined}
              onClick={() => report.run(true)}
            >
              {say.tryIt}
            </button>
            <button
              className="action action-main"
              disabled={!network || other !== undefined}
              onClick={() => report.run(false)}
            >
              {say.importIt}
            </button>
            <WorkBar work={work} label={dry ? say.trying : say.importing} />
          </div>
        </>
      ) : null}
      {work.result ? <ReportOutcome result={work.result} dry={dry} /> : null}
    </section>
  );
}

function Whose({ report }: { report: ReturnType<typeof useReport> }) {
  const { network, look, other } = report;
  if (network === "")
    return (
      <p role="alert" className="text-sm text-warn">
        {say.whoseReportIsItNothingInIt}
      </p>
    );
  if (look?.seems?.name === network)
    return <p className="text-sm text-quiet">{say.aReportOf(network, look.seems.why)}</p>;
  if (!other) return null;
  return (
    <div role="alert" className="flex flex-wrap items-center gap-2 rounded bg-wash p-2 text-sm">
      <span className="text-warn">{say.thisLooksLikeAReportOf(other.name, other.why)}</span>
      <button className="action" onClick={() => report.isOf(other.name)}>
        {say.itIsS(other.name)}
      </button>
      <button className="action" onClick={report.settle}>
        {say.noItIsS(network)}
      </button>
    </div>
  );
}
