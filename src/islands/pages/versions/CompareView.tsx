import { useMutation, useQuery } from "@tanstack/react-query";
import { useMemo } from "react";
import { linkDifference, wordDifference } from "../../../core/text/difference.ts";
import type { RevisionFull } from "../../../core/pages/page.ts";
import type { Site } from "../../../core/sites/site.ts";
import { notify } from "../../../ui/notices/notices.ts";
import { useAddressState } from "../../../ui/client/url-state.ts";
import type { Draft } from "../draft/use-draft.ts";
import { asking, refresh } from "../../../ui/client/queries.ts";
import { LinkDifferences } from "./LinkDifferences.tsx";
import { api, messageOf } from "../../../ui/client/api.ts";
import { when } from "../../../ui/format/format.ts";
import * as say from "../words.ts";

/** The draft beside a version that was kept, the last published one first: words and links apart. */
export default function CompareView({ site, draft }: { site: Site; draft: Draft }) {
  const [chosen, setChosen] = useAddressState("with");
  const revisions = useQuery(
    asking("GET /sites/:site/pages/:id/revisions", { site: site.id, id: draft.page.id }),
  );
  const id =
    chosen ||
    revisions.data?.items.find(({ kind }) => kind === "published")?.id ||
    revisions.data?.items[0]?.id;
  const other = useQuery({
    ...asking("GET /sites/:site/pages/:id/revisions/:revision", {
      site: site.id,
      id: draft.page.id,
      revision: id ?? "",
    }),
    enabled: id !== undefined,
    staleTime: Infinity,
  });
  const restore = useMutation({
    mutationFn: async () => {
      if (!(await draft.saveNow())) throw new Error(say.notSaved);
      return api("POST /sites/:site/pages/:id/revisions/:revision/restore", {
        site: site.id,
        id: draft.page.id,
        revision: id ?? "",
        body: { version: draft.page.version },
      });
    },
    onSuccess: (page) => {
      draft.adopt(page);
      void refresh("GET /sites/:site/pages/:id/revisions");
      notify(say.thatVersionIsTheDraftAgainThe);
    },
    onError: (error) => notify(messageOf(error), { tone: "failed" }),
  });
  if (revisions.isError) return <p className="text-bad">{messageOf(revisions.error)}</p>;
  if (revisions.data?.items.length === 0) {
    return (
      <p className="rounded border border-dashed border-line p-10 text-center text-quiet">
        {say.nothingToCompareWithYetAVersion}
      </p>
    );
  }
  return (
    <div className="grid gap-4 grid-cols-[minmax(0,1fr)] lg:grid-cols-[15rem_minmax(0,1fr)]">
      <nav aria-label={say.keptVersions}>
        <ul className="grid gap-0.5">
          {revisions.data?.items.map((revision) => (
            <li key={revision.id}>
              <button
                aria-current={revision.id === id || undefined}
                className={`w-full rounded px-2 py-1 text-left text-sm ${revision.id === id ? "bg-wash" : "hover:bg-sheet"}`}
                onClick={() => setChosen(revision.id)}
              >
                <span className="font-medium">
                  {revision.kind === "published" ? say.published2 : say.keptDraft}
                </span>{" "}
                {when(revision.createdAt)}
                <span className="block text-quiet">{revision.createdBy}</span>
              </button>
            </li>
          ))}
        </ul>
      </nav>
      {other.data ? (
        <Difference draft={draft} other={other.data} restore={() => restore.mutate()} />
      ) : (
        <p className="text-quiet">{other.isError ? messageOf(other.error) : say.fetchingTheVersion}</p>
      )}
    </div>
  );
}

function Difference(props: { draft: Draft; other: RevisionFull; restore: () => void }) {
  const { draft, other } = props;
  const { html } = draft.page;
  const words = useMemo(() => wordDifference(other.html, html), [other.html, html]);
  const links = useMemo(() => linkDifference(other.html, html), [other.html, html]);
  const name = other.kind === "published" ? "published" : say.keptBesideIt;
  return (
    <div className="grid gap-4">
      <div className="flex flex-wrap items-center gap-3">
        <p>
          {say.fromWhatWasToTheDraft(
            name,
            when(other.createdAt),
            other.title === draft.fields.title ? "" : say.theTitleWas(other.title),
            other.path === draft.fields.path ? "" : say.thePathWas(other.path),
            words.every(({ change }) => change === "same") ? say.theWordsAreTheSame : say.wordsDifferAsMarked,
            linksInWords(links.length),
          )}
        </p>
        <button data-needs="editor" className="action ml-auto" onClick={props.restore}>
          {say.makeItTheDraftAgain}
        </button>
      </div>
      <section aria-labelledby="links-differ">
        <h2 id="links-differ" className="mb-1 font-semibold">
          {say.links}
        </h2>
        {links.length === 0 ? <p className="text-sm text-quiet">{say.noLinkDiffers}</p> : null}
        {links.length > 0 ? <LinkDifferences links={links} /> : null}
      </section>
      <section aria-labelledby="words-differ">
        <h2 id="words-differ" className="mb-1 font-semibold">
          {say.words}
        </h2>
        <div className="grid gap-3 grid-cols-[minmax(0,1fr)] md:grid-cols-2">
          <Side name={name[0]!.toUpperCase() + name.slice(1)} words={words} without="added" />
          <Side name="Draft" words={words} without="removed" />
        </div>
      </section>
    </div>
  );
}

function linksInWords(count: number): string {
  if (count === 0) return say.theLinksAreTheSame;
  return count === 1 ? say.oneLinkDiffers : say.linksDiffer(count);
}

function Side(props: {
  name: string;
  words: ReturnType<typeof wordDifference>;
  without: "added" | "removed";
}) {
  return (
    <div>
      <h3 className="text-sm text-quiet">{props.name}</h3>
      <div className="rounded border border-line bg-sheet p-3 leading-relaxed whitespace-pre-wrap">
        {props.words
          .filter(({ change }) => change !== props.without)
          .map(({ text, change }, index) =>
            change === "same" ? (
              <span key={index}>{text}</span>
            ) : change === "added" ? (
              <ins key={index} className="bg-good/15 text-good">
                {text}
              </ins>
            ) : (
              <del key={index} className="bg-bad/15 text-bad">
                {text}
              </del>
            ),
          )}
      </div>
    </div>
  );
}
