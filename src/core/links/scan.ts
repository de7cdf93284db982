import type { ScannedAttribute } from "../html/tag-body.ts";
import { TagScanner, type ScannedTag, type ScanEvents } from "../html/tag-scanner.ts";
import { StartTag } from "./start-tags.ts";

/** One link in a document, as its source has it. */
export interface LinkInHtml {
  tag: StartTag;
  href: string;
  title: string | null;
  rel: string | null;
  target: string | null;
  override: string | null;
  /** The creative that it was put in from, by its id. */
  creative: string | null;
  /** Anchor text: the words inside, or the alternative text of the picture; white space folded. */
  words: string;
  anchor: "text" | "image";
  /** Address of the first picture inside; null for a link without one. */
  picture: string | null;
  /** True for a link that begins inside another one, which browsers take apart. */
  nested: boolean;
}

/** The attribute that carries an author's override (see API: `data-override`). */
export const OVERRIDE_ATTRIBUTE = "data-override";
/** The attribute that names the creative that a link was put in from. */
export const CREATIVE_ATTRIBUTE = "data-creative";

/** What the `base` elements of a document say, the first of each attribute (HTML section 4.2.3). */
export interface Base {
  href?: string;
  target?: string;
}

// White space that is one space each.
const FOLDED = /^\S*(?: \S+)*$/;
const WANTED: ReadonlySet<string> = new Set(["a", "area", "img", "br", "base", "main", "article"]);

/** A link's words and pictures are looked for in so much of the source behind its start tag. */
const LONGEST = 16_384;

/**
 * Finds the links of a document that comes in pieces, in source order. It keeps what it may still need: from the
 * start of the link that is open, or of the tag that is cut off. A link that is never closed ends where the next one
 * begins, or where it has become too long for one.
 */
export class LinkScanner implements ScanEvents {
  readonly base: Base = {};
  private readonly found: (link: LinkInHtml) => void;
  private readonly picture: ((tag: StartTag) => void) | undefined;
  private readonly decoded: ((source: string) => string) | undefined;
  private readonly content: ((offset: number) => void) | undefined;
  private readonly scanner: TagScanner;
  private kept = "";
  private keptFrom = 0;
  private open: LinkInHtml | undefined;
  private words = "";

  /**
   * `found` is handed each link once its words are known, `picture` each `img` as it comes. `decoded` makes text of what
   * stands in the source, where the source is bytes. `content` is told where the document's content begins that is not
   * head or menu: behind each `main` and `article`, and of a document that has neither, before its end.
   */
  constructor(
    found: (link: LinkInHtml) => void,
    picture?: (tag: StartTag) => void,
    decoded?: (source: string) => string,
    content?: (offset: number) => void,
  ) {
    this.found = found;
    this.picture = picture;
    this.decoded = decoded;
    this.content = content;
    this.scanner = new TagScanner(this, WANTED);
  }

  /** Reads on. */
  write(piece: string): void {
    this.kept = this.kept === "" ? piece : this.kept + piece;
    this.scanner.write(piece);
    this.endAt(this.scanner.told);
  }

  /** Nothing comes any more: a link that is still open ends here. */
  end(): void {
    this.scanner.end();
    this.close();
  }

  /** Offset up to which nothing is open: what lies before it is needed no more. */
  get settled(): number {
    return this.open ? this.open.tag.start : this.scanner.told;
  }

  /** A part of the source that is still kept, by offsets from the start of the document. */
  slice(start: number, end: number): string {
    return this.kept.slice(start - this.keptFrom, end - this.keptFrom);
  }

  /** Lets go of what lies before an offset. */
  forget(before: number): void {
    if (before === this.keptFrom) return;
    this.kept = this.kept.slice(before - this.keptFrom);
    this.keptFrom = before;
  }

  /** Of the scanner: a start tag that may matter. */
  startTag(known: string | undefined, tag: ScannedTag, attributes: ScannedAttribute[]): void {
    this.endAt(tag.start);
    this.takeTag(new StartTag(this.slice(tag.start, tag.end), known, tag, attributes, this.decoded));
  }

  /** Of the scanner: an end tag. */
  endTag(known: string | undefined, start: number): void {
    if (known === "body") this.content?.(start - 2);
    if (!this.open) return;
    this.endAt(start);
    if (known === "a") this.close();
  }

  /** Of the scanner: words, or the content of a script. */
  text(start: number, end: number): void {
    if (!this.open) return;
    const most = this.open.tag.end + LONGEST;
    if (start < most) this.words += this.slice(start, Math.min(end, most));
    this.endAt(end);
  }

  // However the document is cut, a link that is too long for one ends at the same place.
  private endAt(offset: number): void {
    if (this.open && offset > this.open.tag.end + LONGEST) this.close();
  }

  private takeTag(tag: StartTag): void {
    const href = linkAddress(tag);
    if (href !== undefined) this.openLink(tag, href);
    else if (tag.name === "base") this.takeBase(tag);
    else if (tag.name === "img") {
      if (this.open) this.takePicture(this.open, tag);
      this.picture?.(tag);
    } else if (this.open && tag.name === "br") this.words += " ";
    else if (tag.name === "main" || tag.name === "article") this.content?.(tag.end);
  }

  private openLink(tag: StartTag, href: string): void {
    const nested = this.open !== undefined;
    this.close();
    const isArea = tag.name === "area";
    const link: LinkInHtml = {
      tag,
      href,
      title: tag.value("title") ?? null,
      rel: tag.value("rel") ?? null,
      target: tag.value("target") ?? null,
      override: tag.value(OVERRIDE_ATTRIBUTE) ?? null,
      creative: tag.value(CREATIVE_ATTRIBUTE) ?? null,
      words: isArea ? this.alternative(tag) : "",
      anchor: isArea ? "image" : "text",
      picture: null,
      nested,
    };
    this.words = link.words;
    this.open = link;
    if (isArea) this.close();
  }

  private takePicture(link: LinkInHtml, tag: StartTag): void {
    link.anchor = "image";
    link.picture ??= tag.value("src") ?? null;
    this.words += ` ${this.alternative(tag)} `;
  }

  // Words are made text of when they are whole.
  private alternative(tag: StartTag): string {
    return (this.decoded ? tag.source("alt") : tag.value("alt")) ?? "";
  }

  private takeBase(tag: StartTag): void {
    this.base.href ??= tag.value("href");
    this.base.target ??= tag.value("target");
  }

  private close(): void {
    const link = this.open;
    if (!link) return;
    this.open = undefined;
    const words = (this.decoded ? this.decoded(this.words) : this.words).trim();
    link.words = FOLDED.test(words) ? words : words.replace(/\s+/g, " ");
    this.found(link);
  }
}

/** True for start tags that are links: `a` and `area` with an address, SVG's `a` with `xlink:href` too. */
function linkAddress(tag: StartTag): string | undefined {
  if (tag.name === "area") return tag.value("href");
  return tag.name === "a" ? (tag.value("href") ?? tag.value("xlink:href")) : undefined;
}
