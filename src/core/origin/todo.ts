import { z } from "zod";
import { escapeAttribute, escapeText } from "entities/escape";
import { findLinks } from "../links/find.ts";
import { plainText } from "../links/plain-text.ts";
import { id } from "../ground/fields.ts";

export const TODO_STATES = ["open", "done", "gone"] as const;

const linkAsWritten = z.object({
  href: z.string(),
  rel: z.string().nullable(),
  target: z.string().nullable(),
});

/** One link that is to be changed in the system where its page stands. */
export const todoSchema = z.object({
  id,
  /** Path of the page; empty for what stands on many. */
  page: z.string(),
  /** Where to go: the page, at the words. */
  address: z.string(),
  title: z.string(),
  onPages: z.int(),
  /** The block that it stands in, in words. */
  sentence: z.string(),
  words: z.string(),
  before: linkAsWritten,
  after: linkAsWritten,
  /** The link's source as it is and as it is to be. */
  beforeHtml: z.string(),
  afterHtml: z.string(),
  /** The rules that ask for it, or what somebody asked for. */
  why: z.string(),
  state: z.enum(TODO_STATES),
  madeAt: z.string(),
  endedAt: z.string().nullable(),
});
export type Todo = z.infer<typeof todoSchema>;

/** A sentence beyond this is cut around the words. */
const MOST_SIGNS = 240;

/**
 * The words around a link of a page that was read, by its number there: those of its block, cut to some 240 signs. Blocks stand
 * one a line, as they are kept. Empty where there is no such link.
 */
export function sentenceOf(html: string, ordinal: number): string {
  const link = findLinks(html)[ordinal];
  if (!link) return "";
  const start = html.lastIndexOf("\n", link.tag.start) + 1;
  const end = html.indexOf("\n", link.tag.start);
  const text = plainText(html.slice(start, end === -1 ? undefined : end))
    .text.replace(/\s+/g, " ")
    .trim();
  if (text.length <= MOST_SIGNS) return text;
  const at = Math.max(0, text.indexOf(link.words));
  const from = Math.max(0, at - Math.floor((MOST_SIGNS - link.words.length) / 2));
  const cut = text.slice(from, from + MOST_SIGNS);
  return `${from > 0 ? `… ${cut.replace(/^\S*\s/, "")}` : cut}${from + MOST_SIGNS < text.length ? " …" : ""}`;
}

/** A link as one would write it. */
export function linkSource({ href, rel, target }: Todo["before"], words: string): string {
  const attributes = [
    `href="${escapeAttribute(href)}"`,
    ...(rel ? [`rel="${escapeAttribute(rel)}"`] : []),
    ...(target ? [`target="${escapeAttribute(target)}"`] : []),
  ];
  return `<a ${attributes.join(" ")}>${escapeText(words)}</a>`;
}
