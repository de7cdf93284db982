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
        Import a network’s report
      </h2>
      <div className="flex flex-wrap items-center gap-2">
        <ChooseOne
          attributes={{ "aria-label": "Network of the report" }}
          className="w-56"
          isFree
          placeholder="Seen from the file"
          options={asOptions(networks.map(({ name }) => name))}
          value={network}
          onChange={report.setNetwork}
        />
        {networks.find(({ name }) => name === network)?.report ? (
          <button className="action" onClick={report.pull} disabled={report.pulling.state === "running"}>
            <Download size={15} aria-hidden /> Ask {network} for it
          </button>
        ) : null}
        <ChooseFiles
          label="Report of a network"
          accept=".csv,.tsv,.txt"
          className="action"
          onChoose={([one]) => one && report.take(one)}
        >
          <Upload size={15} aria-hidden /> Choose a file
        </ChooseFiles>
        <span className="text-sm text-quiet">CSV, as often as you like: nothing is counted twice.</span>
      </div>
      <WorkBar work={report.pulling} label={`Asking ${network}`} />
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
              Try it
            </button>
            <button
              className="action action-main"
              disabled={!network || other !== undefined}
              onClick={() => report.run(false)}
            >
              Import it
            </button>
            <WorkBar work={work} label={dry ? "Trying" : "Importing"} />
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
        Whose report is it? Nothing in it tells; name the network above.
      </p>
    );
  if (look?.seems?.name === network)
    return (
      <p className="text-sm text-quiet">
        A report of {network}: {look.seems.why}.
      </p>
    );
  if (!other) return null;
  return (
    <div role="alert" className="flex flex-wrap items-center gap-2 rounded bg-wash p-2 text-sm">
      <span className="text-warn">
        This looks like a report of {other.name}: {other.why}.
      </span>
      <button className="action" onClick={() => report.isOf(other.name)}>
        It is {other.name}’s
      </button>
      <button className="action" onClick={report.settle}>
        No, it is {network}’s
      </button>
    </div>
  );
}
