import { admitted } from "../../address/gate.ts";
import { parseOverride } from "../../rules/override.ts";
import type { Body, WrittenBody } from "./body.ts";
import {
  IMAGE_ATTRIBUTES,
  LINK_ATTRIBUTES,
  PICTURE_SIDES,
  PICTURE_WIDTHS,
  type PictureSide,
  type PictureWidth,
} from "./picture.ts";

/** Hears what was left out, in words, once for each time. */
export type LeftOut = (what: string) => void;

const HEADING_ID = /^[\p{L}\p{N}][\p{L}\p{M}\p{N}_-]{0,99}$/u;

/**
 * An attribute of a body's element as it may be stored; undefined when it may not, which is noted. HTML and
 * rich-text bodies go through here alike.
 */
export function admittedAttribute(
  element: string,
  name: string,
  value: unknown,
  leftOut: LeftOut,
): string | undefined {
  const shown = typeof value === "string" ? `“${value.slice(0, 60)}”` : "that is no text";
  if (name === "href" || name === "src") {
    const address = admitted(value, name === "src" ? "picture" : "link");
    if (address === undefined) leftOut(`the address ${shown} on <${element}>`);
    return address;
  }
  if (typeof value !== "string") {
    leftOut(`the attribute ${name} on <${element}>`);
    return undefined;
  }
  if (name === "id" && !HEADING_ID.test(value)) {
    leftOut(`the id ${shown}`);
    return undefined;
  }
  if (name === "data-override" && parseOverride(value).unknown.length > 0) {
    leftOut(`the override ${shown}, which says nothing known`);
    return undefined;
  }
  const isNumber = name === "width" || name === "height" ? /^\d{1,5}$/ : /^\d{1,18}$/;
  if ((name === "width" || name === "height" || name === "data-creative") && !isNumber.test(value)) {
    leftOut(`the attribute ${name} on <${element}>`);
    return undefined;
  }
  return value;
}

/**
 * The gate of bodies: every address and attribute in it is admitted or left out and told. A link whose address does not
 * pass leaves its words, a picture its caption or its alternative text.
 */
export function admitBody(written: WrittenBody): { body: Body; dropped: string[] } {
  const notes = new Map<string, number>();
  const leftOut = (what: string): void => void notes.set(what, (notes.get(what) ?? 0) + 1);
  const content = (written.content as BodyNode[] | undefined)?.flatMap((node) => admitNode(node, leftOut));
  const body = (content ? { ...written, content } : written) as Body;
  return { body, dropped: inWords(notes) };
}

/** What was left out, each kind once, with how often. */
export function inWords(notes: ReadonlyMap<string, number>): string[] {
  return [...notes].map(([what, times]) => (times > 1 ? `${what} (${times} times)` : what));
}

type Attributes = Record<string, unknown>;

interface BodyNode {
  type: string;
  attrs?: Attributes;
  content?: BodyNode[];
  marks?: { type: string; attrs?: Attributes }[];
  text?: string;
}

function admitNode(node: BodyNode, leftOut: LeftOut): BodyNode[] {
  const content = node.content?.flatMap((child) => admitNode(child, leftOut));
  const marks = node.marks?.flatMap((mark) => {
    if (mark.type !== "link") return [mark];
    const attrs = admitNamed("a", LINK_MARK, mark.attrs ?? {}, leftOut);
    return typeof attrs.href === "string" ? [{ ...mark, attrs }] : [];
  });
  const admittedNode: BodyNode = {
    ...node,
    ...(content ? { content } : {}),
    ...(marks ? { marks } : {}),
  };
  if (marks?.length === 0) delete admittedNode.marks;
  if (node.type === "image") return [admitPicture(admittedNode, leftOut)];
  if (node.attrs) admittedNode.attrs = ownAttributes(node, leftOut);
  return [admittedNode];
}

const LINK_MARK = {
  href: "href",
  title: "title",
  rel: "rel",
  target: "target",
  download: "download",
  override: "data-override",
  creative: "data-creative",
} as const;

function admitPicture(node: BodyNode, leftOut: LeftOut): BodyNode {
  const { attrs = {} } = node;
  const image = admitNamed("img", IMAGE_ATTRIBUTES, attrs, leftOut);
  if (typeof image.src !== "string") {
    const words =
      typeof image.alt === "string" && image.alt !== "" ? [{ type: "text", text: image.alt }] : [];
    const content = node.content?.length ? node.content : words;
    return content.length > 0 ? { type: "paragraph", content } : { type: "paragraph" };
  }
  const link =
    attrs.href === undefined || attrs.href === null
      ? nothingOf(LINK_ATTRIBUTES)
      : admitNamed("a", LINK_ATTRIBUTES, attrs, leftOut);
  const { width, align } = attrs;
  return {
    ...node,
    attrs: {
      ...attrs,
      ...image,
      ...(typeof link.href === "string" ? link : nothingOf(LINK_ATTRIBUTES)),
      width: PICTURE_WIDTHS.includes(width as PictureWidth) ? width : null,
      align: PICTURE_SIDES.includes(align as PictureSide) ? align : null,
    },
  };
}

function nothingOf(names: Readonly<Record<string, string>>): Attributes {
  return Object.fromEntries(Object.keys(names).map((name) => [name, null]));
}

/** The attributes that these names are stored under, each as it may be stored; null for what is absent or left out. */
function admitNamed(
  element: string,
  names: Readonly<Record<string, string>>,
  attributes: Attributes,
  leftOut: LeftOut,
): Attributes {
  return Object.fromEntries(
    Object.entries(names).map(([stored, name]) => {
      const value = attributes[stored];
      return [
        stored,
        value === undefined || value === null
          ? null
          : (admittedAttribute(element, name, value, leftOut) ?? null),
      ];
    }),
  );
}

// Headings, lists and code have attributes of their own: plain values and nothing else.
function ownAttributes({ type, attrs = {} }: BodyNode, leftOut: LeftOut): Attributes {
  return Object.fromEntries(
    Object.entries(attrs).map(([name, value]) => {
      if (name === "id" && value !== undefined && value !== null)
        return [name, admittedAttribute(type, name, value, leftOut) ?? null];
      const isPlain = value === null || ["string", "number", "boolean"].includes(typeof value);
      if (!isPlain) leftOut(`the attribute ${name} of a ${type}`);
      return [name, isPlain ? value : null];
    }),
  );
}
