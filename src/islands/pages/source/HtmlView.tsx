import { setDiagnostics, type Diagnostic } from "@codemirror/lint";
import { openSearchPanel } from "@codemirror/search";
import { useCallback, useEffect, useMemo, useState } from "react";
import { findLinks } from "../../../core/links/find.ts";
import { rewriteLinks } from "../../../core/links/rewrite/rewrite.ts";
import type { Site } from "../../../core/sites/site.ts";
import { Rope } from "../rope/Rope.tsx";
import { useCheck } from "../rope/use-check.ts";
import { useJudge } from "../rope/use-delivered.ts";
import type { Draft } from "../draft/use-draft.ts";
import { laidOut } from "../../../core/pages/formats/lay-out.ts";
import { useSourceEditor } from "./use-source-editor.ts";
import type { RopeLink } from "../rope/rope-link.ts";
import * as say from "../words.ts";

/** The same page as source, with the same knots and checks in its margin. What is edited is saved as the draft. */
export default function HtmlView({ site, draft, html }: { site: Site; draft: Draft; html: () => string }) {
  const [begun] = useState(() => laidOut(html()));
  const { holder, view, source, changed } = useSourceEditor(begun, (now) => draft.edit({ html: now }));
  const [chosen, setChosen] = useState<number>();
  const [tops, setTops] = useState<readonly number[]>([]);

  const links = useMemo(() => findLinks(source), [source]);
  const addresses = useMemo(() => links.map(({ href }) => href), [links]);
  const judging = useJudge(site, draft.fields, addresses);
  const follow = useCallback(
    (listener: () => void) => {
      changed.current.add(listener);
      return () => void changed.current.delete(listener);
    },
    [changed],
  );
  const { findings } = useCheck(site, draft.fields, judging, follow, () => ({
    html: view.current?.state.doc.toString() ?? source,
  }));

  useEffect(() => {
    const editor = view.current;
    if (!editor) return;
    const measure = (): void => {
      const end = editor.state.doc.length;
      setTops(links.map(({ tag }) => editor.lineBlockAt(Math.min(tag.start, end)).top));
    };
    measure();
    const observer = new ResizeObserver(measure);
    observer.observe(editor.contentDOM);
    return () => observer.disconnect();
  }, [view, links]);

  useEffect(() => {
    const editor = view.current;
    if (!editor || editor.state.doc.toString() !== source) return;
    const diagnostics = findings.map((finding): Diagnostic => {
      const tag = finding.link === null ? undefined : links[finding.link]?.tag;
      return {
        from: tag?.start ?? 0,
        to: tag?.end ?? 0,
        severity: finding.severity === "fault" ? "error" : "warning",
        message: `${finding.message} ${finding.why}`,
      };
    });
    editor.dispatch(setDiagnostics(editor.state, diagnostics));
  }, [view, findings, links, source]);

  const show = (index: number): void => {
    setChosen(index);
    const editor = view.current;
    const tag = links[index]?.tag;
    if (!editor || !tag) return;
    editor.focus();
    editor.dispatch({ selection: { anchor: tag.start, head: tag.end }, scrollIntoView: true });
  };
  const setAddress = (index: number, href: string): void => {
    const link = links[index];
    const editor = view.current;
    // While somebody types, the tags are not where they were found; they are looked for again in a moment.
    if (!link || !editor || editor.state.doc.toString() !== source) return;
    const { start, end } = link.tag;
    const text = rewriteLinks(source.slice(start, end), ({ rel, target }) => ({ rel, target, href }), {
      keepOverride: true,
    });
    editor.dispatch({ changes: { from: start, to: end, insert: text } });
  };
  const knots = links.map((link, index): RopeLink => ({
    key: String(index),
    top: tops[index] ?? 0,
    words: link.words,
    href: link.href,
    override: link.override,
    delivered: judging.judge({
      href: link.href,
      rel: link.rel,
      target: link.target,
      override: link.override,
      anchor: link.anchor,
    }),
    findings: findings.filter((finding) => finding.link === index),
  }));
  const { dropped } = draft.page;
  return (
    <div className="beside-rope">
      <div className="rope-tools">
        <p className="flex h-[38px] items-center gap-3 text-sm text-quiet">
          {say.whatYouChangeIsSavedAsThe}
          <button
            className="action"
            onClick={() => view.current && openSearchPanel(view.current)}
            aria-keyshortcuts="Control+F"
          >
            {say.find} <kbd className="font-mono text-xs text-quiet">Ctrl F</kbd>
          </button>
        </p>
        {dropped && dropped.length > 0 ? (
          <p role="status" className="mb-2 rounded border border-warn bg-sheet p-2 text-sm text-warn">
            {say.theLastSaveLeftOut(dropped.join("; "))}
          </p>
        ) : null}
      </div>
      <section
        aria-label={say.source}
        ref={holder}
        className="source rope-text overflow-hidden rounded border border-line bg-sheet"
      />
      <Rope
        links={knots}
        chosen={chosen}
        panel={null}
        panelTop={0}
        empty={say.noLinksInThisSourceYet}
        onChoose={show}
        onFix={(index, fix) => {
          if (fix.do === "address") setAddress(index, fix.address);
          else show(index);
        }}
      />
    </div>
  );
}
