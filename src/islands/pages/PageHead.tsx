import { ArrowLeft, ExternalLink } from "lucide-react";
import { useState } from "react";
import type { Site } from "../../core/sites/site.ts";
import { ChooseField } from "../../ui/form/choose-fields.tsx";
import { CheckField, TextField } from "../../ui/form/fields.tsx";
import { mayHere } from "../../ui/client/rights.ts";
import { Locked } from "../../ui/form/Locked.tsx";
import { LiveForm } from "../../ui/form/LiveForm.tsx";
import { useLiveForm } from "../../ui/form/use-live-form.ts";
import { useCategories } from "./known-pages.ts";
import { notify } from "../../ui/notices/notices.ts";
import { HistoryLink } from "../../ui/links/HistoryLink.tsx";
import { useTitle } from "../../ui/frame/use-title.ts";
import { PageState } from "../../ui/frame/PageState.tsx";
import { LeftBehind } from "./LeftBehind.tsx";
import { SearchFields } from "./search/SearchFields.tsx";
import { saidSearch, typedSearch } from "./search/search-typed.ts";
import { PlacementFields } from "./PlacementFields.tsx";
import type { Draft } from "./draft/use-draft.ts";
import { api, hrefOf, messageOf } from "../../ui/client/api.ts";
import { when } from "../../ui/format/format.ts";
import * as say from "./words.ts";

// Whoever came from a list goes back to it as it stood.
function BackTo({ site }: { site: Site }) {
  const back = new URLSearchParams(location.search).get("back");
  if (!back?.startsWith(`/${site.key}/`)) return null;
  return (
    <a className="inline-flex items-center gap-1 text-sm text-quiet hover:text-ink" href={back}>
      <ArrowLeft size={14} aria-hidden /> {say.backToThe} {back.split(/[/?]/)[2]}
    </a>
  );
}

/** Title, path, state and publication of the page that is being written. */
export function PageHead({ site, draft }: { site: Site; draft: Draft }) {
  const [open, setOpen] = useState(draft.fields.title === "Untitled");
  const { page, fields, fieldErrors } = draft;
  const mayWrite = mayHere({ role: "editor" });
  useTitle(fields.title);
  const { title, path, category, description, inNavigation, search } = fields;
  const form = useLiveForm({
    values: { title, path, category, description, inNavigation, search: typedSearch(search) },
    onChange: (_typed, { search: told, ...changed }) =>
      draft.edit({ ...changed, ...(told ? { search: saidSearch(told) } : {}) }),
  });
  return (
    <LiveForm of={form}>
      <header className="mb-2 lg:contents">
        <h1 className="sr-only">{title || say.aPageWithoutATitle}</h1>
        <BackTo site={site} />
        <div className="page-bar flex flex-wrap items-center gap-x-3 gap-y-1.5">
          <input
            readOnly={!mayWrite}
            aria-label={say.title}
            aria-invalid={fieldErrors.title ? true : undefined}
            className="min-w-48 flex-1 rounded border border-transparent bg-transparent py-0.5 text-xl font-semibold hover:border-line focus:bg-sheet focus:px-2"
            {...form.register("title")}
          />
          {mayWrite ? <SaveNote draft={draft} /> : null}
          <PageState page={page} />
          {page.status === "published" && page.kind === "page" ? (
            <a className="action" href={page.url} target="_blank" rel="noopener">
              {say.deliveredPage} <ExternalLink size={14} aria-hidden />
            </a>
          ) : null}
          <button className="action" aria-expanded={open} onClick={() => setOpen(!open)}>
            {page.kind === "page" ? say.aboutThisPage : say.whereItStands}
          </button>
          <button
            data-needs="editor"
            className="action action-main"
            disabled={
              draft.publishing || (page.status === "published" && !page.changed && draft.state === "saved")
            }
            onClick={draft.publish}
          >
            {say.publish}
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
            <Locked needs="editor">
              <PlacementFields
                site={site}
                placement={fields.placement}
                onChange={(placement) => draft.edit({ placement })}
              />
            </Locked>
            <div className="ml-auto">
              <span className="inline-flex items-center gap-3">
                <HistoryLink site={site} kind="page" object={page.id} />
                <DeletePage site={site} draft={draft} />
              </span>
            </div>
          </div>
        ) : null}
        {open && !fields.placement ? (
          <div className="mt-2 grid gap-3 rounded border border-line bg-sheet p-3 grid-cols-[minmax(0,1fr)] md:grid-cols-[2fr_1fr]">
            <Locked needs="editor">
              <TextField
                name="path"
                label={say.path}
                mono
                error={fieldErrors.path}
                hint={say.readersGetItAt(page.url)}
              />
              <Category site={site} error={fieldErrors.category} />
              <div className="md:col-span-2">
                <TextField name="description" label={say.description} error={fieldErrors.description} />
              </div>
            </Locked>
            <SearchFields site={site} page={page} errors={fieldErrors} />
            <div className="flex items-end justify-between gap-3 md:col-span-2">
              <div className="py-1.5">
                <Locked needs="editor">
                  <CheckField name="inNavigation">{say.inTheNavigation}</CheckField>
                </Locked>
              </div>
              <span className="flex items-center gap-2 text-sm">
                {say.exportAs}{" "}
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
                    {format === "html" ? say.html : say.markdown}
                  </a>
                ))}
              </span>
              {page.status === "published" ? (
                <button data-needs="editor" className="action action-plain" onClick={draft.unpublish}>
                  {say.unpublish}
                </button>
              ) : null}
              <span className="inline-flex items-center gap-3">
                <HistoryLink site={site} kind="page" object={page.id} />
                <DeletePage site={site} draft={draft} />
              </span>
            </div>
          </div>
        ) : null}
      </header>
    </LiveForm>
  );
}

function Category({ site, error }: { site: Site; error: string | undefined }) {
  return (
    <ChooseField name="category" label={say.category} isFree options={useCategories(site)} error={error} />
  );
}

function SaveNote({ draft }: { draft: Draft }) {
  const words = {
    saved: say.saved(when(draft.page.updatedAt)),
    waiting: say.writing,
    saving: say.saving,
    failed: say.notSavedYet,
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
    <button data-needs="editor" className="action action-plain text-bad" onClick={() => void remove()}>
      {say.deleteWord(draft.page.kind)}
    </button>
  );
}
