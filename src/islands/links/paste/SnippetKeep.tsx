import { useMutation, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import type { PasteAnswer } from "../../../core/links/paste.ts";
import type { Site } from "../../../core/sites/site.ts";
import { notify } from "../../../ui/notices/notices.ts";
import { asking } from "../../../ui/client/queries.ts";
import { api, messageOf } from "../../../ui/client/api.ts";

/** A partner's snippet in the paste field: what is in it, and one step that keeps it as a creative of its program. */
export function SnippetKeep(props: {
  site: Site;
  html: string;
  snippet: NonNullable<PasteAnswer["snippet"]>;
  onKept: () => void;
}) {
  const { site, html, snippet, onKept } = props;
  const programs = useQuery({
    ...asking("GET /sites/:site/programs", { site: site.id }),
    select: ({ items }) => items,
  });
  const [chosen, setChosen] = useState(snippet.program ?? "");
  const [name, setName] = useState(snippet.words.slice(0, 120));
  const keep = useMutation({
    mutationFn: () =>
      api("POST /sites/:site/programs/:id/creatives", { site: site.id, id: chosen, body: { html, name } }),
    onSuccess: (kept) => {
      notify(`Kept ${kept.name} as a creative of ${kept.program.name}`);
      onKept();
    },
  });
  return (
    <form
      aria-label="Keep the snippet"
      className="flex flex-wrap items-end gap-2 rounded bg-wash p-2 text-sm"
      onSubmit={(event) => {
        event.preventDefault();
        keep.mutate();
      }}
    >
      <p className="w-full">
        A snippet with {snippet.kind === "banner" ? "a banner" : "a text link"}
        {snippet.leftOut.length > 0 ? `; ${snippet.leftOut.join(", ")} would be left out` : ""}.
      </p>
      <label className="grid">
        Called
        <input className="field w-56" value={name} onChange={(event) => setName(event.target.value)} />
      </label>
      <label className="grid">
        Of the program
        <select className="field w-auto" value={chosen} onChange={(event) => setChosen(event.target.value)}>
          <option value="">choose</option>
          {programs.data?.map(({ id, name: program }) => (
            <option key={id} value={id}>
              {program}
            </option>
          ))}
        </select>
      </label>
      <button className="action" disabled={chosen === "" || name.trim() === "" || keep.isPending}>
        Keep as a creative
      </button>
      {keep.isError ? (
        <p role="alert" className="w-full text-bad">
          {messageOf(keep.error)}
        </p>
      ) : null}
    </form>
  );
}
