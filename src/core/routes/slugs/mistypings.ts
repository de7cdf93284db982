/** A spelling that people may type instead, and why. */
export interface Mistyping {
  slug: string;
  reason: string;
}

const SOUNDS: readonly (readonly [RegExp, string, string])[] = [
  [/ph/, "f", "as it sounds"],
  [/ck/, "k", "as it sounds"],
  [/(?<=[^aeiou])c(?=[aou])/, "k", "as it sounds"],
  [/ise/, "ize", "the other spelling"],
  [/our/, "or", "the other spelling"],
  [/ie/, "ei", "a common slip"],
  [/ei/, "ie", "a common slip"],
  [/ance/, "ence", "a common slip"],
  [/ar$/, "er", "a common slip"],
  [/er(?=$|[^a-z])/, "ar", "a common slip"],
];
const NUMBERS: readonly (readonly [string, string])[] = [
  ["one", "1"],
  ["two", "2"],
  ["three", "3"],
  ["four", "4"],
  ["five", "5"],
  ["six", "6"],
  ["seven", "7"],
  ["eight", "8"],
  ["nine", "9"],
  ["ten", "10"],
  ["eleven", "11"],
  ["twelve", "12"],
  ["thirteen", "13"],
];

/**
 * Spellings of a slug that people type by mistake, likeliest first: hyphens left out or put in, a doubled letter
 * once, singular for plural, numbers as digits, what sounds the same. Those that `isTaken` are left out.
 */
export function mistypings(slug: string, isTaken: (slug: string) => boolean, most = 6): Mistyping[] {
  const lower = slug.toLowerCase();
  const found: Mistyping[] = [];
  const add = (other: string, reason: string): void => {
    if (other.length > 1 && other !== lower && !found.some((one) => one.slug === other))
      found.push({ slug: other, reason });
  };
  if (lower.includes("-")) {
    add(lower.replaceAll("-", ""), "without hyphens");
    add(lower.replaceAll("-", "_"), "underscores for hyphens");
  }
  for (const [word, digits] of NUMBERS) {
    if (new RegExp(`(?:^|-)${word}(?:-|$)`).test(lower))
      add(lower.replace(word, digits), "the number as digits");
    if (new RegExp(`(?:^|-)${digits}(?:-|$)`).test(lower))
      add(lower.replace(digits, word), "the number as a word");
  }
  add(lower.endsWith("s") ? lower.slice(0, -1) : `${lower}s`, lower.endsWith("s") ? "singular" : "plural");
  const doubled = /([a-z])\1/.exec(lower);
  if (doubled) add(lower.replace(doubled[0], doubled[1]!), "the double letter once");
  for (const [from, to, reason] of SOUNDS) if (from.test(lower)) add(lower.replace(from, to), reason);
  const single = /(?<=[aeiou])([lmnprt])(?=[aeiou])/.exec(lower);
  if (single) add(lower.replace(single[0], single[0] + single[0]), "a letter doubled");
  return found.filter((one) => !isTaken(one.slug)).slice(0, most);
}
