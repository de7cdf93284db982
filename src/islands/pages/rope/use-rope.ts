import type { Editor } from "@tiptap/react";
import { useEffect, useState, type RefObject } from "react";
import { pictureLink, type LinkAttributes } from "../compose/editor-links.ts";

/** A link in the text, and how far down the column its words stand, in pixels. */
export interface KnotAt {
  from: number;
  to: number;
  words: string;
  picture: boolean;
  link: LinkAttributes;
  top: number;
}

// Measuring makes the browser lay out the page; while somebody types it waits for a rest.
const REST_MS = 120;

/** Calls back at every change of the text, also when somebody else's takes its place; answers how to stop. */
export function onTextChange(editor: Editor, changed: () => void): () => void {
  const look = ({ transaction }: { transaction: { docChanged: boolean } }): void => {
    if (transaction.docChanged) changed();
  };
  editor.on("transaction", look);
  return () => editor.off("transaction", look);
}

/** The links of the text with their places, following edits and changes of width. */
export function useRope(editor: Editor | null, column: RefObject<HTMLElement | null>): KnotAt[] {
  const [knots, setKnots] = useState<KnotAt[]>([]);
  useEffect(() => {
    if (!editor) return;
    let timer: ReturnType<typeof setTimeout> | undefined;
    let measured = "";
    const sizeNow = (): string => `${editor.view.dom.clientWidth} ${editor.view.dom.clientHeight}`;
    const measure = (): void => {
      measured = sizeNow();
      setKnots(readKnots(editor, column.current));
    };
    const soon = (): void => {
      clearTimeout(timer);
      timer = setTimeout(measure, REST_MS);
    };
    const first = requestAnimationFrame(measure);
    const leave = onTextChange(editor, soon);
    // Fonts and pictures that come later change the text's size.
    const observer = new ResizeObserver(() => {
      if (sizeNow() !== measured) soon();
    });
    observer.observe(editor.view.dom);
    return () => {
      clearTimeout(timer);
      cancelAnimationFrame(first);
      leave();
      observer.disconnect();
    };
  }, [editor, column]);
  return knots;
}

function readKnots(editor: Editor, column: HTMLElement | null): KnotAt[] {
  if (editor.isDestroyed || !column) return [];
  const origin = column.getBoundingClientRect().top;
  const knots: KnotAt[] = [];
  const topOf = (position: number): number => editor.view.coordsAtPos(position).top - origin;
  editor.state.doc.descendants((node, position) => {
    if (node.type.name === "image") {
      const link = pictureLink(node);
      const words = (node.attrs.alt as string | null) ?? "";
      if (link)
        knots.push({
          from: position,
          to: position + node.nodeSize,
          words,
          picture: true,
          link,
          top: topOf(position),
        });
      return;
    }
    const mark = node.marks.find(({ type }) => type.name === "link");
    if (!mark) return;
    const words = node.isText ? (node.text ?? "") : "";
    const last = knots.at(-1);
    const to = position + node.nodeSize;
    if (last && !last.picture && last.to === position && sameLink(last.link, mark.attrs as LinkAttributes)) {
      last.to = to;
      last.words += words;
    } else {
      const top = topOf(position + (node.isText ? 1 : 0));
      knots.push({ from: position, to, words, picture: false, link: mark.attrs as LinkAttributes, top });
    }
  });
  return knots;
}

const NAMES = ["href", "title", "rel", "target", "download", "override", "creative"] as const;

function sameLink(a: LinkAttributes, b: LinkAttributes): boolean {
  return NAMES.every((name) => a[name] === b[name]);
}
