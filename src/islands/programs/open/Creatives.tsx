import { useMutation, useQuery } from "@tanstack/react-query";
import { Copy, Trash2 } from "lucide-react";
import { useState } from "react";
import type { Creative } from "../../../core/objects/creative.ts";
import type { Program } from "../../../core/objects/program.ts";
import type { Site } from "../../../core/objects/site.ts";
import { AddressText } from "../../../ui/AddressText.tsx";
import { api, ApiProblem, messageOf, queries, type ListOf } from "../../../ui/api.ts";
import { copyText } from "../../../ui/copy.ts";
import { FieldRow } from "../../../ui/FieldRow.tsx";
import { tell } from "../../../ui/notices.ts";

/** Text links and banners that the program supplies: pasted whole, shown as they will stand, copied ready to use. */
export function Creatives({ site, program }: { site: Site; program: Program }) {
  const at = `/sites/${site.id}/programs/${program.id}/creatives`;
  const creatives = useQuery({
    queryKey: ["creatives", program.id, program.version],
    queryFn: async () => (await api<ListOf<Creative>>("GET", at)).items,
  });
  const refresh = (): Promise<void> => queries.invalidateQueries({ queryKey: ["creatives", program.id] });
  const remove = useMutation({
    mutationFn: ({ id }: Creative) => api("DELETE", `/sites/${site.id}/creatives/${id}`),
    onSuccess: (_gone, { id, name }) => {
      const undo = (): void => void api("POST", `/sites/${site.id}/creatives/${id}/restore`).then(refresh);
      tell(`Took ${name} away`, { undo });
      return refresh();
    },
    onError: (error) => tell(messageOf(error), { tone: "failed" }),
  });
  return (
    <section aria-label="Creatives" className="grid gap-2 border-t border-line pt-3">
      <h3 className="font-semibold">Creatives</h3>
      <ul className="grid gap-2">
        {creatives.data?.map((creative) => (
          <li key={creative.id} className="grid gap-1 rounded border border-line p-2">
            <CreativeShown site={site} creative={creative} onRemove={() => remove.mutate(creative)} />
          </li>
        ))}
      </ul>
      {creatives.isSuccess && creatives.data.length === 0 ? (
        <p className="text-sm text-quiet">
          None kept yet. Paste a banner or text link as the program gives it out.
        </p>
      ) : null}
      <NewCreative at={at} onKept={refresh} />
    </section>
  );
}

function CreativeShown({
  site,
  creative,
  onRemove,
}: {
  site: Site;
  creative: Creative;
  onRemove: () => void;
}) {
  const { name, kind, picture, words, pixel, leftOut, filled, fault, uses } = creative;
  return (
    <>
      <div className="flex items-center gap-2">
        <span className="font-medium">{name}</span>
        <span className="text-sm text-quiet">
          {kind === "banner" ? `banner${picture?.width && picture.height ? `, ${picture.width} × ${picture.height}` : ""}` : "text link"}
          {pixel ? ", counts who sees it" : ""}
        </span>
        {filled ? (
          <button className="action ml-auto py-0.5 text-sm" onClick={() => void copyText(filled.html)}>
            <Copy size={13} aria-hidden /> Copy ready to paste
          </button>
        ) : null}
        <button className={`action action-plain px-1 ${filled ? "" : "ml-auto"}`} aria-label={`Take ${name} away`} onClick={onRemove}>
          <Trash2 size={15} aria-hidden />
        </button>
      </div>
      {picture ? (
        <img src={picture.src} alt={picture.alt} className="max-h-32 justify-self-start rounded-sm border border-line object-contain" referrerPolicy="no-referrer" />
      ) : (
        <p className="text-accent underline">{words}</p>
      )}
      {filled ? <AddressText address={filled.href} most={80} /> : <p className="text-sm text-bad">{fault}</p>}
      {leftOut.length > 0 ? <p className="text-sm text-warn">Left out of it: {leftOut.join(", ")}.</p> : null}
      <p className="text-sm text-quiet">
        {uses.length === 0 ? "Used nowhere." : "Used on "}
        {uses.map(({ page, title }, at) => (
          <span key={page}>
            {at > 0 ? ", " : ""}
            <a className="text-accent underline" href={`/${site.key}/write/${page}`}>{title}</a>
          </span>
        ))}
      </p>
    </>
  ); // prettier-ignore
}

function NewCreative({ at, onKept }: { at: string; onKept: () => Promise<void> }) {
  const [name, setName] = useState("");
  const [html, setHtml] = useState("");
  const keep = useMutation({
    mutationFn: () => api<Creative>("POST", at, { name, html }),
    onSuccess: (kept) => {
      setName("");
      setHtml("");
      tell(`Kept ${kept.name}`);
      return onKept();
    },
  });
  const fault = (field: string): string | undefined =>
    keep.error instanceof ApiProblem
      ? keep.error.errors.find(({ path }) => path === field)?.message
      : undefined;
  return (
    <form
      aria-label="New creative"
      className="grid gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        keep.mutate();
      }}
    >
      <FieldRow label="Snippet" error={fault("html")} hint="Where the program leaves a place for your account, write {id}.">
        {(attributes) => (
          <textarea {...attributes} rows={3} className="field font-mono text-sm" value={html} onChange={(event) => setHtml(event.target.value)} />
        )}
      </FieldRow>
      <div className="flex items-end gap-2">
        <div className="grow">
          <FieldRow label="Called" error={fault("name")}>
            {(attributes) => (
              <input {...attributes} className="field" value={name} onChange={(event) => setName(event.target.value)} />
            )}
          </FieldRow>
        </div>
        <button className="action" disabled={keep.isPending || html.trim() === "" || name.trim() === ""}>Keep it</button>
      </div>
      {keep.isError && !fault("html") && !fault("name") ? <p className="text-bad">{messageOf(keep.error)}</p> : null}
    </form>
  ); // prettier-ignore
}
