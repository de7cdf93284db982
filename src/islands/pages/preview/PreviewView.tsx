import { useQuery } from "@tanstack/react-query";
import { useCallback, useEffect, useMemo, useState } from "react";
import { findLinks, type LinkInHtml } from "../../../core/links/find.ts";
import type { Site } from "../../../core/sites/site.ts";
import { otherAnswer } from "../../../core/rules/why.ts";
import { Choice } from "../../../ui/fields/Choice.tsx";
import { KIND_WORD, Knot } from "../../../ui/links/Knot.tsx";
import { WhyList } from "../../../ui/links/WhyList.tsx";
import { useAddressState } from "../../../ui/client/url-state.ts";
import { useJudge, type DeliveredLink } from "../rope/use-delivered.ts";
import type { Draft } from "../draft/use-draft.ts";
import { MarkedSource, type TagPair } from "./MarkedSource.tsx";
import { api, hrefOf, messageOf } from "../../../ui/client/api.ts";
import * as say from "../words.ts";

/** The page as a reader gets it, in the site's look, and beside it the HTML that is delivered. */
export default function PreviewView({ site, draft }: { site: Site; draft: Draft }) {
  const [shown, setShown] = useAddressState("of");
  const isDraft = shown !== "published" || draft.page.status === "draft";
  const flag = isDraft ? "1" : "0";
  const asked = { site: site.id, id: draft.page.id, query: { draft: flag } };
  const stored = useQuery({
    queryKey: ["stored", draft.page.id, flag, draft.page.version, draft.page.publishedAt],
    queryFn: async () => (isDraft ? draft.page.html : await publishedHtml(site, draft.page.id)),
  });
  const delivered = useQuery({
    queryKey: ["delivered", draft.page.id, flag, draft.page.version, draft.page.publishedAt],
    queryFn: () => api("GET /sites/:site/pages/:id/delivered", asked),
  });
  const [pointed, setPointed] = useState<Pointed>();
  const written = useMemo(() => findLinks(stored.data ?? ""), [stored.data]);
  const addresses = useMemo(
    () => [...written.map(({ href }) => href), ...(pointed ? [pointed.href] : [])],
    [written, pointed],
  );
  const { judge } = useJudge(site, draft.fields, addresses);
  const frame = useFrameLinks(setPointed);
  if (stored.isError || delivered.isError)
    return <p className="text-bad">{messageOf(stored.error ?? delivered.error)}</p>;
  return (
    <div className="grid grow gap-3 grid-cols-[minmax(0,1fr)] lg:grid-cols-2">
      <section aria-label={say.asAReaderGetsIt} className="flex min-h-[70vh] flex-col">
        <div className="flex h-[38px] items-center gap-3">
          <span className="shrink-0">
            <Choice
              label={say.whichVersion}
              value={isDraft ? "draft" : "published"}
              options={[
                { value: "draft", word: say.draft2 },
                ...(draft.page.status === "published"
                  ? [{ value: "published" as const, word: say.published2 }]
                  : []),
              ]}
              onChange={setShown}
            />
          </span>
          <LinkEnd judged={pointed && judge({ href: pointed.href })} href={pointed?.href} />
        </div>
        <iframe
          ref={frame}
          key={`${flag} ${draft.page.version}`}
          title={say.thePageAsAReaderGetsIt}
          className="w-full grow rounded border border-line bg-sheet"
          sandbox="allow-same-origin"
          src={hrefOf("GET /sites/:site/pages/:id/document", asked)}
        />
      </section>
      <section aria-label={say.deliveredHtml} className="min-w-0">
        <p className="flex h-[38px] items-center text-sm text-quiet">
          {say.deliveredHtml2} <mark className="mx-1 bg-wash px-1 text-ink">{say.relAndTarget}</mark>{" "}
          {say.areMarkedAndBelowEachLinkThat}
        </p>
        {pointed?.index !== undefined && written[pointed.index] ? (
          <Why link={written[pointed.index]!} judged={judge(written[pointed.index]!)} />
        ) : null}
        {delivered.data !== undefined && stored.data !== undefined ? (
          <MarkedSource html={delivered.data} pairs={pairsOf(stored.data, delivered.data)} />
        ) : (
          <p className="text-quiet">{say.fetching}</p>
        )}
      </section>
    </div>
  );
}

// Delivery neither adds nor takes links of the text, so the two lists run side by side.
function pairsOf(stored: string, delivered: string): TagPair[] {
  const before = findLinks(stored);
  return findLinks(delivered).map((link, index) => ({
    start: link.tag.start,
    end: link.tag.end,
    stored: before[index] ? stored.slice(before[index].tag.start, before[index].tag.end) : "",
  }));
}

async function publishedHtml(site: Site, id: string): Promise<string> {
  const { items } = await api("GET /sites/:site/pages/:id/revisions", { site: site.id, id });
  const newest = items.find(({ kind }) => kind === "published");
  return newest
    ? (
        await api("GET /sites/:site/pages/:id/revisions/:revision", {
          site: site.id,
          id,
          revision: newest.id,
        })
      ).html
    : "";
}

/** A link inside the frame: its address, and its place among the links of the text, where it is one of those. */
interface Pointed {
  href: string;
  index: number | undefined;
}

/** Tells of the link that the pointer or the keyboard is on inside the frame. */
function useFrameLinks(point: (link: Pointed) => void) {
  const [frame, setFrame] = useState<HTMLIFrameElement | null>(null);
  const ref = useCallback((element: HTMLIFrameElement | null) => setFrame(element), []);
  useEffect(() => {
    if (!frame) return;
    const look = (event: Event): void => {
      const link = (event.target as Element | null)?.closest?.("a[href]");
      if (!link) return;
      const ofText = [...link.ownerDocument.querySelectorAll(".body a[href]")].indexOf(link);
      point({ href: link.getAttribute("href") ?? "", index: ofText === -1 ? undefined : ofText });
    };
    const stay = (event: Event): void => {
      if ((event.target as Element).closest("a[href]")) event.preventDefault();
    };
    const listen = (): void => {
      const inside = frame.contentDocument;
      for (const name of ["mouseover", "focusin"]) inside?.addEventListener(name, look);
      inside?.addEventListener("click", stay);
    };
    listen();
    frame.addEventListener("load", listen);
    return () => frame.removeEventListener("load", listen);
  }, [frame, point]);
  return ref;
}

function Why({ link, judged }: { link: LinkInHtml; judged: DeliveredLink | undefined }) {
  return (
    <section
      aria-label={say.whyIsDeliveredSo(link.words)}
      className="mb-2 rounded border border-line bg-sheet p-2"
    >
      {judged ? (
        <WhyList trace={judged.resolved.trace.map((one) => ({ ...one, change: otherAnswer(one) }))} />
      ) : (
        "…"
      )}
    </section>
  );
}

function LinkEnd({ judged, href }: { judged: DeliveredLink | undefined; href: string | undefined }) {
  if (href === undefined) return <p className="text-sm text-quiet">{say.pointAtALinkOrTabTo}</p>;
  return (
    <p role="status" className="flex min-w-0 items-center gap-1.5 text-sm">
      {judged ? <Knot kind={judged.kind} size={14} /> : null}
      <span className="shrink-0">{judged ? KIND_WORD[judged.kind] : "…"}</span>
      <span className="truncate font-mono text-xs">{judged?.ends ?? href}</span>
    </p>
  );
}
