import { escapeAttribute } from "entities";
import { attributeOf, type StartTag } from "./start-tags.ts";
import { CREATIVE_ATTRIBUTE, LinkScanner, OVERRIDE_ATTRIBUTE, type Base, type LinkInHtml } from "./scan.ts";

/** The attributes that a link shall have; null takes the attribute away. */
export interface DeliveredAttributes {
  rel: string | null;
  target: string | null;
  /** Another address than the one that is written; null takes it away, the words stay; absent: the same. */
  href?: string | null;
  /** Another override than the one that is written; null takes it away; absent: as the options say. */
  override?: string | null;
}

export interface RewriteOptions {
  /** Keep `data-override` and `data-creative`, as drafts do. Readers' pages do without. */
  keepOverride?: boolean;
  /** Whether a picture's address may stay; without it, all may. */
  keepsPicture?: (src: string, tag: StartTag) => boolean;
}

/** Decides about one link; `base` is what the document's `base` elements have said so far. */
export type Decide = (link: LinkInHtml, base: Base) => DeliveredAttributes;

/**
 * Sets rel and target on the links of a document. Only start tags that need it are changed; every other
 * byte of the document stays as it was. Rewriting what was rewritten changes nothing.
 */
export function rewriteLinks(html: string, decide: Decide, options: RewriteOptions = {}): string {
  const rewriter = new LinkRewriter(decide, options);
  return rewriter.write(html) + rewriter.end();
}

/**
 * The same for a document that comes in pieces: what a piece settles comes out at once, and only a link that is
 * still open is kept. Wherever the document is cut, the same comes out.
 */
export class LinkRewriter {
  private readonly scanner: LinkScanner;
  private readonly pieces: string[] = [];
  private readonly pictures: Edit[] = [];
  private from = 0;

  constructor(decide: Decide, options: RewriteOptions = {}) {
    const { keepsPicture } = options;
    const takesPicture = (tag: StartTag): void => {
      const src = attributeOf(tag, "src");
      if (src !== undefined && !keepsPicture!(src, tag)) this.pictures.push(...this.withoutAddress(tag));
    };
    this.scanner = new LinkScanner((link) => {
      const { scanner } = this;
      const { start, end } = link.tag;
      this.pieces.push(
        this.upTo(start),
        rewriteTag(scanner.slice(start, end), link, decide(link, scanner.base), options),
      );
      this.from = end;
    }, keepsPicture && takesPicture);
  }

  /** Takes a piece; answers what is settled by it. */
  write(piece: string): string {
    this.scanner.write(piece);
    return this.settled();
  }

  /** Answers what was still open at the end. */
  end(): string {
    this.scanner.end();
    return this.settled();
  }

  /** Offset in the source up to which everything has come out. */
  get settledTo(): number {
    return this.from;
  }

  private settled(): string {
    const upTo = Math.max(this.from, this.scanner.settled);
    this.pieces.push(this.upTo(upTo));
    this.from = upTo;
    this.scanner.forget(upTo);
    return this.pieces.splice(0).join("");
  }

  // The source from where it has come out up to an offset, pictures in it without the addresses that may not stay.
  private upTo(end: number): string {
    const pieces: string[] = [];
    let { from } = this;
    while (this.pictures.length > 0 && this.pictures[0]!.start < end) {
      const edit = this.pictures.shift()!;
      pieces.push(this.scanner.slice(from, edit.start), edit.text);
      from = edit.end;
    }
    pieces.push(this.scanner.slice(from, end));
    return pieces.join("");
  }

  private withoutAddress(tag: StartTag): Edit[] {
    const text = this.scanner.slice(tag.start, tag.end);
    const moved = ({ start, end, text: put }: Edit): Edit => ({ start: tag.start + start, end: tag.start + end, text: put }); // prettier-ignore
    return withoutAttribute(text, tag, "src").map(moved);
  }
}

function rewriteTag(
  text: string,
  link: LinkInHtml,
  wanted: DeliveredAttributes,
  { keepOverride }: RewriteOptions,
): string {
  const href = wanted.href === undefined ? link.href : wanted.href;
  const override = wanted.override !== undefined ? wanted.override : keepOverride ? link.override : null;
  const creative = keepOverride ? link.creative : null;
  const isAsWanted =
    creative === link.creative &&
    href === link.href &&
    override === link.override &&
    wanted.target === link.target &&
    sameRel(link.rel, wanted.rel);
  if (isAsWanted) return text;
  const edits: Edit[] = [];
  const added: string[] = [];
  setAttribute(text, link, "href", link.href, href, edits, added);
  if (href === null) edits.push(...withoutAttribute(text, link.tag, "xlink:href"));
  setAttribute(text, link, "rel", link.rel, wanted.rel, edits, added);
  setAttribute(text, link, "target", link.target, wanted.target, edits, added);
  setAttribute(text, link, OVERRIDE_ATTRIBUTE, link.override, override, edits, added);
  setAttribute(text, link, CREATIVE_ATTRIBUTE, link.creative, creative, edits, added);
  if (added.length > 0) {
    const at = insertionPoint(text, link);
    edits.push({ start: at, end: at, text: added.join("") });
  }
  return applyEdits(text, edits);
}

interface Edit {
  start: number;
  end: number;
  text: string;
}

function setAttribute(
  text: string,
  { tag }: LinkInHtml,
  name: string,
  is: string | null,
  wants: string | null,
  edits: Edit[],
  added: string[],
): void {
  if (sameValue(name, is, wants)) return;
  if (is === null && wants !== null) {
    added.push(` ${written(name, wants)}`);
    return;
  }
  const present = tag.attributes.filter((attribute) => attribute.name === name);
  if (wants !== null && present[0]) {
    const { start, end } = present[0];
    edits.push({ start: start - tag.start, end: end - tag.start, text: written(name, wants) });
  } else if (wants !== null) added.push(` ${written(name, wants)}`);
  else edits.push(...withoutAttribute(text, tag, name));
}

// Taken away together with its duplicates, else a browser would read the second one. What follows at once, as browsers
// allow behind a closing quote, keeps its distance from what stands before.
function withoutAttribute(text: string, tag: StartTag, name: string): Edit[] {
  return tag.attributes
    .filter((attribute) => attribute.name === name)
    .map((attribute) => {
      const end = attribute.end - tag.start;
      const isApart = /[\s/>]/.test(text[end] ?? ">");
      return { start: spaceBefore(text, attribute.start - tag.start), end, text: isApart ? "" : " " };
    });
}

// The same tokens in another order or spacing are the same `rel`: the author's bytes stay.
function sameValue(name: string, is: string | null, wants: string | null): boolean {
  return name === "rel" ? sameRel(is, wants) : is === wants;
}

/** True for two `rel` values of the same tokens, in whatever order and spacing; null is no attribute. */
export function sameRel(is: string | null, wants: string | null): boolean {
  if (is === wants) return true;
  if (is === null || wants === null) return false;
  const tokens = (text: string): string => text.trim().split(/\s+/).sort().join(" ");
  return tokens(is) === tokens(wants);
}

function written(name: string, value: string): string {
  return `${name}="${escapeAttribute(value)}"`;
}

// Behind the last attribute, so that neither a closing slash nor an unquoted value swallows what is added.
function insertionPoint(text: string, { tag }: LinkInHtml): number {
  const last = tag.attributes.at(-1);
  if (last) return last.end - tag.start;
  return text.length - (text.at(-2) === "/" ? 2 : 1);
}

function spaceBefore(text: string, at: number): number {
  let start = at;
  while (/\s/.test(text[start - 1] ?? "")) start -= 1;
  return start;
}

function applyEdits(text: string, edits: Edit[]): string {
  if (edits.length === 1) {
    const [{ start, end, text: put }] = edits as [Edit];
    return text.slice(0, start) + put + text.slice(end);
  }
  const pieces: string[] = [];
  let from = 0;
  for (const edit of edits.sort((a, b) => a.start - b.start || a.end - b.end)) {
    pieces.push(text.slice(from, edit.start), edit.text);
    from = Math.max(from, edit.end);
  }
  pieces.push(text.slice(from));
  return pieces.join("");
}
