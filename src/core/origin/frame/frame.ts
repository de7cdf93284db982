import { compile, is, selectOne } from "css-select";
import type { AnyNode, Document, Element } from "domhandler";
import { getElementsByTagName, textContent } from "domutils";
import { parseDocument } from "htmlparser2";

/** A page as a frame: what stands before its head, between that and its content area, and behind it. */
export interface Frame {
  before: string;
  between: string;
  after: string;
}

export type CutFrame = { ok: true; frame: Frame } | { ok: false; reason: string };

/** The longest page that serves as a frame, in characters. */
const MOST = 2_000_000;
const VOID_AREA =
  /^(?:area|base|br|col|embed|hr|img|input|link|meta|source|track|wbr|script|style|title|html|head)$/;
/** What a page says of itself alone: another page says its own. */
const OWN_META =
  /^(?:description|robots|keywords|author|date|canonical|article:.*|og:.*|twitter:.*|dc\..*)$/i;

/** What is wrong with a selector; undefined when it can be looked for (Selectors Level 4). */
export function selectorFault(selector: string): string | undefined {
  try {
    compile(selector);
    return undefined;
  } catch {
    return "This is no selector, such as main or #content or .entry-body.";
  }
}

/**
 * Cuts a page around its content area. What it says of itself in its head is left out: its title, description, canonical
 * address, what it tells robots and those who pass it on, and in which character set it came. Every other byte stays.
 */
export function cutFrame(html: string, selector: string): CutFrame {
  if (html.length > MOST) return { ok: false, reason: "is longer than a page that serves as a frame may be" };
  const document = parseDocument(html, { withStartIndices: true, withEndIndices: true });
  const area = selectOne<AnyNode, Element>(selector, document);
  if (!area) return { ok: false, reason: `has nothing that “${selector}” selects` };
  if (VOID_AREA.test(area.name))
    return { ok: false, reason: `has no content area at “${selector}”: it is a ${area.name} element` };
  const inner = insideOf(area, html);
  const [head] = getElementsByTagName("head", document, true, 1);
  const headAt = headStart(document, html);
  if (headAt > inner.start) return { ok: false, reason: `has its head behind what “${selector}” selects` };
  const gone = (head ? ownOf(head) : []).map(
    ({ startIndex, endIndex }) => [startIndex!, endIndex! + 1] as const,
  );
  return {
    ok: true,
    frame: {
      before: html.slice(0, headAt),
      between: without(html, headAt, inner.start, gone),
      after: html.slice(inner.end),
    },
  };
}

function insideOf(element: Element, html: string): { start: number; end: number } {
  const { children, name, startIndex, endIndex } = element;
  const start = children[0]?.startIndex ?? html.indexOf(">", startIndex!) + 1;
  const end = endIndex! + 1;
  // Where its end tag is written; one that is left out ends with what it stands in.
  const tag = html.lastIndexOf("<", endIndex!);
  const isWritten = tag >= start && new RegExp(`^</${name}[\\s/]*>$`, "i").test(html.slice(tag, end));
  return { start, end: isWritten ? tag : Math.max(start, end) };
}

/** Where the head of a page begins: behind its tag, or behind the doctype and the start of html where it is left out. */
export function headStart(document: Document, html: string): number {
  const [head] = getElementsByTagName("head", document, true, 1);
  if (head) return insideOf(head, html).start;
  const [root] = getElementsByTagName("html", document, true, 1);
  if (root) return html.indexOf(">", root.startIndex!) + 1;
  const doctype = /^\s*<!doctype[^>]*>/i.exec(html);
  return doctype ? doctype[0].length : 0;
}

function ownOf(head: Element): Element[] {
  return getElementsByTagName(() => true, head).filter(({ name, attribs }) => {
    if (name === "title" || name === "base") return name === "title";
    if (name === "link")
      return /(?:^|\s)(?:canonical|amphtml|prev|next|alternate)(?:\s|$)/i.test(attribs.rel ?? "");
    if (name === "script") return /^application\/ld\+json$/i.test((attribs.type ?? "").trim());
    if (name !== "meta") return false;
    return (
      attribs.charset !== undefined ||
      /^(?:content-type|refresh)$/i.test(attribs["http-equiv"] ?? "") ||
      OWN_META.test(attribs.name ?? attribs.property ?? "")
    );
  });
}

/** A piece of a page, from one position to another, without what wholly stands in it of these spans. */
export function without(
  html: string,
  from: number,
  to: number,
  gone: readonly (readonly [number, number])[],
): string {
  let text = "";
  let at = from;
  for (const [start, end] of [...gone].sort(([a], [b]) => a - b)) {
    if (start < at || end > to) continue;
    text += html.slice(at, start);
    at = end;
  }
  return text + html.slice(at, to);
}

/** A part of a page that may be its content area. */
export interface Area {
  selector: string;
  words: number;
  /** How its words begin. */
  begins: string;
}

const LIKELY = /content|main|article|entry|post|body|text|story/i;
const MOST_AREAS = 12;
const BEGINS = 120;

/** The parts of a page that may be its content area, the likeliest first. */
export function areasIn(html: string): Area[] {
  const document = parseDocument(html.slice(0, MOST), { withStartIndices: true, withEndIndices: true });
  const areas: Area[] = [];
  const seen = new Set<string>();
  for (const element of getElementsByTagName(() => true, document)) {
    const selector = selectorOf(element);
    if (selector === undefined || seen.has(selector)) continue;
    seen.add(selector);
    if (selectOne<AnyNode, Element>(selector, document) !== element) continue;
    const text = textContent(element.children).replace(/\s+/g, " ").trim();
    const words = text === "" ? 0 : text.split(" ").length;
    areas.push({ selector, words, begins: text.slice(0, BEGINS) });
  }
  const rank = ({ selector }: Area): number =>
    selector === "main" || selector === '[role="main"]' ? 0 : selector === "article" ? 1 : 2;
  return areas.sort((a, b) => rank(a) - rank(b) || b.words - a.words).slice(0, MOST_AREAS);
}

const NAME = /^[A-Za-z_][\w-]*$/;

function selectorOf(element: Element): string | undefined {
  const { name, attribs } = element;
  if (VOID_AREA.test(name) || name === "body") return undefined;
  if (name === "main" || name === "article") return name;
  if (attribs.role === "main") return '[role="main"]';
  if (attribs.id !== undefined && LIKELY.test(attribs.id) && NAME.test(attribs.id)) return `#${attribs.id}`;
  const likely = (attribs.class ?? "").split(/\s+/).find((one) => LIKELY.test(one) && NAME.test(one));
  return likely === undefined || is(element as never, "a, span, p, li, h1, h2, h3, h4, h5, h6")
    ? undefined
    : `${name}.${likely}`;
}
