import { escapeText } from "entities/escape";
import { mayLeave } from "../../address/may-leave.ts";
import { linkAttributes } from "../../rules/resolve/link-attributes.ts";
import type { LinkResolver } from "../../rules/resolve/link-facts.ts";
import { untracked } from "../../rules/partners.ts";
import type { Rule } from "../../rules/rule.ts";
import { sameRel } from "../../links/rewrite/rewrite-tag.ts";
import { LinkRewriter } from "../../links/rewrite/rewrite.ts";
import { resolvedAddress, withBaseTarget } from "../../links/rewrite/with-base.ts";

/** What is changed of one link on its way to a reader. */
export interface ChangedLink {
  words: string;
  before: { href: string; rel: string | null; target: string | null };
  after: { href: string; rel: string | null; target: string | null };
}

/** What a page of the origin is changed by. */
export interface FrontChanges {
  rules: readonly Rule[];
  site: LinkResolver;
  page: string;
  category: string;
  /** What its readers are told of paid links, where its content begins. */
  disclosure?: string | undefined;
}

// In whatever encoding the page is, signs beyond ASCII stand as references (HTML section 13.1.4).
function told(disclosure: string): string {
  const text = escapeText(disclosure).replace(/[^\0-\x7f]/gu, (sign) => `&#${sign.codePointAt(0)};`);
  return `<p class="maprope-disclosure">${text}</p>`;
}

/**
 * Changes the links of a page that comes from the origin, in pieces, each byte a sign (`links/rewrite/source-bytes.ts`): rel and
 * target by the rules, addresses by the site's swaps, raw ones into the short links that ask to stand for them, untracked ones
 * into tracked ones where their program says so; and the disclosure is put where it is due. Nothing else of it is changed by a byte; a
 * link of a kind that we let nobody write stays as its author has it, since the page is theirs.
 */
export class FrontRewriter {
  /** How many links the page has, as far as it was read. */
  links = 0;
  private readonly rewriter: LinkRewriter;

  constructor({ rules, site, page, category, disclosure }: FrontChanges, noted: (link: ChangedLink) => void) {
    const tracks = site.partners?.some(({ tracksOnTheWay }) => tracksOnTheWay) === true;
    this.rewriter = new LinkRewriter(
      (link, base) => {
        this.links += 1;
        const { rel, target, words } = link;
        if (!mayLeave(link.href)) return { rel, target };
        const written = resolvedAddress(link.href, base);
        const swapped = site.swapped?.(written);
        const href = swapped ?? written;
        const resolved = linkAttributes(
          { href, rel, target, override: link.override, anchor: link.anchor, page, category },
          rules,
          site,
        );
        const wanted = resolved.rel.join(" ") || null;
        const put =
          site.inContent?.(href, undefined) ??
          (tracks ? this.tracked(href, site, page) : undefined) ??
          swapped;
        const after = {
          rel: sameRel(rel, wanted) ? rel : wanted,
          target: withBaseTarget(link, resolved, base),
        };
        if (after.rel !== rel || after.target !== target || put !== undefined)
          noted({
            words,
            before: { href: link.href, rel, target },
            after: { href: put ?? link.href, ...after },
          });
        // Each field by itself: a spread made objects that cost more than the rules (`npm run bench -- front`).
        return { rel: after.rel, target: after.target, href: put };
      },
      { keepOverride: true, isBytes: true, opening: disclosure && told(disclosure) },
    );
  }

  // Where the program's own switch says so.
  private tracked(href: string, site: LinkResolver, page: string): string | undefined {
    const found = untracked(site.partners, href, { page, position: this.links });
    return found?.isPutOnTheWay ? found.tracked : undefined;
  }

  /** Takes a piece; answers what is settled by it. */
  write(piece: string): string {
    return this.rewriter.write(piece);
  }

  /** Answers what was still open at the end. */
  end(): string {
    return this.rewriter.end();
  }
}
