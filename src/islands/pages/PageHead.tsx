import { ArrowLeft, ExternalLink } from "lucide-react";
import { useState } from "react";
import type { Site } from "../../core/sites/site.ts";
import { FieldRow } from "../../ui/fields/FieldRow.tsx";
import { notify } from "../../ui/notices/notices.ts";
import { when } from "../../ui/format/when.ts";
import { PageState } from "../../ui/frame/PageState.tsx";
import { LeftBehind } from "./LeftBehind.tsx";
import { PlacementFields } from "./PlacementFields.tsx";
import type { Draft } from "./draft/use-draft.ts";
import { api, hrefOf, messageOf } from "../../ui/client/api.ts";

// Whoever came from a list goes back to it as it stood.
function BackTo({ site }: { site: Site }) {
  const back = new URLSearchParams(location.search).get("back");
  if (!back?.startsWith(`/${site.key}/`)) return null;
  return (
    <a className="inline-flex items-center gap-1 text-sm text-quiet hover:text-ink" href={back}>
      <ArrowLeft size={14} aria-hidden /> Back to the {back.split(/[/?]/)[2]}
    </a>
  );
}

/** Title, path, state and publication of the page that is being written. */
export function PageHead({ site, draft }: { site: Site; draft: Draft }) {
  const [open, setOpen] = useState(draft.fields.title === "Untitled");
  const { page, fields, fieldErrors } = draft;
  return (
    <header className="mb-2">
      <BackTo site={site} />
      <div className="flex flex-wrap items-center gap-x-3 gap-y-1.5">
        <input
          aria-label="Title"
          aria-invalid={fieldErrors.title ? true : undefined}
          className="min-w-48 flex-1 rounded border border-transparent bg-transparent py-0.5 text-xl font-semibold hover:border-line focus:bg-sheet focus:px-2"
          value={fields.title}
          onChange={(event) => draft.edit({ title: event.target.value })}
        />
        <SaveNote draft={draft} />
        <PageState page={page} />
        {page.status === "published" && page.kind === "page" ? (
          <a className="action" href={page.url} target="_blank" rel="noopener">
            Delivered page <ExternalLink size={14} aria-hidden />
          </a>
        ) : null}
        <button className="action" aria-expanded={open} onClick={() => setOpen(!open)}>
          {page.kind === "page" ? "About this page" : "Where it stands"}
        </button>
        <button
          className="action action-main"
          disabled={
            draft.publishing || (page.status === "published" && !page.changed && draft.state === "saved")
          }
          onClick={draft.publish}
        >
          Publish
        </button>
      </div>
      {draft.failure && !draft.conflict ? (
        <p role="alert" className="mt-1 text-bad">
          {draft.failure}
        </p>
      ) : null}
      {draft.left ? <LeftBehind site={site} left={draft.left} onDone={draft.forgetLeft} /> : null}
      {open && fields.placement ? (
        <div className="mt-2 flex flex-wrap items-end gap-3 rounded border border-line bg-sheet p-3">
          <PlacementFields placement={fields.placement} onChange={(placement) => draft.edit({ placement })} />
          <div className="ml-auto">
            <DeletePage site={site} draft={draft} />
          </div>
        </div>
      ) : null}
      {open && !fields.placement ? (
        <div className="mt-2 grid gap-3 rounded border border-line bg-sheet p-3 md:grid-cols-[2fr_1fr]">
          <FieldRow label="Path" error={fieldErrors.path} hint={`Readers get it at ${page.url}`}>
            {(attributes) => (
              <input
                {...attributes}
                className="field font-mono text-sm"
                value={fields.path}
                onChange={(event) => draft.edit({ path: event.target.value })}
              />
            )}
          </FieldRow>
          <FieldRow label="Category" error={fieldErrors.category}>
            {(attributes) => (
              <input
                {...attributes}
                className="field"
                value={fields.category}
                onChange={(event) => draft.edit({ category: event.target.value })}
              />
            )}
          </FieldRow>
          <FieldRow label="Description" error={fieldErrors.description}>
            {(attributes) => (
              <input
                {...attributes}
                className="field"
                value={fields.description}
                onChange={(event) => draft.edit({ description: event.target.value })}
              />
            )}
          </FieldRow>
          <div className="flex items-end justify-between gap-3">
            <label className="flex items-center gap-2 py-1.5">
              <input
                type="checkbox"
                checked={fields.inNavigation}
                onChange={(event) => draft.edit({ inNavigation: event.target.checked })}
              />{" "}
              In the navigation
            </label>
            <span className="flex items-center gap-2 text-sm">
              Take it out as{" "}
              {(["html", "markdown"] as const).map((format) => (
                <a
                  key={format}
                  className="text-accent underline"
                  download
                  href={hrefOf("GET /sites/:site/export", {
                    site: site.id,
                    query: { format, page: page.id },
                  })}
                >
                  {format === "html" ? "HTML" : "Markdown"}
                </a>
              ))}
            </span>
            {page.status === "published" ? (
              <button className="action action-plain" onClick={draft.unpublish}>
                Take back from readers
              </button>
            ) : null}
            <DeletePage site={site} draft={draft} />
          </div>
        </div>
      ) : null}
    </header>
  );
}

function SaveNote({ draft }: { draft: Draft }) {
  const words = {
    saved: `Saved ${when(draft.page.updatedAt)}`,
    waiting: "Writing…",
    saving: "Saving…",
    failed: "Not saved yet",
  }[draft.state];
  return (
    <span role="status" className={`text-sm ${draft.state === "failed" ? "text-bad" : "text-quiet"}`}>
      {words}
    </span>
  );
}

function DeletePage({ site, draft }: { site: Site; draft: Draft }) {
  const remove = async (): Promise<void> => {
    try {
      await api("DELETE /sites/:site/pages/:id", { site: site.id, id: draft.page.id });
      sessionStorage.setItem(
        "maprope:deleted-page",
        JSON.stringify({
          id: draft.page.id,
          title: draft.page.title,
          path:
            draft.page.status === "published" && draft.page.kind === "page"
              ? new URL(draft.page.url).pathname
              : null,
        }),
      );
      location.assign(`/${site.key}/${draft.page.kind === "block" ? "blocks" : "pages"}`);
    } catch (error) {
      notify(messageOf(error), { tone: "failed" });
    }
  };
  return (
    <button className="action action-plain text-bad" onClick={() => void remove()}>
      Delete {draft.page.kind}
    </button>
  );
}
