import { getMarkRange, type Editor } from "@tiptap/core";
import { NodeSelection, TextSelection, type Transaction } from "@tiptap/pm/state";
import type { Node } from "@tiptap/pm/model";

/** The attributes of a link in the text, as the link mark and a linked picture hold them. */
export interface LinkAttributes {
  href: string;
  title: string | null;
  rel: string | null;
  target: string | null;
  /** Empty or a file name: the browser keeps the file instead of showing it. */
  download: string | null;
  override: string | null;
  /** The creative that it was put in from; gone once somebody gives it another address. */
  creative: string | null;
}

/** A place in the text that a link is made at or changed. `top` is where it stands in the column, in pixels. */
export interface LinkAt {
  from: number;
  to: number;
  words: string;
  link: LinkAttributes | undefined;
  /** True when a picture is linked and not words; its alternative text stands for them. */
  picture: boolean;
  /** An address that was handed over from the paste field or pasted over the words. */
  address: string | undefined;
  top: number;
  /** What it was opened on is not in the text any more. */
  gone?: boolean;
}

/**
 * Where a place is after a change of the text: it moves along with its words, and is gone when they are. Words that
 * were typed into or cut at an end are still its words.
 */
export function movedAlong(at: LinkAt, { mapping, doc }: Pick<Transaction, "mapping" | "doc">): LinkAt {
  if (at.gone) return at;
  if (at.picture) {
    const { pos, deleted } = mapping.mapResult(at.from, 1);
    return deleted || doc.nodeAt(pos)?.type.name !== "image"
      ? { ...at, gone: true }
      : { ...at, from: pos, to: pos + doc.nodeAt(pos)!.nodeSize };
  }
  if (at.from === at.to) {
    const { pos, deletedAcross } = mapping.mapResult(at.from, 1);
    return { ...at, from: pos, to: pos, gone: deletedAcross };
  }
  // What is typed at its ends lies outside of it.
  const [from, to] = [mapping.map(at.from, 1), mapping.map(at.to, -1)];
  if (from >= to || !doc.resolve(from).sameParent(doc.resolve(to))) return { ...at, gone: true };
  return { ...at, from, to, words: doc.textBetween(from, to, " ") };
}

/** The link of a picture; undefined when it has none. */
export function pictureLink({ attrs }: Node): LinkAttributes | undefined {
  if (!attrs.href) return undefined;
  const { href, linkTitle, rel, target, download, override, creative } = attrs;
  return { href, title: linkTitle, rel, target, download, override, creative } as LinkAttributes;
}

/** The picture that is selected; undefined while words are, those of a caption included. */
export function pictureAtSelection(editor: Editor): { node: Node; at: number } | undefined {
  const { selection } = editor.state;
  if (selection instanceof NodeSelection && selection.node.type.name === "image")
    return { node: selection.node, at: selection.from };
  return undefined;
}

/** The link at the selection, or the marked words that are to become one; at a bare caret, nothing is marked yet. */
export function linkAtSelection(editor: Editor, column: HTMLElement | null, address?: string): LinkAt {
  const { state, view } = editor;
  const origin = column?.getBoundingClientRect().top ?? 0;
  const picture = pictureAtSelection(editor);
  if (picture) {
    const { node, at } = picture;
    const words = (node.attrs.alt as string | null) ?? "";
    const top = (view.nodeDOM(at) as HTMLElement).getBoundingClientRect().top - origin;
    return { from: at, to: at + node.nodeSize, words, link: pictureLink(node), picture: true, address, top };
  }
  const mark = state.schema.marks.link!;
  const range =
    getMarkRange(state.selection.$from, mark) ?? getMarkRange(state.doc.resolve(state.selection.to), mark);
  const { from, to } = range ?? state.selection;
  const link = range
    ? (state.doc.nodeAt(range.from)?.marks.find(({ type }) => type === mark)?.attrs as
        LinkAttributes | undefined)
    : undefined;
  const top = view.coordsAtPos(from).top - origin;
  return { from, to, words: state.doc.textBetween(from, to, " "), link, picture: false, address, top };
}

/** Sets the link on its words, or on its picture; words that changed replace the old ones and keep their other marks. */
export function applyLink(editor: Editor, at: LinkAt, link: LinkAttributes & { words: string }): void {
  const { words, ...attributes } = link;
  editor
    .chain()
    .command(({ tr, state }) => {
      if (at.picture) return setPictureLink(tr, at.from, attributes, words);
      const mark = state.schema.marks.link!.create(attributes);
      let to = at.to;
      if (words !== at.words || at.from === at.to) {
        const others = state.doc
          .resolve(at.from + (at.from === at.to ? 0 : 1))
          .marks()
          .filter(({ type }) => type.name !== "link");
        tr.replaceWith(at.from, at.to, state.schema.text(words, others));
        to = at.from + words.length;
      }
      tr.removeMark(at.from, to, state.schema.marks.link);
      tr.addMark(at.from, to, mark);
      tr.setSelection(TextSelection.create(tr.doc, to));
      tr.removeStoredMark(state.schema.marks.link!);
      return true;
    })
    .run();
}

/** Puts a creative in: whole at a bare caret, else as the link of the marked words or of the picture. */
export function putCreative(
  editor: Editor,
  at: LinkAt,
  { href, html, creative }: { href: string; html: string; creative: string },
): void {
  const isBare = at.from === at.to && !at.picture;
  if (isBare) editor.chain().insertContentAt(at.from, html).run();
  else
    applyLink(editor, at, {
      href,
      creative,
      title: null,
      rel: null,
      target: null,
      download: null,
      override: null,
      words: at.words,
    });
}

/** Takes the link off; words or picture stay. */
export function takeOffLink(editor: Editor, at: Pick<LinkAt, "from" | "to" | "picture">): void {
  editor
    .chain()
    .command(({ tr, state }) => {
      if (at.picture) return setPictureLink(tr, at.from, undefined);
      tr.removeMark(at.from, at.to, state.schema.marks.link);
      return true;
    })
    .run();
}

function setPictureLink(
  tr: Transaction,
  at: number,
  link: LinkAttributes | undefined,
  words?: string,
): boolean {
  const node = tr.doc.nodeAt(at);
  if (node?.type.name !== "image") return false;
  const { title = null, ...rest } = link ?? {
    href: null,
    rel: null,
    target: null,
    download: null,
    override: null,
    creative: null,
  };
  tr.setNodeMarkup(at, undefined, {
    ...node.attrs,
    ...rest,
    linkTitle: title,
    ...(words === undefined ? {} : { alt: words }),
  });
  tr.setSelection(NodeSelection.create(tr.doc, at));
  return true;
}
