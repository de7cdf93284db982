import type { Rule } from "../objects/rule.ts";
import { linkAttributes } from "../rules/link-attributes.ts";
import type { SiteSight } from "../rules/link-facts.ts";
import { rewriteLinks, type RewriteOptions } from "./rewrite.ts";

/** The page a document belongs to, as rules look at it. */
export interface PagePlace {
  page?: string;
  category?: string;
}

/** Turns stored HTML into delivered HTML: the rules are applied to every link, all else stays. */
export function deliverHtml(
  html: string,
  rules: readonly Rule[],
  site: SiteSight,
  place: PagePlace,
  options: RewriteOptions = {},
): string {
  return rewriteLinks(
    html,
    (link) => {
      const resolved = linkAttributes({ ...link, ...place }, rules, site);
      return { rel: resolved.rel.join(" ") || null, target: resolved.target };
    },
    options,
  );
}
