import { escapeAttribute } from "entities/escape";
import { getElementsByTagName } from "domutils";
import { parseDocument } from "htmlparser2";
import { headStart, without } from "./frame.ts";

// What runs, what is asked for by itself, and what would lead elsewhere. Its frame lets none of it act, either.
const GONE: ReadonlySet<string> = new Set([
  "script",
  "iframe",
  "object",
  "embed",
  "noscript",
  "base",
  "template",
]);
const LEADS = /^(?:refresh|content-security-policy)$/i;

/** A page as it is looked at in a frame: its addresses lead where they led at `address`, and what runs in it is left out. */
export function lookedAt(html: string, address: string): string {
  const document = parseDocument(html, { withStartIndices: true, withEndIndices: true });
  const [own] = getElementsByTagName("base", document, true, 1);
  const base = baseOf(own?.attribs.href, address);
  const gone = getElementsByTagName(() => true, document)
    .filter(
      ({ name, attribs }) =>
        GONE.has(name) || (name === "meta" && LEADS.test((attribs["http-equiv"] ?? "").trim())),
    )
    .map(({ startIndex, endIndex }) => [startIndex!, endIndex! + 1] as const);
  const head = headStart(document, html);
  return [
    without(html, 0, head, gone),
    `<meta charset="utf-8"><base href="${escapeAttribute(base)}">`,
    without(html, head, html.length, gone),
  ].join("");
}

function baseOf(written: string | undefined, address: string): string {
  try {
    return new URL(written ?? "", address).href;
  } catch {
    return address;
  }
}
