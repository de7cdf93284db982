import { mayLeave } from "../../address/may-leave.ts";
import { ownPlace } from "../../address/classify.ts";
import { pathKey } from "../../address/path-key.ts";
import { withPath } from "../../address/with-path.ts";
import { withHeadingIds } from "../../pages/body/headings.ts";
import { fillVariables, type Variables } from "../../text/variables.ts";
import type { Rule } from "../../rules/rule.ts";
import { linkAttributes } from "../../rules/resolve/link-attributes.ts";
import type { LinkResolver } from "../../rules/resolve/link-facts.ts";
import { rewriteLinks, type RewriteOptions } from "./rewrite.ts";

/** The page a document belongs to, as rules look at it. */
export interface PagePlace {
  page?: string;
  category?: string;
  /** Path key of inside links to the id of the page that stood there when they were saved. */
  bound?: Readonly<Record<string, string>>;
  variables?: Variables;
  /** Id of the page, for routes that replace their raw destination on chosen pages. */
  pageId?: string;
}

/**
 * Turns stored HTML into delivered HTML: variables are filled in, swaps act, inside links follow pages that have moved,
 * headings get their ids, raw destinations give way to the short links that ask for it, and the rules are applied to
 * every link; all else stays. An address that may not leave the house leaves its words, without `href` or `src`.
 */
export function deliverHtml(
  html: string,
  rules: readonly Rule[],
  site: LinkResolver,
  place: PagePlace,
  options: RewriteOptions = {},
): string {
  const { bound = {}, variables = {}, pageId, ...page } = place;
  return rewriteLinks(
    withHeadingIds(fillVariables(html, variables)),
    (link) => {
      const href = movedTo(link.href, bound, site);
      const resolved = linkAttributes({ ...link, href: href ?? link.href, ...page }, rules, site);
      const leads = site.inContent?.(href ?? link.href, pageId) ?? href;
      // The last gate: variables are filled in by now, and what is stored may be older than the gate in.
      if (!mayLeave(leads ?? link.href)) return { rel: null, target: null, href: null };
      return { rel: resolved.rel.join(" ") || null, target: resolved.target, href: leads };
    },
    { keepsPicture: mayLeave, ...options },
  );
}

/**
 * Where a link leads now: by the site's swaps where it has some (`swapped`), and an inside link to its page, which may have
 * another path by now; undefined when it leads where it did. A site that spells its paths (`spelled`) leads every link to
 * a page to the spelling that readers see.
 */
export function movedTo(
  href: string,
  bound: Readonly<Record<string, string>>,
  site: Pick<LinkResolver, "hosts" | "pagePath" | "spelled" | "swapped">,
): string | undefined {
  const swapped = site.swapped?.(href);
  return swapped === undefined ? followed(href, bound, site) : (followed(swapped, bound, site) ?? swapped);
}

function followed(
  href: string,
  bound: Readonly<Record<string, string>>,
  site: Pick<LinkResolver, "hosts" | "pagePath" | "spelled">,
): string | undefined {
  const place = ownPlace(href, site.hosts);
  if (place === undefined) return undefined;
  const id = bound[place.key];
  const path = id === undefined ? undefined : site.pagePath?.(id);
  const moved = path !== undefined && pathKey(path) !== place.key ? path : undefined;
  const spelled = site.spelled?.(place.host, moved === undefined ? place.key : pathKey(moved)) ?? moved;
  const to = spelled === undefined ? href : withPath(href, spelled);
  return to === href ? undefined : to;
}
