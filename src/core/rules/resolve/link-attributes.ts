import type { Rule } from "../rule.ts";
import { linkFacts, type LinkOnPage, type LinkResolver } from "./link-facts.ts";
import { parseOverride } from "../override.ts";
import { NOTHING_WRITTEN, resolve, type Resolved, type Written } from "./resolve.ts";

/** The rel and target that a link on a page is delivered with, and why: facts, override and rules put together. */
export function linkAttributes(link: LinkOnPage, rules: readonly Rule[], site: LinkResolver): Resolved {
  return resolve(rules, linkFacts(link, site), writtenOn(link));
}

/** What the author wrote on a link, and set on it by hand. */
export function writtenOn(link: Pick<LinkOnPage, "rel" | "target" | "override">): Written {
  // Most links are left to the rules.
  if (!link.rel && !link.target && !link.override) return NOTHING_WRITTEN;
  const rel = Array.isArray(link.rel) ? link.rel : relTokens((link.rel as string | null | undefined) ?? "");
  return {
    rel,
    target: link.target?.trim() ? normalTarget(link.target.trim()) : null,
    override: parseOverride(link.override ?? "").override,
  };
}

/** The tokens of a `rel` attribute value (HTML section 4.6.7: set of space-separated tokens). */
export function relTokens(rel: string): string[] {
  return rel.split(/[\t\n\f\r ]+/).filter(Boolean);
}

// Keywords with an underscore are compared without letter case (HTML section 7.3.3).
function normalTarget(target: string): string {
  return target.startsWith("_") ? target.toLowerCase() : target;
}
