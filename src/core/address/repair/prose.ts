import type { Repair } from "../address.ts";

/**
 * Words, quotation marks at one side and punctuation that writing puts around an address. One that stands in an
 * attribute or is made by a machine has none of it.
 */
export function outOfProse(text: string): { text: string; repairs: Repair[] } {
  const repairs: Repair[] = [];
  return { text: withoutEnd(outOfWords(text, repairs), repairs), repairs };
}

/** An address that a mail program broke over lines, or quoted, in one piece. */
export function outOfLines(text: string): { text: string; repairs: Repair[] } {
  const repairs: Repair[] = [];
  return { text: ofLines(text, repairs), repairs };
}

const LINE_BREAKS = /\r\n|[\n\r\u2028\u2029]/;
const QUOTED = /^[ \t]*(?:[>|][ \t]?){1,20}/;
const WEB = /^<?https?:[/\\]{2}\S+$/i;
/** A mail program breaks lines that are longer. */
const BROKEN_AT = 55;

// Several lines are one address where a mail program broke it: it goes on with neither space nor another scheme.
function ofLines(text: string, repairs: Repair[]): string {
  if (!LINE_BREAKS.test(text)) {
    const bare = text.replace(QUOTED, "");
    if (bare !== text && /^(?:https?:|www\.)/i.test(bare)) {
      repairs.push({ code: "words", message: "Took off the mark of a quotation." });
      return bare;
    }
    return text;
  }
  const lines = text
    .split(LINE_BREAKS)
    .map((line) => line.replace(QUOTED, "").trim())
    .filter(Boolean);
  const [first = "", ...others] = lines;
  if (lines.length === 1) {
    repairs.push({ code: "words", message: "Took the address out of the lines around it." });
    return first;
  }
  if (!WEB.test(first) || others.some((line) => /\s/.test(line) || /^[<(]?(?:https?:|www\.)/i.test(line)))
    return text;
  const isBracketed = first.startsWith("<") && lines.at(-1)!.endsWith(">");
  const isBroken = lines
    .slice(0, -1)
    .every(
      (line, at) =>
        line.length >= BROKEN_AT ||
        /[?&=%_-]$/.test(line) ||
        /^[/?&=#%]/.test(lines[at + 1]!) ||
        (at > 0 && line.endsWith("/")),
    );
  if (!isBracketed && !isBroken) return text;
  repairs.push({ code: "broken-lines", message: "Joined the lines that the address was broken into." });
  return lines.join("");
}

const ADDRESS = /(?:https?:[/\\]{2}|www\.)[^\s<>"]+/gi;

// Words around one address. Where they follow it, they may be its own, with spaces in it: that stays to be seen.
function outOfWords(text: string, repairs: Repair[]): string {
  if (!/\s/.test(text) || LINE_BREAKS.test(text)) return text;
  const found = text.match(ADDRESS) ?? [];
  if (found.length !== 1 || /^[("'<[{«‹„“‚‘]*(?:https?:|www\.)/i.test(text)) return text;
  // An address in a parameter of another one, or in HTML, is no address among words.
  const at = text.indexOf(found[0]!);
  if (at > 0 && !/[\s("'<[{«‹„“‚‘:]/.test(text[at - 1]!)) return text;
  repairs.push({ code: "words", message: "Took the address out of the words around it." });
  return found[0]!;
}

const QUOTES = "\"'`“”„‟‘’‚‛«»‹›「」『』《》〈〉";
const BEFORE = new Set(`${QUOTES}([{<`);
const BEHIND = new Set(`${QUOTES}.,;:!…。，、！`);
const CLOSING: Readonly<Record<string, string>> = { ")": "(", "]": "[", "}": "{", ">": "<" };
const OPENING: Readonly<Record<string, string>> = { "(": ")", "[": "]", "{": "}", "<": ">" };
const MAX_TAKEN = 40;
const MAIL = /^(?:mailto:|[^\s/?#@]+@[^\s/?#@]+\?)/i;

// Quotes and brackets that stand at one side only, and what ends a sentence. A bracket that the address opened is its own.
function withoutEnd(text: string, repairs: Repair[]): string {
  let start = 0;
  let end = text.length;
  while (start < Math.min(end, MAX_TAKEN) && beginsProse(text, start)) start += 1;
  while (end > start && text.length - end < MAX_TAKEN && endsProse(text, start, end)) end -= 1;
  const bare = text.slice(start, end).trim();
  // Of a text of signs alone, and of a path by itself, everything is meant.
  if (bare === "" || bare === text || /^[/.?#]*$/.test(bare)) return text;
  if (/^(?:\/(?![/\\])|[?#])/.test(bare) && start === 0) return text;
  const isCut = /…|\.\.\.$/.test(text.slice(end));
  const more = isCut ? " If it was shortened where it was copied, copy it whole." : "";
  repairs.push({ code: "punctuation", message: `Took off ${told(text, start, end)} around it.${more}` });
  return bare;
}

// Between the signs, never alone: nothing has space around it when it comes here.
function isSpace(sign: string): boolean {
  return /\s/.test(sign);
}

function beginsProse(text: string, start: number): boolean {
  const closing = OPENING[text[start]!];
  return (
    isSpace(text[start]!) ||
    (BEFORE.has(text[start]!) && (closing === undefined || !text.includes(closing, start)))
  );
}

function endsProse(text: string, start: number, end: number): boolean {
  const sign = text[end - 1]!;
  // An empty field of a mail address (RFC 6068) is none: what stands before it is the end.
  if (sign === "&" && MAIL.test(text)) return true;
  const opening = CLOSING[sign];
  if (opening === undefined) return isSpace(sign) || BEHIND.has(sign);
  const inside = text.slice(start, end);
  return inside.split(opening).length < inside.split(sign).length;
}

function told(text: string, start: number, end: number): string {
  return [text.slice(0, start), text.slice(end)]
    .filter((part) => part.trim() !== "")
    .map((part) => `“${part.trim()}”`)
    .join(" and ");
}
