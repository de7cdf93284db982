const DIGITS = ["zero", "one", "two", "three", "four", "five", "six", "seven", "eight", "nine"];
const SIGNS: Readonly<Record<string, string>> = {
  ".": "dot",
  "-": "hyphen",
  _: "underscore",
  "/": "slash",
  "~": "tilde",
  "+": "plus",
};

/**
 * How an address is said aloud, as on the radio: words as words, what cannot be said as a word letter by letter,
 * signs and digits by their names. Scheme and port are left out, as people leave them out.
 */
export function spoken(address: string): string {
  const text = address
    .replace(/^https?:\/\//i, "")
    .replace(/^([^/:]*):\d+/, "$1")
    .replace(/\/$/, "");
  return [...text.matchAll(/[a-z]+|\d|[^a-z\d]/gi)]
    .map(([part]) => {
      if (/^\d$/.test(part)) return DIGITS[Number(part)]!;
      if (/^[a-z]/i.test(part))
        return sayable(part) ? part.toLowerCase() : part.toUpperCase().split("").join(" ");
      return SIGNS[part] ?? "sign";
    })
    .join(" ");
}

/** True for letters that people say as one word: with a vowel, and no more than three consonants in a row. */
function sayable(letters: string): boolean {
  return letters.length > 1 && /[aeiouy]/i.test(letters) && !/[^aeiouy]{5}/i.test(letters);
}

/** What may be misheard or misread in a slug, in words; undefined when nothing is. */
export function mistakable(slug: string): string | undefined {
  if (/[a-z]\d|\d[a-z]/i.test(slug)) return "letters and digits next to each other are hard to say";
  if (/(.)\1\1/.test(slug)) return "three times the same sign is hard to count";
  if (/_/.test(slug)) return "an underscore disappears below an underlined link";
  if (/--/.test(slug)) return "two hyphens look like one";
  return /[l1][l1]|[o0][o0]\d|I/.test(slug) ? "l, 1 and I, or o and 0, look alike" : undefined;
}
