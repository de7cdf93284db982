import { useMutation } from "@tanstack/react-query";
import { Download, Upload } from "lucide-react";
import { useState } from "react";
import type { Site } from "../../../core/sites/site.ts";
import type { ImportedFile } from "../../../core/pages/transfer.ts";
import { ChooseFiles } from "../../../ui/fields/ChooseFiles.tsx";
import { Choice } from "../../../ui/fields/Choice.tsx";
import { KIND_WORD, Knot } from "../../../ui/links/Knot.tsx";
import { Screen } from "../../../ui/frame/Screen.tsx";
import { SectionTabs } from "../../../ui/frame/SectionTabs.tsx";
import { refresh } from "../../../ui/client/queries.ts";
import { hrefOf, messageOf } from "../../../ui/client/api.ts";
import { startJobWithFile } from "../../../ui/client/upload.ts";
import { outcomeOf } from "../../../ui/notices/job.ts";
import * as say from "../words.ts";

/** Pages in from files, and out as files. */
export function TransferScreen({ site }: { site: Site }) {
  return (
    <Screen>
      <SectionTabs site={site} tab="pages/transfer" />
      <div className="grid gap-8 grid-cols-[minmax(0,1fr)] lg:grid-cols-[minmax(0,1fr)_22rem]">
        <BringIn site={site} />
        <TakeOut site={site} />
      </div>
    </Screen>
  );
}

function BringIn({ site }: { site: Site }) {
  const [files, setFiles] = useState<readonly File[]>([]);
  const [share, setShare] = useState(0);
  const [publish, setPublish] = useState<"0" | "1">("0");
  const bring = useMutation({
    mutationFn: async ({ chosen, dryRun }: { chosen: readonly File[]; dryRun: boolean }) => {
      const reports: ImportedFile[] = [];
      for (const [index, file] of chosen.entries()) {
        const query = { name: file.name, dryRun: dryRun ? "1" : "0", publish };
        const report = await outcomeOf<"POST /sites/:site/import">(
          () => startJobWithFile("POST /sites/:site/import", { site: site.id, query }, file),
          ({ done, total }) => setShare((index + (total > 0 ? done / total : 0)) / chosen.length),
        );
        reports.push(...report.files);
      }
      return { dryRun, files: reports };
    },
    onSuccess: () => void refresh("GET /sites/:site/pages"),
  });
  const take = (chosen: readonly File[]): void => {
    if (chosen.length === 0) return;
    setFiles(chosen);
    bring.mutate({ chosen, dryRun: true });
  };
  return (
    <section
      data-needs="editor"
      aria-labelledby="bring-in"
      onDragOver={(event) => event.preventDefault()}
      onDrop={(event) => {
        event.preventDefault();
        take([...event.dataTransfer.files]);
      }}
    >
      <h2 id="bring-in" className="mb-1 font-semibold">
        {say.importPages}
      </h2>
      <div className="rounded border border-dashed border-line p-6 text-center">
        <p className="mb-3 text-quiet">{say.dropHtmlOrMarkdownFilesHereOr}</p>
        <ChooseFiles
          label={say.filesToImport}
          accept=".html,.htm,.md,.markdown,.zip"
          className="action"
          onChoose={take}
        >
          <Upload size={15} aria-hidden /> {say.chooseFiles}
        </ChooseFiles>
      </div>
      {bring.isPending ? (
        <p role="status" className="mt-3 flex items-center gap-3">
          {say.reading} <progress aria-label={say.importing} max={1} value={share} />
        </p>
      ) : null}
      {bring.isError ? (
        <p role="alert" className="mt-3 text-bad">
          {messageOf(bring.error)}
        </p>
      ) : null}
      {bring.data ? (
        <div className="mt-4">
          <div className="mb-2 flex flex-wrap items-center gap-3">
            <p className="font-medium">{summary(bring.data.files, bring.data.dryRun)}</p>
            {bring.data.dryRun ? (
              <>
                <Choice
                  label={say.afterwards}
                  value={publish}
                  options={[
                    { value: "0", word: say.asDrafts },
                    { value: "1", word: say.publishedAtOnce },
                  ]}
                  onChange={setPublish}
                />
                <button
                  className="action action-main"
                  onClick={() => bring.mutate({ chosen: files, dryRun: false })}
                >
                  {say.importThem}
                </button>
              </>
            ) : null}
          </div>
          {bring.data.files.map((file) => (
            <FileReport key={file.name} site={site} file={file} />
          ))}
        </div>
      ) : null}
    </section>
  );
}

function summary(files: readonly ImportedFile[], dryRun: boolean): string {
  const words = (["created", "updated", "unchanged", "uploaded", "refused"] as const).flatMap((outcome) => {
    const count = files.filter((file) => file.outcome === outcome).length;
    return count > 0 ? [`${count} ${outcome}`] : [];
  });
  return `${dryRun ? say.previewNothingSavedYet : say.done}: ${words.join(", ")}.`;
}

function FileReport({ site, file }: { site: Site; file: ImportedFile }) {
  return (
    <details
      className="mb-1 rounded border border-line bg-sheet px-3 py-1.5"
      open={file.outcome === "refused"}
    >
      <summary>
        <span className="font-medium">{file.title ?? file.name}</span>{" "}
        <span className="font-mono text-xs text-quiet">{file.path ?? file.name}</span>{" "}
        <span className={file.outcome === "refused" ? "text-bad" : "text-quiet"}>{file.message}</span>{" "}
        {file.links.length > 0 ? (
          <span className="text-sm text-quiet">{say.links2(file.links.length)}</span>
        ) : null}
      </summary>
      {file.page ? (
        <a className="text-accent underline" href={`/${site.key}/pages/${file.page}`}>
          {say.openThePage}
        </a>
      ) : null}
      {file.dropped.length > 0 ? (
        <p className="text-sm text-warn">{say.leftOut(file.dropped.join("; "))}</p>
      ) : null}
      <ul className="mt-1 text-sm">
        {file.links.map((link, index) => (
          <li key={index} className="flex items-center gap-2">
            <Knot kind={link.kind} size={13} />
            <span className={link.kind === "broken" ? "text-bad" : "text-quiet"}>{KIND_WORD[link.kind]}</span>
            <span>{link.words || say.noWords}</span>
            <span className="truncate font-mono text-xs text-quiet">{link.href}</span>
          </li>
        ))}
      </ul>
    </details>
  );
}

function TakeOut({ site }: { site: Site }) {
  const [format, setFormat] = useState<"html" | "markdown">("html");
  const [as, setAs] = useState<"stored" | "delivered">("stored");
  return (
    <section aria-labelledby="take-out">
      <h2 id="take-out" className="mb-1 font-semibold">
        {say.exportPages}
      </h2>
      <div className="grid justify-items-start gap-3 rounded border border-line bg-sheet p-4">
        <Choice
          label={say.format}
          value={format}
          options={[
            { value: "html", word: say.html },
            { value: "markdown", word: say.markdown },
          ]}
          onChange={setFormat}
        />
        <Choice
          label={say.whichText}
          value={as}
          options={[
            { value: "stored", word: say.asItIsStored2 },
            { value: "delivered", word: say.asReadersGetIt },
          ]}
          onChange={setAs}
        />
        <a
          className="action action-main"
          href={hrefOf("GET /sites/:site/export", { site: site.id, query: { format, as } })}
          download
        >
          <Download size={15} aria-hidden /> {say.allPagesAsAZip}
        </a>
        <p className="text-sm text-quiet">{say.titlePathDescriptionAndCategoryGoWith}</p>
      </div>
    </section>
  );
}
