import { rewriteTag, withoutAttribute, type DeliveredAttributes } from "./rewrite-tag.ts";
import { LinkScanner, type Base, type LinkInHtml } from "../scan.ts";
import { utf8Of } from "./source-bytes.ts";
import type { StartTag } from "../start-tags.ts";

export type { DeliveredAttributes } from "./rewrite-tag.ts";

export interface RewriteOptions {
  /** Keep `data-override` and `data-creative`, as drafts do. Readers' pages do without. */
  keepOverride?: boolean;
  /** Whether a picture's address may stay; without it, all may. */
  keepsPicture?: (src: string, tag: StartTag) => boolean;
  /** The document comes as bytes, each a sign of its own (see `source-bytes.ts`): what it says is read as UTF-8. */
  isBytes?: boolean;
  /** HTML in ASCII that is put where the document's content begins (see `LinkScanner`). */
  opening?: string | undefined;
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
  private readonly puts: Put[] = [];
  private from = 0;

  constructor(decide: Decide, options: RewriteOptions = {}) {
    const { keepsPicture, opening } = options;
    let isOpened = false;
    const takesContent = (offset: number): void => {
      if (!isOpened) this.puts.push({ start: offset, end: offset, text: opening! });
      isOpened = true;
    };
    const takesPicture = (tag: StartTag): void => {
      const src = tag.value("src");
      if (src !== undefined && !keepsPicture!(src, tag)) this.puts.push(this.withoutAddress(tag));
    };
    this.scanner = new LinkScanner(
      (link) => {
        const { scanner } = this;
        const { start, end } = link.tag;
        this.pieces.push(this.upTo(start), rewriteTag(link, decide(link, scanner.base), options));
        this.from = end;
      },
      keepsPicture && takesPicture,
      options.isBytes ? utf8Of : undefined,
      opening === undefined ? undefined : takesContent,
    );
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

  // The source from where it has come out up to an offset, with what is put into it.
  private upTo(end: number): string {
    if (this.puts.length === 0) return this.scanner.slice(this.from, end);
    const pieces: string[] = [];
    let { from } = this;
    while (this.puts.length > 0 && this.puts[0]!.start < end) {
      const edit = this.puts.shift()!;
      pieces.push(this.scanner.slice(from, edit.start), edit.text);
      from = edit.end;
    }
    pieces.push(this.scanner.slice(from, end));
    return pieces.join("");
  }

  private withoutAddress(tag: StartTag): Put {
    const { start, end } = tag;
    return { start, end, text: withoutAttribute(tag, "src") };
  }
}

/** A part of the source, and what stands in its place. */
interface Put {
  start: number;
  end: number;
  text: string;
}
