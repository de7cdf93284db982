import { useMutation, useQuery } from "@tanstack/react-query";
import { Copy, Pencil, Trash2 } from "lucide-react";
import { useState } from "react";
import type { Creative } from "../../../core/creatives/creative.ts";
import type { Program } from "../../../core/programs/program.ts";
import type { Site } from "../../../core/sites/site.ts";
import { HistoryLink } from "../../../ui/links/HistoryLink.tsx";
import { AddressText } from "../../../ui/links/AddressText.tsx";
import { copyText } from "../../../ui/keys/copy.ts";
import { notify } from "../../../ui/notices/notices.ts";
import { CreativeForm } from "./CreativeForm.tsx";
import { asking, refresh } from "../../../ui/client/queries.ts";
import { api, messageOf } from "../../../ui/client/api.ts";
import * as say from "../words.ts";

/** Text links and banners that the program supplies: pasted whole, shown as they will stand, copied ready to use. */
export function Creatives({ site, program }: { site: Site; program: Program }) {
  const creatives = useQuery({
    ...asking("GET /sites/:site/programs/:id/creatives", { site: site.id, id: program.id }),
    select: ({ items }) => items,
  });
  const [changing, setChanging] = useState<string>();
  const refreshCreatives = (): Promise<void> => refresh("GET /sites/:site/programs/:id/creatives");
  const remove = useMutation({
    mutationFn: ({ id }: Creative) => api("DELETE /sites/:site/creatives/:id", { site: site.id, id }),
    onSuccess: (_gone, { id, name }) => {
      const undo = (): void =>
        void api("POST /sites/:site/creatives/:id/restore", { site: site.id, id }).then(refreshCreatives);
      notify(say.deleted(name), { undo });
      return refreshCreatives();
    },
    onError: (error) => notify(messageOf(error), { tone: "failed" }),
  });
  return (
    <section
      aria-label={say.creatives}
      className="grid grid-cols-[minmax(0,1fr)] gap-2 border-t border-line pt-3"
    >
      <h3 className="font-semibold">{say.creatives}</h3>
      <ul className="grid grid-cols-[minmax(0,1fr)] gap-2">
        {creatives.data?.map((creative) => (
          <li
            key={creative.id}
            className="grid grid-cols-[minmax(0,1fr)] gap-1 rounded border border-line p-2"
          >
            {changing === creative.id ? (
              <CreativeForm
                site={site}
                program={program.id}
                creative={creative}
                onDone={() => {
                  setChanging(undefined);
                  void refreshCreatives();
                }}
              />
            ) : (
              <CreativeShown
                site={site}
                creative={creative}
                onChange={() => setChanging(creative.id)}
                onRemove={() => remove.mutate(creative)}
              />
            )}
          </li>
        ))}
      </ul>
      {creatives.isSuccess && creatives.data.length === 0 ? (
        <p className="text-sm text-quiet">{say.noneKeptYetPasteABannerOr}</p>
      ) : null}
      <div data-needs="editor">
        <CreativeForm site={site} program={program.id} onDone={() => void refreshCreatives()} />
      </div>
    </section>
  );
}

function CreativeShown({
  site,
  creative,
  onChange,
  onRemove,
}: {
  site: Site;
  creative: Creative;
  onChange: () => void;
  onRemove: () => void;
}) {
  const { name, kind, picture, words, pixel, leftOut, filled, fault, uses } = creative;
  return (
    <>
      <div className="flex flex-wrap items-center gap-2">
        <span className="font-medium">{name}</span>
        <span className="text-sm text-quiet">
          {kind === "banner"
            ? say.banner(picture?.width && picture.height ? `, ${picture.width} × ${picture.height}` : "")
            : say.textLink}
          {pixel ? say.countsWhoSeesIt : ""}
        </span>
        {filled ? (
          <button className="action ml-auto py-0.5 text-sm" onClick={() => void copyText(filled.html)}>
            <Copy size={13} aria-hidden /> {say.copyReadyToPaste}
          </button>
        ) : null}
        <button
          data-needs="editor"
          className={`action action-plain px-1 ${filled ? "" : "ml-auto"}`}
          aria-label={say.change(name)}
          onClick={onChange}
        >
          <Pencil size={15} aria-hidden />
        </button>
        <button
          data-needs="editor"
          className="action action-plain px-1"
          aria-label={say.deleteWord(name)}
          onClick={onRemove}
        >
          <Trash2 size={15} aria-hidden />
        </button>
      </div>
      {picture ? (
        <img
          src={picture.src}
          alt={picture.alt}
          className="max-h-32 justify-self-start rounded-sm border border-line object-contain"
          referrerPolicy="no-referrer"
        />
      ) : (
        <p className="text-accent underline">{words}</p>
      )}
      {filled ? <AddressText address={filled.href} most={80} /> : <p className="text-sm text-bad">{fault}</p>}
      {leftOut.length > 0 ? <p className="text-sm text-warn">{say.notKeptOfIt(leftOut.join(", "))}</p> : null}
      <p className="text-sm text-quiet">
        <HistoryLink site={site} kind="creative" object={name} />.{" "}
        {uses.length === 0 ? say.usedNowhere : say.usedOn}
        {uses.map(({ page, title }, at) => (
          <span key={page}>
            {at > 0 ? ", " : ""}
            <a className="text-accent underline" href={`/${site.key}/pages/${page}`}>
              {title}
            </a>
          </span>
        ))}
      </p>
    </>
  );
}
