import { useEffect, useState } from "react";
import type { ReportColumns, ReportLook } from "../../core/earnings/earning.ts";
import type { Site } from "../../core/sites/site.ts";
import { api, messageOf, startJob } from "../../ui/client/api.ts";
import { refresh } from "../../ui/client/queries.ts";
import { sendFile, startJobWithFile } from "../../ui/client/upload.ts";
import { useWork } from "../../ui/notices/job.ts";
import { notify } from "../../ui/notices/notices.ts";

/** Where a report comes from: a file of the person's, or the network, which the workspace asked. */
type Source = { file: File } | { pulled: string };

/** A network's report on its way in: it is looked at, tried, and taken in. */
export function useReport(site: Site) {
  const [network, setNetwork] = useState("");
  const [source, setSource] = useState<Source>();
  const [look, setLook] = useState<ReportLook>();
  const [columns, setColumns] = useState<Partial<ReportColumns>>({});
  const [dry, setDry] = useState(true);
  // Whose it is, is proposed from the file; where somebody chose another, they are asked.
  const [isSettled, setSettled] = useState(false);
  const pulling = useWork<"POST /sites/:site/earnings/pull">();
  const work = useWork<"POST /sites/:site/earnings/import">();

  function begin(from: Source, of = network): void {
    work.reset();
    setSource(from);
    setLook(undefined);
    setSettled(false);
    void lookAt(site, from, of).then(
      (seen) => {
        setLook(seen);
        setColumns(seen.columns);
        if (of === "" && seen.seems) setNetwork(seen.seems.name);
      },
      (error: unknown) => notify(messageOf(error), { tone: "failed" }),
    );
  }
  function run(dryRun: boolean): void {
    if (!source) return;
    setDry(dryRun);
    const query = { network, columns: JSON.stringify(columns), dryRun: dryRun ? "1" : "0" };
    work.start(() =>
      "file" in source
        ? startJobWithFile("POST /sites/:site/earnings/import", { site: site.id, query }, source.file)
        : startJob("POST /sites/:site/earnings/import", {
            site: site.id,
            query: { ...query, pulled: source.pulled },
          }),
    );
  }
  const { jobId: pulled, state: pullState } = pulling;
  useEffect(() => {
    if (pullState === "done" && pulled) begin({ pulled });
    // It is begun with once for each job.
  }, [pullState, pulled]);
  const { result } = work;
  useEffect(() => {
    if (!result || dry) return;
    void refresh("GET /sites/:site/earnings", "GET /sites/:site/earnings/unmatched");
    void refresh("GET /sites/:site/programs");
  }, [result, dry]);
  return {
    network,
    setNetwork,
    look,
    columns,
    setColumns,
    dry,
    work,
    pulling,
    run,
    /** Whose it seems to be, where that is another than was said. */
    other:
      look?.seems && network !== "" && look.seems.name !== network && !isSettled ? look.seems : undefined,
    settle: () => setSettled(true),
    take: (file: File) => begin({ file }),
    pull: () =>
      pulling.start(() => startJob("POST /sites/:site/earnings/pull", { site: site.id, body: { network } })),
    isOf(name: string): void {
      setNetwork(name);
      if (source) begin(source, name);
    },
  };
}

function lookAt(site: Site, source: Source, network: string): Promise<ReportLook> {
  const query = network ? { network } : {};
  return "file" in source
    ? sendFile(
        "POST /sites/:site/earnings/look",
        { site: site.id, query: { ...query, name: source.file.name } },
        source.file,
      )
    : api("POST /sites/:site/earnings/look", { site: site.id, query: { ...query, pulled: source.pulled } });
}
