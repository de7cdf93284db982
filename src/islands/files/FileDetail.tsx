import { useMutation, useQuery } from "@tanstack/react-query";
import { X } from "lucide-react";
import { useState } from "react";
import type { SiteFile } from "../../core/files/file.ts";
import type { Site } from "../../core/sites/site.ts";
import { FieldRow } from "../../ui/fields/FieldRow.tsx";
import { notify } from "../../ui/notices/notices.ts";
import { asking } from "../../ui/client/queries.ts";
import { api, messageOf, ApiProblem } from "../../ui/client/api.ts";

/** One file: what it shows, where it stands, and which pages would miss it. */
export function FileDetail(props: {
  site: Site;
  file: SiteFile;
  onChanged: () => void;
  onRemove: () => void;
  onClose: () => void;
}) {
  const { site, file } = props;
  const [alt, setAlt] = useState(file.alt);
  const [path, setPath] = useState(file.path);
  const uses = useQuery(asking("GET /sites/:site/files/:id/uses", { site: site.id, id: file.id }));
  const save = useMutation({
    mutationFn: () =>
      api("PATCH /sites/:site/files/:id", { site: site.id, id: file.id, body: { alt, path } }),
    onSuccess: () => {
      notify("Saved");
      props.onChanged();
    },
  });
  const fault = (field: string): string | undefined =>
    save.error instanceof ApiProblem
      ? save.error.errors.find((error) => error.path === field)?.message
      : undefined;
  const used = uses.data?.items ?? [];
  return (
    <section
      aria-label={`File ${file.name}`}
      className="grid content-start gap-3 self-start rounded border border-line bg-sheet p-3"
    >
      <div className="flex items-start gap-2">
        <h2 className="font-semibold break-all">{file.name}</h2>
        <button
          className="action action-plain ml-auto px-1"
          aria-label="Close the file’s panel"
          onClick={props.onClose}
        >
          <X size={16} aria-hidden />
        </button>
      </div>
      {file.mediaType.startsWith("image/") ? (
        <img src={file.url} alt={file.alt} className="max-h-64 rounded-sm object-contain" />
      ) : null}
      <p className="text-sm text-quiet">
        {file.mediaType}, uploaded by {file.createdBy}.{" "}
        <a className="text-accent underline" href={file.url} target="_blank" rel="noopener">
          Open it
        </a>
      </p>
      <form
        className="grid gap-3"
        onSubmit={(event) => {
          event.preventDefault();
          save.mutate();
        }}
      >
        <FieldRow label="Alternative text to begin with" error={fault("alt")}>
          {(field) => (
            <input
              {...field}
              className="field"
              value={alt}
              onChange={(event) => setAlt(event.target.value)}
            />
          )}
        </FieldRow>
        <FieldRow
          label="Path"
          error={fault("path")}
          hint={path !== file.path && used.length > 0 ? "Pages that use it would lose it." : undefined}
        >
          {(field) => (
            <input
              {...field}
              className="field font-mono text-sm"
              value={path}
              onChange={(event) => setPath(event.target.value)}
            />
          )}
        </FieldRow>
        {save.isError && !fault("alt") && !fault("path") ? (
          <p className="text-bad">{messageOf(save.error)}</p>
        ) : null}
        <div className="flex gap-2">
          <button className="action action-main" disabled={alt === file.alt && path === file.path}>
            Save
          </button>
          <button type="button" className="action action-plain ml-auto text-bad" onClick={props.onRemove}>
            {used.length === 0
              ? "Delete file"
              : used.length === 1
                ? "Delete, though 1 page uses it"
                : `Delete, though ${used.length} pages use it`}
          </button>
        </div>
      </form>
      <div>
        <h3 className="text-sm font-medium">Used by</h3>
        {uses.isSuccess && used.length === 0 ? (
          <p className="text-sm text-quiet">No page and no block, in draft or published.</p>
        ) : null}
        <ul>
          {used.map((use) => (
            <li key={use.id}>
              <a className="hover:text-accent hover:underline" href={`/${site.key}/pages/${use.id}`}>
                {use.title}
              </a>{" "}
              <span className="font-mono text-xs text-quiet">
                {use.kind === "page" ? use.path : "shared block"}
              </span>
            </li>
          ))}
        </ul>
      </div>
    </section>
  );
}
