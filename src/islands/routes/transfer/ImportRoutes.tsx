import { Upload } from "lucide-react";
import { useState } from "react";
import type { Site } from "../../../core/sites/site.ts";
import { ChooseFiles } from "../../../ui/fields/ChooseFiles.tsx";
import { useWork } from "../../../ui/notices/job.ts";
import { WorkBar } from "../../../ui/notices/WorkBar.tsx";
import { refreshRoutes } from "../use-routes.ts";
import { DataTable, type Column } from "../../../ui/table/DataTable.tsx";
import { startJobWithFile } from "../../../ui/client/upload.ts";
import { count } from "../../../ui/format/format.ts";
import * as say from "../words.ts";

const REFUSED_COLUMNS: readonly Column<{ line: number; message: string }>[] = [
  { key: "line", word: say.line, className: "w-16", cellClass: "tabular-nums", cell: ({ line }) => line },
  { key: "message", word: say.whyItIsRefused, cell: ({ message }) => message },
];

/** Routes from a CSV or JSON file: tried first, every refused line named, then taken in as one step. */
export function ImportRoutes({ site }: { site: Site }) {
  const [file, setFile] = useState<File>();
  const [dry, setDry] = useState(true);
  const work = useWork<"POST /sites/:site/routes/import">();
  const run = (chosen: File, dryRun: boolean): void => {
    setFile(chosen);
    setDry(dryRun);
    const query = { name: chosen.name, dryRun: dryRun ? "1" : "0" };
    work.start(() => startJobWithFile("POST /sites/:site/routes/import", { site: site.id, query }, chosen));
  };
  const answer = work.result;
  const changes = answer ? answer.created + answer.updated : 0;
  return (
    <section
      data-needs="editor"
      aria-labelledby="bring-in"
      onDragOver={(event) => event.preventDefault()}
      onDrop={(event) => {
        event.preventDefault();
        const [dropped] = event.dataTransfer.files;
        if (dropped) run(dropped, true);
      }}
    >
      <h2 id="bring-in" className="mb-1 font-semibold">
        {say.importRoutesFromAFile}
      </h2>
      <div className="rounded border border-dashed border-line p-5 text-center">
        <p className="mb-3 text-sm text-quiet">{say.dropACsvOrJsonFileHere}</p>
        <ChooseFiles
          label={say.fileOfRoutes}
          accept=".csv,.tsv,.txt,.json"
          className="action"
          onChoose={([chosen]) => chosen && run(chosen, true)}
        >
          <Upload size={15} aria-hidden /> {say.chooseAFile}
        </ChooseFiles>
      </div>
      <div className="mt-3">
        <WorkBar work={work} label={dry ? say.trying : say.importing} />
      </div>
      {answer && file ? (
        <div className="mt-2" aria-live="polite">
          <div className="flex flex-wrap items-center gap-3">
            <p className="font-medium">
              {say.newChangedAsTheyWereRefused(
                dry ? say.triedNothingSavedYet(file.name) : say.done,
                answer.created,
                answer.updated,
                answer.unchanged,
                answer.refused.length,
              )}
            </p>
            {dry && changes > 0 ? (
              <button className="action action-main" onClick={() => run(file, false)}>
                {say.bringIn(count(changes))}
              </button>
            ) : null}
            {dry ? null : (
              <a className="text-accent underline" href={`/${site.key}/routes`} onClick={refreshRoutes}>
                {say.seeTheRoutes}
              </a>
            )}
          </div>
          {answer.notes.map((note) => (
            <p key={note} className="text-sm text-warn">
              {note}
            </p>
          ))}
          {answer.refused.length > 0 ? (
            <DataTable
              label={say.refusedLines}
              rows={answer.refused.slice(0, 300)}
              columns={REFUSED_COLUMNS}
              keyOf={({ line }) => String(line)}
              dense
            />
          ) : null}
          {answer.refused.length > 300 ? (
            <p className="text-sm text-quiet">{say.theFirst300OfRefusedLinesAre(answer.refused.length)}</p>
          ) : null}
        </div>
      ) : null}
    </section>
  );
}
