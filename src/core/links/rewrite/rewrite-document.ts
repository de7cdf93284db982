import { mayLeave } from "../../address/may-leave.ts";
import type { Rule } from "../../rules/rule.ts";
import { linkAttributes } from "../../rules/resolve/link-attributes.ts";
import type { LinkResolver } from "../../rules/resolve/link-facts.ts";
import type { Resolved } from "../../rules/resolve/resolve.ts";
import { LinkRewriter } from "./rewrite.ts";
import { sameRel } from "./rewrite-tag.ts";
import { resolvedAddress, withBaseTarget } from "./with-base.ts";
import type { LinkInHtml } from "../scan.ts";

/** One link whose start tag was changed. */
export interface RewrittenLink {
  /** Line of its start tag, counted from 1. */
  line: number;
  words: string;
  href: string;
  before: { rel: string | null; target: string | null };
  after: { rel: string | null; target: string | null };
  /** Who decided, each once, in the order of the attributes. */
  by: string[];
}

/** What was done to a document. */
export interface RewriteReport {
  links: number;
  changes: RewrittenLink[];
  /** Links and pictures whose address may not leave the house: it was taken away, the words stay. */
  refused: RefusedAddress[];
}

/** An address that was taken away, and where it stood. */
export interface RefusedAddress {
  line: number;
  /** Words of the link; alternative text of a picture. */
  words: string;
  address: string;
}

/** Applies rules to a document of any site that comes in pieces, and reports what it changes. */
export class DocumentRewriter {
  readonly report: RewriteReport = { links: 0, changes: [], refused: [] };
  private readonly rewriter: LinkRewriter;
  private line = 1;
  private ahead = "";
  private aheadFrom = 0;
  private counted = 0;
  /** Where the next line break stands; -1 where that is not known. */
  private nextLine = -1;
  // Pictures inside a link are seen before the link is settled: their lines are counted in the order of the source.
  private readonly waiting: { start: number; words: string; address: string }[] = [];

  constructor(
    rules: readonly Rule[],
    site: LinkResolver,
    place: { page?: string; category?: string } = {},
    isBytes = false,
  ) {
    this.rewriter = new LinkRewriter(
      (link, base) => {
        if (!mayLeave(link.href)) {
          this.report.links += 1;
          this.refuse(link.tag.start, link.words, link.href);
          return { rel: link.rel, target: link.target, href: null };
        }
        const address = resolvedAddress(link.href, base);
        const { rel, target, override, anchor } = link;
        const asked = {
          href: address,
          rel,
          target,
          override,
          anchor,
          page: place.page,
          category: place.category,
        };
        const resolved = linkAttributes(asked, rules, site);
        const { rel: wanted } = saidOf(resolved);
        const after = {
          rel: sameRel(rel, wanted) ? rel : wanted,
          target: withBaseTarget(link, resolved, base),
        };
        this.note(link, after, resolved);
        return after;
      },
      // Who rewrites a document twice gets the same: what an author set by hand stays in it.
      {
        keepOverride: true,
        isBytes,
        keepsPicture: (src, tag) => {
          const keeps = mayLeave(src) || IMAGE_DATA.test(src);
          if (!keeps) this.refuse(tag.start, tag.value("alt") ?? "", src);
          return keeps;
        },
      },
    );
  }

  /** Takes a piece; answers what is settled by it. */
  write(piece: string): string {
    this.ahead = this.ahead.slice(this.counted - this.aheadFrom) + piece;
    this.aheadFrom = this.counted;
    const settled = this.rewriter.write(piece);
    this.countLines(this.rewriter.settledTo);
    return settled;
  }

  /** Answers what was still open at the end. */
  end(): string {
    const rest = this.rewriter.end();
    this.countLines(this.rewriter.settledTo);
    return rest;
  }

  private note(link: LinkInHtml, after: RewrittenLink["after"], resolved: Resolved): void {
    this.report.links += 1;
    const before = { rel: link.rel, target: link.target };
    this.countLines(link.tag.start);
    if (before.rel === after.rel && before.target === after.target) return;
    const { words, href } = link;
    this.report.changes.push({ line: this.line, words, href, before, after, by: [...saidOf(resolved).by] });
  }

  private refuse(start: number, words: string, address: string): void {
    let at = this.waiting.length;
    while (at > 0 && this.waiting[at - 1]!.start > start) at -= 1;
    this.waiting.splice(at, 0, { start, words, address });
  }

  // Lines are counted on from where they were counted last; what lies before is let go.
  private countLines(upTo: number): void {
    while (this.waiting.length > 0 && this.waiting[0]!.start < upTo) {
      const { start, words, address } = this.waiting.shift()!;
      this.countTo(start);
      this.report.refused.push({ line: this.line, words, address });
    }
    this.countTo(upTo);
  }

  private countTo(upTo: number): void {
    const { ahead, aheadFrom } = this;
    if (this.nextLine < this.counted) this.nextLine = lineAfter(ahead, this.counted - aheadFrom) + aheadFrom;
    while (this.nextLine < upTo) {
      this.line += 1;
      this.nextLine = lineAfter(ahead, this.nextLine + 1 - aheadFrom) + aheadFrom;
    }
    this.counted = Math.max(this.counted, upTo);
    // What comes later may begin a line before anything that is there does.
    if (this.nextLine >= aheadFrom + ahead.length) this.nextLine = -1;
  }
}

function lineAfter(text: string, from: number): number {
  const at = text.indexOf("\n", from);
  return at === -1 ? text.length : at;
}

interface Said {
  rel: string | null;
  by: readonly string[];
}
const said = new WeakMap<Resolved, Said>();

// What many links are decided to be is written out once.
function saidOf(resolved: Resolved): Said {
  let there = said.get(resolved);
  if (!there) {
    const by = [...new Set(resolved.trace.map((decision) => decision.by))];
    said.set(resolved, (there = { rel: resolved.rel.join(" ") || null, by }));
  }
  return there;
}

// A picture that stands in the document itself leads nowhere and holds no script; documents of other systems have them.
const IMAGE_DATA = /^\s*data:image\/(?:png|jpeg|gif|webp|avif|bmp|x-icon)[;,]/i;

/** Applies rules to a whole document. */
export function rewriteDocument(
  html: string,
  rules: readonly Rule[],
  site: LinkResolver,
  place: { page?: string; category?: string } = {},
): { html: string; report: RewriteReport } {
  const rewriter = new DocumentRewriter(rules, site, place);
  return { html: rewriter.write(html) + rewriter.end(), report: rewriter.report };
}
