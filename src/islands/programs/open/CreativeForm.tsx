import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import type { Creative } from "../../../core/creatives/creative.ts";
import type { Site } from "../../../core/sites/site.ts";
import { FieldRow } from "../../../ui/fields/FieldRow.tsx";
import { notify } from "../../../ui/notices/notices.ts";
import { ChangePreview } from "../../ledger/many/ChangePreview.tsx";
import { undoChange } from "../../ledger/many/use-change.ts";
import { SnippetReading, useSnippetReading } from "./SnippetReading.tsx";
import { api, messageOf, ApiProblem } from "../../../ui/client/api.ts";

/** A snippet as it is kept, new or over the one that it was; places that use it follow, after a look at what changes. */
export function CreativeForm(props: {
  site: Site;
  /** The program that the creative is of. */
  program: string;
  creative?: Creative;
  onDone: () => void;
}) {
  const { site, program, creative, onDone } = props;
  const [name, setName] = useState(creative?.name ?? "");
  const [html, setHtml] = useState(creative?.html ?? "");
  const [published, setPublished] = useState(false);
  const reading = useSnippetReading(html);
  const suggested = reading?.ok
    ? (reading.snippet.words || reading.snippet.picture?.alt || "").slice(0, 120)
    : "";
  const called = name || suggested;
  const look = useMutation({
    mutationFn: async () => {
      const action = { do: "creative" as const, creative: creative?.id ?? "", html };
      return api("POST /sites/:site/links/bulk", {
        site: site.id,
        body: { action, published, routes: false, dryRun: true },
      });
    },
  });
  const keep = useMutation({
    mutationFn: async () => {
      if (!creative) {
        const kept = await api("POST /sites/:site/programs/:id/creatives", {
          site: site.id,
          id: program,
          body: { name: called, html },
        });
        return notify(`Kept ${kept.name}`);
      }
      const at = { site: site.id, id: creative.id };
      const body = { name: called, html, version: creative.version, published };
      const changed = await api("PUT /sites/:site/creatives/:id", { ...at, body });
      const { places } = changed;
      const undo = async (): Promise<void> => {
        if (places.batch !== null) await undoChange(site, places.batch);
        const before = { name: creative.name, html: creative.html, version: changed.creative.version };
        await api("PUT /sites/:site/creatives/:id", { ...at, body: before });
        onDone();
      };
      notify(
        `Changed ${called}${places.links > 0 ? `; ${places.links} ${places.links === 1 ? "place follows" : "places follow"}` : ""}`,
        {
          undo: () => void undo().catch((error: unknown) => notify(messageOf(error), { tone: "failed" })),
        },
      );
    },
    onSuccess: () => {
      setName("");
      setHtml("");
      onDone();
    },
  });
  const error = keep.error ?? look.error;
  const fault = (field: string): string | undefined =>
    error instanceof ApiProblem ? error.errors.find(({ path: at }) => at === field)?.message : undefined;
  const isUsed = creative !== undefined && creative.uses.length > 0;
  return (
    <form
      aria-label={creative ? `Change ${creative.name}` : "New creative"}
      className="grid gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        keep.mutate();
      }}
    >
      <FieldRow
        label="Snippet"
        error={fault("html") ?? (reading && !reading.ok ? reading.reason : undefined)}
        hint="Where the program leaves a place for your account, write {id}; for the label of the place, {sub}."
      >
        {(attributes) => (
          <textarea
            {...attributes}
            rows={3}
            className="field font-mono text-sm"
            value={html}
            onChange={(event) => setHtml(event.target.value)}
          />
        )}
      </FieldRow>
      {reading?.ok ? (
        <SnippetReading
          snippet={reading.snippet}
          onReplace={(placeholder, by) => setHtml(html.replaceAll(placeholder, by))}
        />
      ) : null}
      <div className="flex flex-wrap items-end gap-2">
        <div className="grow">
          <FieldRow label="Called" error={fault("name")}>
            {(attributes) => (
              <input
                {...attributes}
                className="field"
                placeholder={suggested}
                value={name}
                onChange={(event) => setName(event.target.value)}
              />
            )}
          </FieldRow>
        </div>
        {isUsed ? (
          <button
            type="button"
            className="action action-plain"
            disabled={look.isPending}
            onClick={() => look.mutate()}
          >
            See what changes
          </button>
        ) : null}
        <button className="action" disabled={keep.isPending || html.trim() === "" || called.trim() === ""}>
          {creative ? "Change it" : "Keep it"}
        </button>
        {creative ? (
          <button type="button" className="action action-plain" onClick={onDone}>
            Leave it
          </button>
        ) : null}
      </div>
      {isUsed ? (
        <label className="flex items-center gap-1.5 text-sm">
          <input
            type="checkbox"
            checked={published}
            onChange={(event) => setPublished(event.target.checked)}
          />
          Its {creative.uses.length === 1 ? "place follows" : `${creative.uses.length} places follow`} in
          drafts; in what readers get, too
        </label>
      ) : null}
      {look.data ? <ChangePreview answer={look.data} /> : null}
      {error && !fault("html") && !fault("name") ? (
        <p role="alert" className="text-bad">
          {messageOf(error)}
        </p>
      ) : null}
    </form>
  );
}
