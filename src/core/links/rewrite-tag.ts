import { escapeAttribute } from "entities";
import { CREATIVE_ATTRIBUTE, OVERRIDE_ATTRIBUTE, type LinkInHtml } from "./scan.ts";
import type { DeliveredAttributes } from "./rewrite.ts";
import type { StartTag } from "./start-tags.ts";

/** What an attribute is to be; null takes it away. */
type Wanted = ReadonlyMap<string, string | null>;

/**
 * A link's start tag with the attributes that it shall have. Where it has them already, it is the same text; else only
 * those attributes change that need it, and what stands between them only where they would run together.
 */
export function rewriteTag(
  text: string,
  link: LinkInHtml,
  wanted: DeliveredAttributes,
  keepOverride: boolean | undefined,
): string {
  const changes = new Map<string, string | null>();
  const change = (name: string, is: string | null, wants: string | null): void => {
    if (is !== wants) changes.set(name, wants);
  };
  const href = wanted.href === undefined ? link.href : wanted.href;
  change("href", link.href, href);
  if (href === null) changes.set("xlink:href", null);
  if (!sameRel(link.rel, wanted.rel)) changes.set("rel", wanted.rel);
  change("target", link.target, wanted.target);
  const override = wanted.override !== undefined ? wanted.override : keepOverride ? link.override : null;
  change(OVERRIDE_ATTRIBUTE, link.override, override);
  change(CREATIVE_ATTRIBUTE, link.creative, keepOverride ? link.creative : null);
  return changes.size === 0 ? text : withAttributes(text, link.tag, changes);
}

/** A start tag without an attribute. */
export function withoutAttribute(text: string, tag: StartTag, name: string): string {
  return withAttributes(text, tag, new Map([[name, null]]));
}

/** True for two `rel` values of the same tokens, in whatever order and spacing; null is no attribute. */
export function sameRel(is: string | null, wants: string | null): boolean {
  if (is === wants) return true;
  if (is === null || wants === null) return false;
  const tokens = (text: string): string => text.trim().split(/\s+/).sort().join(" ");
  return tokens(is) === tokens(wants);
}

/** How a piece of a tag ends: what may follow it at once hangs on that. */
type Ending = "tag" | "name" | "unquoted" | "quoted" | "missing" | "slash";

// Taken away together with its duplicates, else a browser would read the second one; of those that are set, browsers
// obey the first (section 13.2.5.33).
function withAttributes(text: string, tag: StartTag, wanted: Wanted): string {
  const pieces = [text.slice(0, tag.nameEnd - tag.start)];
  const done = new Set<string>();
  let ending: Ending = "tag";
  let isLoose = false;
  const put = (piece: string): void => {
    if (piece === "") return;
    if (isLoose) pieces.push(apart(ending, piece));
    isLoose = false;
    pieces.push(piece);
    if (piece.trimEnd().endsWith("/")) ending = "slash";
  };
  // Where what is added cannot be read as the value of what stands before it.
  let behind = 1;
  let at = tag.nameEnd - tag.start;
  for (const { name, start, end, written } of tag.attributes) {
    const between = text.slice(at, start - tag.start);
    at = end - tag.start;
    const value = wanted.get(name);
    if (value === null) {
      // White space stays with what follows; a slash is none.
      put(between.trimEnd());
      isLoose = true;
      continue;
    }
    // What stands before the name is judged together with it.
    const isFresh = value !== undefined && !done.has(name);
    put(between + (isFresh ? attributeText(name, value) : text.slice(start - tag.start, at)));
    ending = isFresh ? "quoted" : written === "none" ? "name" : written;
    done.add(name);
    if (ending !== "missing") behind = pieces.length;
  }
  const added = [...wanted].flatMap(([name, value]) =>
    value === null || done.has(name) ? [] : ` ${attributeText(name, value)}`,
  );
  if (added.length > 0) {
    pieces.splice(behind, 0, ...added);
    if (behind === pieces.length - added.length) ending = "quoted";
  }
  put(text.slice(at));
  return pieces.join("");
}

function attributeText(name: string, value: string): string {
  return `${name}="${escapeAttribute(value)}"`;
}

const SLASH = 47;
const GREATER = 62;

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

function isSpace(sign: number): boolean {
  return sign === 32 || (sign >= 9 && sign <= 13 && sign !== 11);
}
