import type { Editor } from "@tiptap/react";
import { useEffect, useState, type RefObject } from "react";
import type { LinkAttributes } from "./editor-links.ts";

/** A link in the text, and how far down the column its words stand, in pixels. */
export interface KnotAt {
  from: number;
  to: number;
  words: string;
  link: LinkAttributes;
  top: number;
}

/** The links of the text with their places, following edits and changes of width. */
export function useRope(editor: Editor | null, column: RefObject<HTMLElement | null>): KnotAt[] {
  const [knots, setKnots] = useState<KnotAt[]>([]);
  useEffect(() => {
    if (!editor) return;
    let frame = 0;
    const measure = (): void => {
      cancelAnimationFrame(frame);
      frame = requestAnimationFrame(() => setKnots(readKnots(editor, column.current)));
    };
    measure();
    editor.on("update", measure);
    const observer = new ResizeObserver(measure);
    observer.observe(editor.view.dom);
    void document.fonts.ready.then(measure);
    return () => {
      cancelAnimationFrame(frame);
      editor.off("update", measure);
      observer.disconnect();
    };
  }, [editor, column]);
  return knots;
}

function readKnots(editor: Editor, column: HTMLElement | null): KnotAt[] {
  if (editor.isDestroyed || !column) return [];
  const origin = column.getBoundingClientRect().top;
  const knots: KnotAt[] = [];
  editor.state.doc.descendants((node, position) => {
    const mark = node.marks.find(({ type }) => type.name === "link");
    if (!mark) return;
    const words = node.isText ? (node.text ?? "") : ((node.attrs.alt as string | null) ?? "");
    const last = knots.at(-1);
    const to = position + node.nodeSize;
    if (last && last.to === position && sameLink(last.link, mark.attrs as LinkAttributes)) {
      last.to = to;
      last.words += words;
    } else {
      const top = editor.view.coordsAtPos(position + (node.isText ? 1 : 0)).top - origin;
      knots.push({ from: position, to, words, link: mark.attrs as LinkAttributes, top });
    }
  });
  return knots;
}

function sameLink(a: LinkAttributes, b: LinkAttributes): boolean {
  return (
    a.href === b.href &&
    a.title === b.title &&
    a.rel === b.rel &&
    a.target === b.target &&
    a.override === b.override
  );
}
