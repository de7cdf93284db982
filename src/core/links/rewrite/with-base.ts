import type { Resolved } from "../../rules/resolve/resolve.ts";
import type { Base, LinkInHtml } from "../scan.ts";

/** What a browser resolves against the document's base (HTML section 2.4.1) is judged by where that leads. */
export function resolvedAddress(href: string, base: Base): string {
  if (base.href === undefined || !/^(?:https?:)?\/\//i.test(base.href.trim())) return href;
  return URL.canParse(href, base.href) ? new URL(href, base.href).href : href;
}

/**
 * The `target` to write. Without a decision the author's stays. Where a `base` element names a tab for links without
 * a target, “same tab” has to be said.
 */
export function withBaseTarget(link: LinkInHtml, { target, trace }: Resolved, base: Base): string | null {
  if (!base.target) return target;
  const decided = trace.some(({ attribute }) => attribute === "target");
  if (target !== null || !decided) return target;
  return link.target !== null && /^_self$/i.test(link.target.trim()) ? link.target : "_self";
}
