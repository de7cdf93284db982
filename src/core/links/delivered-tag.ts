import { escapeAttribute, escapeText } from "entities/escape";
import type { Resolved } from "../rules/resolve/resolve.ts";

/** The exact `<a …>` of a link as a reader's browser gets it, with its words, for showing beside the link. */
export function deliveredTag(
  link: { href: string; title?: string | null; words: string },
  resolved: Pick<Resolved, "rel" | "target">,
): string {
  const attributes = [`href="${escapeAttribute(link.href)}"`];
  if (link.title) attributes.push(`title="${escapeAttribute(link.title)}"`);
  if (resolved.rel.length > 0) attributes.push(`rel="${escapeAttribute(resolved.rel.join(" "))}"`);
  if (resolved.target) attributes.push(`target="${escapeAttribute(resolved.target)}"`);
  return `<a ${attributes.join(" ")}>${escapeText(link.words)}</a>`;
}
