import { walkTags } from "./start-tags.ts";

const BLOCKS = new Set("p li h2 h3 h4 h5 h6 blockquote figure figcaption pre td th dd dt".split(" "));

/** A document's text, where its blocks begin (offsets of their start tags), and how many words it has. */
export interface PlainText {
  text: string;
  blocks: number[];
  words: number;
}

/** Reads the text of a document. */
export function plainText(html: string): PlainText {
  const blocks: number[] = [];
  const pieces: string[] = [];
  walkTags(
    html,
    {
      startTag(tag) {
        blocks.push(tag.start);
        pieces.push(" ");
      },
      text: (piece) => void pieces.push(piece),
    },
    BLOCKS,
  );
  const text = pieces.join("");
  return { text, blocks, words: countWords(text) };
}

const BEGINS = /[\p{L}\p{N}]/u;
const GOES_ON = /[\p{L}\p{M}\p{N}’]/u;

/** How many words a text has: a letter or figure, and what belongs to it. */
export function countWords(text: string): number {
  let words = 0;
  let within = false;
  for (let at = 0; at < text.length; at += 1) {
    const code = text.charCodeAt(at);
    if (isPlain(code)) {
      if (!within) words += 1;
      within = true;
    } else if (code < 128) within &&= code === APOSTROPHE || code === HYPHEN;
    else {
      const sign = String.fromCodePoint(text.codePointAt(at)!);
      at += sign.length - 1;
      const goesOn = (within ? GOES_ON : BEGINS).test(sign);
      if (goesOn && !within) words += 1;
      within = goesOn;
    }
  }
  return words;
}

const APOSTROPHE = 39;
const HYPHEN = 45;

function isPlain(code: number): boolean {
  return (code >= 97 && code <= 122) || (code >= 65 && code <= 90) || (code >= 48 && code <= 57);
}
