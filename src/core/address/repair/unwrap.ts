import { decodeHTMLAttribute, decodeHTMLStrict } from "entities/decode";
import type { Repair } from "../address.ts";

// Zero-width space, joiners, word joiner, byte order mark, soft hyphen, direction marks: invisible companions of copied text.
const INVISIBLE = /[\u200B-\u200F\u2060\uFEFF\u00AD\u202A-\u202E\u2066-\u2069]/g;
const HREF = /\shref\s{0,20}=\s{0,20}(?:"([^"]*)"|'([^']*)'|([^\s"'>]+))/i;
const MAX_TAGS = 20;
const SOURCE = /\ssrc\s{0,20}=\s{0,20}(?:"([^"]*)"|'([^']*)'|([^\s"'>]+))/i;
const ATTRIBUTE = /^(?:href|src)\s{0,20}=\s{0,20}(?:"([^"]*)"|'([^']*)'|(\S+))$/i;
const BOARD = /^\[(?:url|img)(?:=["']?([^\]"'\s]{1,2048})["']?)?\](.{0,4096}?)\[\/(?:url|img)\]$/is;
// A link reference definition (CommonMark 4.7).
const REFERENCE = /^\[[^\]]{1,200}\]:\s{0,5}<?([^\s<>]{1,2048})>?(?:\s{1,5}["'(].{0,300})?$/;

const PAIRS: readonly (readonly [string, string])[] = [
  ['"', '"'],
  ["'", "'"],
  ["`", "`"],
  ["“", "”"],
  ["„", "“"],
  ["‘", "’"],
  ["‚", "‘"],
  ["„", "”"],
  ["«", "»"],
  ["»", "«"],
  ["‹", "›"],
  ["›", "‹"],
  ["「", "」"],
  ["『", "』"],
  ["《", "》"],
  ["〈", "〉"],
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
  let text = pasted.replace(INVISIBLE, "").trim();
  if (text !== pasted)
    repairs.push({ code: "trimmed", message: "Took off space or invisible characters around it." });

  const markdown = markdownAddress(text);
  const html = firstHref(text) ?? firstSource(text) ?? ATTRIBUTE.exec(text);
  const board = BOARD.exec(text);
  const reference = REFERENCE.exec(text)?.[1];
  if (html) {
    text = decodeHTMLAttribute(html[1] ?? html[2] ?? html[3] ?? "").trim();
    repairs.push({ code: "unwrapped", message: "Took the address out of the HTML." });
  } else if (board) {
    text = (board[1] ?? board[2] ?? "").trim();
    repairs.push({ code: "unwrapped", message: "Took the address out of the forum's link." });
  } else if (reference !== undefined) {
    text = reference;
    repairs.push({ code: "unwrapped", message: "Took the address out of the Markdown reference." });
  } else if (markdown !== undefined) {
    text = markdown;
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

// The address of the first link in HTML; a tag that was cut off behind it counts. Only so many tags are looked at.
function firstHref(text: string): RegExpExecArray | undefined {
  const lower = text.toLowerCase();
  let at = lower.indexOf("<a");
  for (let looked = 0; at !== -1 && looked < MAX_TAGS; looked += 1) {
    const end = lower.indexOf(">", at);
    const found = /\s/.test(lower[at + 2] ?? "")
      ? HREF.exec(text.slice(at + 2, end === -1 ? undefined : end))
      : null;
    if (found) return found;
    at = lower.indexOf("<a", at + 2);
  }
  return undefined;
}

// A picture or a frame pasted whole: where it comes from is meant.
function firstSource(text: string): RegExpExecArray | undefined {
  const start = /<(?:iframe|img|video|audio|source|embed)(?=\s)/i.exec(text.slice(0, 2_000));
  if (!start) return undefined;
  const end = text.indexOf(">", start.index);
  return SOURCE.exec(text.slice(start.index, end === -1 ? undefined : end)) ?? undefined;
}

// Nobody puts more around an address; what is left then is refused as no address.
const MAX_PAIRS = 20;

function withoutPairs(text: string): string {
  let bare = text;
  for (let taken = 0; taken < MAX_PAIRS; taken += 1) {
    const current = bare;
    const pair = PAIRS.find(
      ([open, close]) => current.length > 1 && current.startsWith(open) && current.endsWith(close),
    );
    if (!pair) return bare;
    bare = bare.slice(pair[0].length, -pair[1].length).trim();
  }
  return bare;
}

// The destination of a text that is one inline link or picture and nothing else (CommonMark 6.3); undefined for others.
function markdownAddress(text: string): string | undefined {
  const start = text.startsWith("![") ? 2 : text.startsWith("[") ? 1 : 0;
  const middle = text.indexOf("](");
  if (start === 0 || middle === -1 || !text.endsWith(")") || text.indexOf("]") !== middle) return undefined;
  const inside = text.slice(middle + 2, -1).trim();
  const space = inside.search(/\s/);
  const title = space === -1 ? "" : inside.slice(space).trim();
  if (title !== "" && !/^["'(]/.test(title)) return undefined;
  const address = space === -1 ? inside : inside.slice(0, space);
  return address.startsWith("<") && address.endsWith(">") ? address.slice(1, -1) : address;
}

// Only spelled-out ampersands and numeric entities: `&copy=1` is a parameter, not a sign. Pasted twice through
// an HTML field, an address carries `&amp;amp;`, so it goes on until nothing is left to decode.
function withoutEntities(text: string): string {
  let current = text;
  while (/&(?:amp|#0*38|#x0*26);/i.test(current)) current = current.replace(/&(?:amp|#0*38|#x0*26);/gi, "&");
  return /&#(?:\d+|x[\da-f]+);/i.test(current) ? decodeHTMLStrict(current) : current;
}
