import { EditorContent, useEditorState, type Editor } from "@tiptap/react";
import { NodeSelection } from "@tiptap/pm/state";
import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import { admitted } from "../../core/address/gate.ts";
import { looksLikeAddress } from "../../core/address/repair/repair.ts";
import { headingAnchors } from "../../core/pages/body/headings.ts";
import { bodyToHtml } from "../../core/pages/body/to-html.ts";
import type { Fix } from "../../core/pages/check/finding.ts";
import { findLinks } from "../../core/links/find.ts";
import { pictureAddresses } from "../../core/links/pictures.ts";
import type { Site } from "../../core/sites/site.ts";
import {
  applyLink,
  linkAtSelection,
  pictureAtSelection,
  putCreative,
  takeOffLink,
} from "./compose/editor-links.ts";
import { fixInText } from "./compose/snippets/fix-in-text.ts";
import { useComposing } from "./compose/use-composing.ts";
import { isSnippet, useSnippets } from "./compose/snippets/use-snippets.ts";
import { PageFindings } from "./PageFindings.tsx";
import { Uploads } from "./picture/Uploads.tsx";
import { useUploads } from "./picture/use-uploads.ts";
import { heightOf, Rope } from "./rope/Rope.tsx";
import { useCheck } from "./rope/use-check.ts";
import { useJudge } from "./rope/use-delivered.ts";
import { onTextChange, useRope, type KnotAt } from "./rope/use-rope.ts";
import { later } from "../../ui/frame/later.tsx";
import { notify } from "../../ui/notices/notices.ts";
import { TextTools } from "./TextTools.tsx";
import type { Draft } from "./draft/use-draft.ts";
import type { RopeLink } from "./rope/rope-link.ts";
import * as say from "./words.ts";

const LinkComposer = later(async () => (await import("./compose/LinkComposer.tsx")).LinkComposer);
const PicturePanel = later(async () => (await import("./picture/PicturePanel.tsx")).PicturePanel);
const SnippetReport = later(async () => (await import("./compose/snippets/SnippetReport.tsx")).SnippetReport);

/** The text as it is written, with the rope beside it. */
export function TextView(props: { site: Site; draft: Draft; editor: Editor }) {
  const { site, draft, editor } = props;
  const column = useRef<HTMLDivElement>(null);
  const { composing, openComposer, compose, endComposing } = useComposing(editor, column);
  const [chosen, setChosen] = useState<number>();
  const { uploads, add, dismiss } = useUploads(site);
  const snippets = useSnippets(site);
  const knots = useRope(editor, column);
  const addresses = useMemo(() => knots.map(({ link }) => link.href), [knots]);
  const judging = useJudge(site, draft.fields, addresses);
  const follow = useCallback((changed: () => void) => onTextChange(editor, changed), [editor]);
  const { findings } = useCheck(site, draft.fields, judging, follow, () => ({ body: editor.getJSON() }));
  const picture = usePicture(editor, column.current);

  // From the words to their knot, as a click on the knot goes to the words.
  useEffect(() => {
    const mark = (): void => {
      const { from } = editor.state.selection;
      const index = knots.findIndex((knot) => from >= knot.from && from < knot.to);
      setChosen(index === -1 ? undefined : index);
    };
    editor.on("selectionUpdate", mark);
    return () => void editor.off("selectionUpdate", mark);
  }, [editor, knots]);
  // Whoever goes into the text may want to link the next moment: what they then type belongs to the composer.
  useEffect(() => {
    editor.on("focus", LinkComposer.fetchSoon);
    return () => void editor.off("focus", LinkComposer.fetchSoon);
  }, [editor]);
  // Written out once, when the composer opens.
  const headings = useMemo(
    () => (composing ? headingAnchors(bodyToHtml(editor.getJSON())) : []),
    [editor, composing],
  );
  useTextKeys(compose);
  usePasteAndDrop(editor, { compose, takeSnippet: snippets.take, addFiles: add });

  const choose = (index: number): void => {
    const knot = knots[index];
    if (!knot) return;
    setChosen(index);
    select(editor, knot);
    openComposer(linkAtSelection(editor, column.current));
  };
  const applyFix = (index: number, step: Fix): void => {
    const knot = knots[index];
    if (!knot) return;
    if (step.do === "open") return choose(index);
    fixInText(editor, knot, step);
  };
  const close = (): void => {
    endComposing();
    // At once: what is typed next belongs to the text, and the editor's own command waits for the next frame.
    editor.view.focus();
  };
  useNamedLink(knots.length, choose);
  const links = useMemo(
    () =>
      knots.map((knot, index): RopeLink => ({
        key: `${knot.from}-${knot.link.href}`,
        top: knot.top,
        words: knot.words,
        href: knot.link.href,
        override: knot.link.override,
        delivered: judging.judge({ ...knot.link, anchor: knot.picture ? "image" : "text" }),
        findings: findings.filter(({ link }) => link === index),
      })),
    [knots, judging, findings],
  );
  const panel = composing ? (
    <LinkComposer
      key={composing.opening}
      site={site}
      at={composing}
      page={draft.fields}
      pageId={draft.page.id}
      save={draft.saveNow}
      headings={headings}
      onCreative={(chosen) => {
        if (composing.gone) return;
        putCreative(editor, composing, chosen);
        close();
      }}
      onSet={(link) => {
        if (composing.gone) return;
        applyLink(editor, composing, link);
        close();
      }}
      onRemove={() => {
        if (composing.gone) return;
        takeOffLink(editor, composing);
        close();
      }}
      onClose={close}
    />
  ) : picture ? (
    <PicturePanel
      editor={editor}
      at={picture.at}
      attributes={picture.attributes as never}
      onLink={() => compose()}
      onClose={() => editor.commands.setTextSelection(picture.at + 1)}
    />
  ) : null;
  return (
    <>
      <div className="text-tools">
        <TextTools
          editor={editor}
          compose={() => compose()}
          addFiles={(files) => add(editor, files)}
          takeSnippet={(html) => snippets.take(editor, html)}
        />
      </div>
      <div className="beside-rope">
        <div className="rope-tools">
          <Uploads uploads={uploads} dismiss={dismiss} />
          {snippets.report ? <SnippetReport report={snippets.report} onClose={snippets.close} /> : null}
          <PageFindings site={site} findings={findings} onOpen={choose} />
        </div>
        <section
          aria-label={say.text}
          ref={column}
          className="rope-text relative rounded border border-line bg-sheet"
        >
          <EditorContent editor={editor} />
        </section>
        <Rope
          links={links}
          chosen={chosen}
          panel={panel}
          panelTop={composing?.top ?? (picture ? picture.top + knotBeside(links, knots, picture.at) : 0)}
          empty={say.noLinksYetMarkWordsInThe}
          onChoose={choose}
          onFix={applyFix}
        />
      </div>
    </>
  );
}

/** Opens the link that the screen's address names (`link`: its place in the text), once the text is there. */
function useNamedLink(count: number, choose: (index: number) => void): void {
  const named = useRef(new URLSearchParams(location.search).get("link"));
  useEffect(() => {
    if (named.current === null || count === 0) return;
    const index = Number(named.current);
    named.current = null;
    choose(index);
  }, [count, choose]);
}

// A picture's panel leaves its knot, and what is said of it, to be seen.
function knotBeside(links: readonly RopeLink[], knots: readonly KnotAt[], at: number): number {
  const index = knots.findIndex(({ from }) => from === at);
  return index === -1 ? 0 : heightOf(links[index]!);
}

function select(editor: Editor, knot: KnotAt): void {
  if (knot.picture) editor.chain().setNodeSelection(knot.from).scrollIntoView().run();
  else editor.chain().setTextSelection({ from: knot.from, to: knot.to }).scrollIntoView().run();
}

/** The picture that is selected, with its place; undefined while words are. */
function usePicture(editor: Editor, column: HTMLElement | null) {
  const picture = useEditorState({
    editor,
    selector: ({ editor: now }) => {
      const found = pictureAtSelection(now);
      return found ? { at: found.at, attributes: found.node.attrs } : undefined;
    },
  });
  if (!picture) return undefined;
  const shown = editor.view.nodeDOM(picture.at) as HTMLElement | null;
  const top = (shown?.getBoundingClientRect().top ?? 0) - (column?.getBoundingClientRect().top ?? 0);
  return { ...picture, top };
}

/** Ctrl K composes, Alt with the arrows walks along the rope; the paste field hands addresses over. */
function useTextKeys(compose: (address?: string) => void): void {
  useEffect(() => {
    const insert = (event: Event): void => compose((event as CustomEvent<string>).detail);
    const key = (event: KeyboardEvent): void => {
      if (event.altKey && !event.ctrlKey && (event.key === "ArrowDown" || event.key === "ArrowUp")) {
        const name = event.key === "ArrowDown" ? "Alt+ArrowDown" : "Alt+ArrowUp";
        event.preventDefault();
        document.querySelector<HTMLElement>(`[aria-keyshortcuts="${name}"]`)?.click();
      }
      if (!(event.ctrlKey || event.metaKey) || event.altKey || event.key.toLowerCase() !== "k") return;
      event.preventDefault();
      // A selection made by the key before reaches the editor with one of the browser's next turns.
      requestAnimationFrame(() => setTimeout(compose, 0));
    };
    addEventListener("maprope:insert", insert);
    addEventListener("keydown", key);
    document.documentElement.dataset.writing = "yes";
    return () => {
      removeEventListener("maprope:insert", insert);
      removeEventListener("keydown", key);
      delete document.documentElement.dataset.writing;
    };
  }, [compose]);
}

/** Files are uploaded, partners' snippets are read, and an address pasted over marked words opens the composer with it. */
function usePasteAndDrop(
  editor: Editor,
  does: {
    compose: (address: string) => void;
    takeSnippet: (editor: Editor, html: string) => void;
    addFiles: (editor: Editor, files: readonly File[], at?: number) => void;
  },
): void {
  const doing = useRef(does);
  useEffect(() => {
    doing.current = does;
  });
  useEffect(() => {
    editor.setOptions({
      editorProps: {
        ...editor.options.editorProps,
        handlePaste: (view, event) => {
          const files = [...(event.clipboardData?.files ?? [])];
          if (files.length > 0) {
            doing.current.addFiles(editor, files);
            return true;
          }
          const text = event.clipboardData?.getData("text/plain") ?? "";
          if (isSnippet(text)) {
            doing.current.takeSnippet(editor, text);
            return true;
          }
          const { selection } = view.state;
          const isMarked = !selection.empty || selection instanceof NodeSelection;
          if (!isMarked || !looksLikeAddress(text.trim()) || /\s/.test(text.trim())) {
            tellLeftOut(event.clipboardData?.getData("text/html") ?? "");
            return false;
          }
          doing.current.compose(text.trim());
          return true;
        },
        handleClickOn: (view, _at, node, position, event) => {
          if (node.type.name !== "image" || !(event.target instanceof HTMLImageElement)) return false;
          view.dispatch(view.state.tr.setSelection(NodeSelection.create(view.state.doc, position)));
          return true;
        },
        handleDrop: (view, event) => {
          const files = [...(event.dataTransfer?.files ?? [])];
          if (files.length === 0) return false;
          event.preventDefault();
          doing.current.addFiles(
            editor,
            files,
            view.posAtCoords({ left: event.clientX, top: event.clientY })?.pos,
          );
          return true;
        },
      },
    });
  }, [editor]);
}

const MAX_LOOKED_AT = 2_000_000;

// The text's own gate leaves such addresses out when it takes the words in; whoever pasted them is told.
function tellLeftOut(html: string): void {
  if (html.length > MAX_LOOKED_AT) return;
  const links = findLinks(html).filter(({ href }) => admitted(href, "link") === undefined);
  const pictures = pictureAddresses(html).filter((src) => admitted(src, "picture") === undefined);
  const left = [...links.map(({ href }) => href), ...pictures].map((one) => one.trim().slice(0, 60));
  if (left.length === 0) return;
  const shown = [...new Set(left)]
    .slice(0, 3)
    .map((one) => `“${one}”`)
    .join(", ");
  notify(
    say.leftOutNowhereForReadersTheWords(
      left.length === 1 ? say.anAddressThatLeads : say.addressesThatLead(left.length),
      shown,
    ),
  );
}
