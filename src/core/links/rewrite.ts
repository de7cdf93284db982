import { escapeAttribute } from "entities";
import { findLinks, OVERRIDE_ATTRIBUTE, type LinkInHtml } from "./find.ts";

/** The attributes that a link shall have; null takes the attribute away. */
export interface DeliveredAttributes {
  rel: string | null;
  target: string | null;
  /** Another address than the one that is written; absent: the same. */
  href?: string;
}

export interface RewriteOptions {
  /** Keep `data-override` in the output, so that rewriting again gives the same. Readers' pages do without. */
  keepOverride?: boolean;
}

/**
 * Sets rel and target on the links of a document. Only start tags that need it are changed; every other
 * byte of the document stays as it was. Rewriting what was rewritten changes nothing.
 */
export function rewriteLinks(
  html: string,
  decide: (link: LinkInHtml) => DeliveredAttributes,
  options: RewriteOptions = {},
): string {
  const pieces: string[] = [];
  let from = 0;
  for (const link of findLinks(html)) {
    const tag = rewriteTag(html, link, decide(link), options);
    pieces.push(html.slice(from, link.tag.start), tag);
    from = link.tag.end;
  }
  pieces.push(html.slice(from));
  return pieces.join("");
}

function rewriteTag(
  html: string,
  link: LinkInHtml,
  wanted: DeliveredAttributes,
  options: RewriteOptions,
): string {
  const edits: { start: number; end: number; text: string }[] = [];
  const added: string[] = [];
  if (wanted.href !== undefined) setAttribute("href", link.href, wanted.href);
  setAttribute("rel", link.rel, wanted.rel);
  setAttribute("target", link.target, wanted.target);
  if (!options.keepOverride) setAttribute(OVERRIDE_ATTRIBUTE, link.override, null);
  if (added.length > 0) {
    const at = insertionPoint(html, link);
    edits.push({ start: at, end: at, text: added.map((attribute) => ` ${attribute}`).join("") });
  }
  return applyEdits(html, link.tag.start, link.tag.end, edits);

  function setAttribute(name: string, is: string | null, wants: string | null): void {
    if (sameValue(name, is, wants)) return;
    const present = link.tag.attributes.filter((attribute) => attribute.name === name);
    if (wants !== null && present[0]) {
      edits.push({ start: present[0].start, end: present[0].end, text: written(name, wants) });
    } else if (wants !== null) added.push(written(name, wants));
    // Taken away together with its duplicates, else a browser would read the second one.
    else for (const { start, end } of present) edits.push({ start: spaceBefore(html, start), end, text: "" });
  }
}

// The same tokens in another order or spacing are the same `rel`: the author's bytes stay.
function sameValue(name: string, is: string | null, wants: string | null): boolean {
  if (name !== "rel" || is === null || wants === null) return is === wants;
  const tokens = (text: string): string => text.trim().split(/\s+/).sort().join(" ");
  return tokens(is) === tokens(wants);
}

function written(name: string, value: string): string {
  return `${name}="${escapeAttribute(value)}"`;
}

// Behind the last attribute, so that neither a closing slash nor an unquoted value swallows what is added.
function insertionPoint(html: string, link: LinkInHtml): number {
  const last = link.tag.attributes.at(-1);
  if (last) return last.end;
  return link.tag.end - (html[link.tag.end - 2] === "/" ? 2 : 1);
}

function spaceBefore(html: string, at: number): number {
  let start = at;
  while (/\s/.test(html[start - 1] ?? "")) start -= 1;
  return start;
}

function applyEdits(
  html: string,
  start: number,
  end: number,
  edits: { start: number; end: number; text: string }[],
): string {
  const pieces: string[] = [];
  let from = start;
  for (const edit of edits.sort((a, b) => a.start - b.start || a.end - b.end)) {
    pieces.push(html.slice(from, edit.start), edit.text);
    from = Math.max(from, edit.end);
  }
  pieces.push(html.slice(from, end));
  return pieces.join("");
}
