import { escapeAttribute } from "entities/escape";
import { CREATIVE_ATTRIBUTE, OVERRIDE_ATTRIBUTE, type LinkInHtml } from "../scan.ts";
import { GREATER, isSpace, SLASH } from "../../html/signs.ts";
import type { StartTag } from "../start-tags.ts";

/** The attributes that a link shall have; null takes the attribute away. */
export interface DeliveredAttributes {
  rel: string | null;
  target: string | null;
  /** Another address than the one that is written; null takes it away, the words stay; absent: the same. */
  href?: string | null;
  /** Another override than the one that is written; null takes it away; absent: as the options say. */
  override?: string | null;
}

/** An attribute and what it is to be; null takes it away. */
interface Change {
  name: string;
  value: string | null;
}

/**
 * A link's start tag with the attributes that it shall have. Where it has them already, it is the same text; else only
 * those attributes change that need it, and what stands between them only where they would run together.
 */
export function rewriteTag(
  link: LinkInHtml,
  wanted: DeliveredAttributes,
  { keepOverride, isBytes = false }: { keepOverride?: boolean; isBytes?: boolean },
): string {
  const changes: Change[] = [];
  const href = wanted.href === undefined ? link.href : wanted.href;
  if (href !== link.href) changes.push({ name: "href", value: href });
  if (href === null) changes.push({ name: "xlink:href", value: null });
  if (!sameRel(link.rel, wanted.rel)) changes.push({ name: "rel", value: wanted.rel });
  if (link.target !== wanted.target) changes.push({ name: "target", value: wanted.target });
  const override = wanted.override !== undefined ? wanted.override : keepOverride ? link.override : null;
  if (override !== link.override) changes.push({ name: OVERRIDE_ATTRIBUTE, value: override });
  if (!keepOverride && link.creative !== null) changes.push({ name: CREATIVE_ATTRIBUTE, value: null });
  return changes.length === 0 ? link.tag.text : withAttributes(link.tag, changes, isBytes);
}

/** A start tag without an attribute. */
export function withoutAttribute(tag: StartTag, name: string): string {
  return withAttributes(tag, [{ name, value: null }], false);
}

/** True for two `rel` values of the same tokens, in whatever order and spacing; null is no attribute. */
export function sameRel(is: string | null, wants: string | null): boolean {
  if (is === wants) return true;
  if (is === null || wants === null) return false;
  return tokens(is) === tokens(wants);
}

function tokens(rel: string): string {
  return rel.trim().split(/\s+/).sort().join(" ");
}

/** How a piece of a tag ends: what may follow it at once hangs on that. */
type Ending = "tag" | "name" | "unquoted" | "quoted" | "missing" | "slash";

// Taken away together with its duplicates, else a browser would read the second one; of those that are set, browsers
// obey the first (section 13.2.5.33).
function withAttributes(tag: StartTag, changes: readonly Change[], isBytes: boolean): string {
  const { text } = tag;
  // What is added goes behind the last attribute that it cannot be read as the value of.
  let before = text.slice(0, tag.nameEnd - tag.start);
  let behind = "";
  let ending: Ending = "tag";
  let isLoose = false;
  let done = 0;
  let at = tag.nameEnd - tag.start;
  for (const { name, start, end, written } of tag.attributes) {
    let piece = text.slice(at, start - tag.start);
    at = end - tag.start;
    const nth = indexOfName(changes, name);
    if (nth !== -1 && changes[nth]!.value === null) {
      // White space stays with what follows; a slash is none.
      piece = piece.trimEnd();
      if (piece !== "") {
        behind += isLoose ? apart(ending, piece) + piece : piece;
        ending = "slash";
      }
      isLoose = true;
      continue;
    }
    const isFresh = nth !== -1 && (done & (1 << nth)) === 0;
    if (nth !== -1) done |= 1 << nth;
    // What stands before the name is judged together with it.
    piece += isFresh ? attributeText(name, changes[nth]!.value!, isBytes) : text.slice(start - tag.start, at);
    behind += isLoose ? apart(ending, piece) + piece : piece;
    isLoose = false;
    ending = isFresh ? "quoted" : written === "none" ? "name" : written;
    if (ending === "missing") continue;
    before += behind;
    behind = "";
  }
  const rest = text.slice(at);
  let added = "";
  for (const [nth, { name, value }] of changes.entries())
    if (value !== null && (done & (1 << nth)) === 0) added += ` ${attributeText(name, value, isBytes)}`;
  if (added !== "" && behind === "") ending = "quoted";
  return before + added + behind + (isLoose ? apart(ending, rest) : "") + rest;
}

function indexOfName(changes: readonly Change[], name: string): number {
  for (let nth = 0; nth < changes.length; nth += 1) if (changes[nth]!.name === name) return nth;
  return -1;
}

// In bytes of whatever encoding, signs beyond ASCII stand as references (HTML section 13.1.4).
function attributeText(name: string, value: string, isBytes: boolean): string {
  const text = escapeAttribute(value);
  return `${name}="${isBytes ? text.replace(/[^\0-\x7f]/gu, (sign) => `&#${sign.codePointAt(0)};`) : text}"`;
}

// What keeps a piece apart from what it follows now, where the two would be read as one: a value that goes on, a slash
// that closes the tag, an equals sign that gives a name a value.
function apart(ending: Ending, piece: string): string {
  const sign = piece.charCodeAt(0);
  if (ending === "name" && /^\s*=/.test(piece)) return "/";
  if (isSpace(sign)) return "";
  if (sign === GREATER) return ending === "slash" ? " " : "";
  if (sign === SLASH) return ending === "unquoted" ? " " : "";
  return ending === "slash" ? "" : " ";
}
