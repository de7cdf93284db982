import { decodeHTMLAttribute, decodeHTMLStrict } from "entities";
import type { Repair } from "./address.ts";

// Zero-width space, joiners, word joiner, byte order mark, soft hyphen, direction marks: invisible companions of copied text.
const INVISIBLE = /[\u200B-\u200F\u2060\uFEFF\u00AD\u202A-\u202E\u2066-\u2069]/g;
const OUTER_SPACE = /^[\s\u00A0]+|[\s\u00A0]+$/g;
const MARKDOWN_LINK = /^!?\[[^\]]*\]\(\s*<?([^\s)>]*(?:\([^\s)>]*\)[^\s)>]*)*)>?(?:\s+["'(].*["')])?\s*\)$/;
const HREF = /<a\s[^>]*?\bhref\s*=\s*(?:"([^"]*)"|'([^']*)'|([^\s>]+))/i;

const PAIRS: readonly (readonly [string, string])[] = [
  ['"', '"'],
  ["'", "'"],
  ["`", "`"],
  ["“", "”"],
  ["„", "“"],
  ["‘", "’"],
  ["«", "»"],
  ["<", ">"],
  ["(", ")"],
  ["[", "]"],
  ["{", "}"],
];

/**
 * Takes off what copying put around an address: space, quotes, brackets, invisible characters,
 * an `<a href>`, a Markdown link, and HTML's `&amp;`. The address itself is not judged.
 */
export function unwrap(pasted: string): { text: string; repairs: Repair[] } {
  const repairs: Repair[] = [];
  let text = pasted.replace(INVISIBLE, "").replace(OUTER_SPACE, "");
  if (text !== pasted)
    repairs.push({ code: "trimmed", message: "Took off space or invisible characters around it." });

  const markdown = MARKDOWN_LINK.exec(text);
  const html = text.includes("<") ? HREF.exec(text) : null;
  if (html) {
    text = decodeHTMLAttribute(html[1] ?? html[2] ?? html[3] ?? "").trim();
    repairs.push({ code: "unwrapped", message: "Took the address out of the HTML link." });
  } else if (markdown) {
    text = markdown[1] ?? "";
    repairs.push({ code: "unwrapped", message: "Took the address out of the Markdown link." });
  }

  const bare = withoutPairs(text);
  if (bare !== text) {
    repairs.push({ code: "unwrapped", message: "Took off quotes or brackets." });
    text = bare;
  }
  const decoded = withoutEntities(text);
  if (decoded !== text) {
    repairs.push({ code: "entities", message: "Turned HTML's &amp; back into &." });
    text = decoded;
  }
  return { text, repairs };
}

function withoutPairs(text: string): string {
  for (const [open, close] of PAIRS) {
    if (text.length > 1 && text.startsWith(open) && text.endsWith(close)) {
      return withoutPairs(text.slice(open.length, -close.length).trim());
    }
  }
  return text;
}

// Only spelled-out ampersands and numeric entities: `&copy=1` is a parameter, not a sign. Pasted twice through
// an HTML field, an address carries `&amp;amp;`, so it goes on until nothing is left to decode.
function withoutEntities(text: string): string {
  let current = text;
  while (/&(?:amp|#0*38|#x0*26);/i.test(current)) current = current.replace(/&(?:amp|#0*38|#x0*26);/gi, "&");
  return /&#(?:\d+|x[\da-f]+);/i.test(current) ? decodeHTMLStrict(current) : current;
}
