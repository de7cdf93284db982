import { Download, Upload } from "lucide-react";
import { useEffect, useState } from "react";
import type { ReportColumns, ReportLook, ReportResult } from "../../core/earnings/earning.ts";
import type { Site } from "../../core/sites/site.ts";
import { ChooseFiles } from "../../ui/fields/ChooseFiles.tsx";
import { useWork } from "../../ui/notices/job.ts";
import { notify } from "../../ui/notices/notices.ts";
import { WorkBar } from "../../ui/notices/WorkBar.tsx";
import { useNetworks } from "../programs/use-programs.ts";
import { ColumnMapping } from "./ColumnMapping.tsx";
import { refresh } from "../../ui/client/queries.ts";
import { hrefOf, messageOf, ApiProblem } from "../../ui/client/api.ts";
import { sendFile, startJobWithFile } from "../../ui/client/upload.ts";

/** A network's report: what its columns say is asked once and remembered, it is tried, then taken in as one step. */
export function ImportReport({ site }: { site: Site }) {
  const networks = useNetworks(site).data ?? [];
  const [chosen, choose] = useState<string>();
  const network = chosen ?? "";
  const [file, setFile] = useState<File>();
  const [look, setLook] = useState<ReportLook>();
  const [columns, setColumns] = useState<Partial<ReportColumns>>({});
  const [dry, setDry] = useState(true);
  const work = useWork<"POST /sites/:site/earnings/import">();
  // Whose it is, is proposed from the file; where somebody chose another, they are asked.
  const [isSettled, setSettled] = useState(false);
  const begin = (report: File, of = network): void => {
    work.reset();
    setFile(report);
    setLook(undefined);
    setSettled(false);
    const asked = { site: site.id, query: { ...(of ? { network: of } : {}), name: report.name } };
    sendFile("POST /sites/:site/earnings/look", asked, report).then(
      (seen) => {
        setLook(seen);
        setColumns(seen.columns);
        if (of === "" && seen.seems) choose(seen.seems.name);
      },
      (error: unknown) => notify(messageOf(error), { tone: "failed" }),
    );
  };
  const run = (report: File, dryRun: boolean): void => {
    setDry(dryRun);
    const query = { network, columns: JSON.stringify(columns), dryRun: dryRun ? "1" : "0" };
    work.start(() => startJobWithFile("POST /sites/:site/earnings/import", { site: site.id, query }, report));
  };
  const fetchReport = (): void =>
    void fetchFrom(site, network).then(begin, (error: unknown) =>
      notify(messageOf(error), { tone: "failed" }),
    );
  const result = work.result;
  const other =
    look?.seems && network !== "" && look.seems.name !== network && !isSettled ? look.seems : undefined;
  useEffect(() => {
    if (!result || dry) return;
    void refresh("GET /sites/:site/earnings", "GET /sites/:site/earnings/unmatched");
    void refresh("GET /sites/:site/programs");
  }, [result, dry]);
  return (
    <section aria-labelledby="bring-report" className="grid max-w-4xl gap-3 border-t border-line pt-4">
      <h2 id="bring-report" className="font-semibold">
        Bring a network’s report in
      </h2>
      <div className="flex flex-wrap items-center gap-2">
        <input
          className="field w-56"
          aria-label="Network of the report"
          list="report-networks"
          placeholder="Seen from the file"
          value={network}
          onChange={(event) => choose(event.target.value)}
        />
        <datalist id="report-networks">
          {networks.map(({ name }) => (
            <option key={name} value={name} />
          ))}
        </datalist>
        {networks.find(({ name }) => name === network)?.report ? (
          <button className="action" onClick={fetchReport}>
            <Download size={15} aria-hidden /> Ask {network} for it
          </button>
        ) : null}
        <ChooseFiles
          label="Report of a network"
          accept=".csv,.tsv,.txt"
          className="action"
          onChoose={([one]) => one && begin(one)}
        >
          <Upload size={15} aria-hidden /> Choose a file
        </ChooseFiles>
        <span className="text-sm text-quiet">CSV, as often as you like: nothing is counted twice.</span>
      </div>
      {file && look ? (
        <>
          {look.seems && look.seems.name === network ? (
            <p className="text-sm text-quiet">
              A report of {network}: {look.seems.why}.
            </p>
          ) : null}
          {other ? (
            <div role="alert" className="flex flex-wrap items-center gap-2 rounded bg-wash p-2 text-sm">
              <span className="text-warn">
                This looks like a report of {other.name}: {other.why}.
              </span>
              <button
                className="action"
                onClick={() => {
                  choose(other.name);
                  begin(file, other.name);
                }}
              >
                It is {other.name}’s
              </button>
              <button className="action" onClick={() => setSettled(true)}>
                No, it is {network}’s
              </button>
            </div>
          ) : null}
          {network === "" ? (
            <p role="alert" className="text-sm text-warn">
              Whose report is it? Nothing in it tells; name the network above.
            </p>
          ) : null}
          <ColumnMapping look={look} columns={columns} onChange={setColumns} />
          <div className="flex flex-wrap items-center gap-3">
            <button
              className="action"
              disabled={!network || other !== undefined}
              onClick={() => run(file, true)}
            >
              Try it
            </button>
            <button
              className="action action-main"
              disabled={!network || other !== undefined}
              onClick={() => run(file, false)}
            >
              Bring it in
            </button>
            <WorkBar work={work} label={dry ? "Trying" : "Bringing in"} />
          </div>
        </>
      ) : null}
      {result ? <Outcome result={result} dry={dry} /> : null}
    </section>
  );
}

// The workspace asks the network itself: the browser may not.
async function fetchFrom(site: Site, network: string): Promise<File> {
  const response = await fetch(
    hrefOf("GET /sites/:site/earnings/report", { site: site.id, query: { network } }),
  );
  if (!response.ok) throw new ApiProblem(response.status, (await response.json()) as object);
  return new File([await response.blob()], `${network}.csv`);
}

function Outcome({ result, dry }: { result: ReportResult; dry: boolean }) {
  return (
    <div aria-live="polite" className="text-sm">
      <p className="font-medium">
        {dry ? "Tried, nothing written yet: " : "Done: "}
        {result.rows.toLocaleString("en-GB")} rows, {result.created} new, {result.changed} changed,{" "}
        {result.unchanged} as they were, {result.refused} refused
        {result.clickRows > 0
          ? `; ${result.clickRows.toLocaleString("en-GB")} say how many clicks were counted`
          : ""}
        .
      </p>
      <p className="text-quiet">
        {result.matchedToPages} belong to a page, {result.matchedToPrograms} to a program, {result.unmatched}{" "}
        to none that is known
        {result.doubtful > 0
          ? `, ${result.doubtful.toLocaleString("en-GB")} are doubtful: they name one program, and their sub-ID was issued for another`
          : ""}
        .
      </p>
      {result.refusals.length > 0 ? (
        <ul className="mt-1">
          {result.refusals.map(({ line, message }) => (
            <li key={line}>
              Line {line}: <span className="text-bad">{message}</span>
            </li>
          ))}
        </ul>
      ) : null}
    </div>
  );
}
