/** The place of the first of these signs in a text; its length when none stands there. */
function firstOf(text: string, signs: string): number {
  let first = text.length;
  for (const sign of signs) {
    const at = text.indexOf(sign);
    if (at !== -1 && at < first) first = at;
  }
  return first;
}

/** What stands before the first of these signs; all of it when there is none. Linear. */
export function before(text: string, signs: string): string {
  return text.slice(0, firstOf(text, signs));
}

/** The text from the first of these signs on, which is with it; empty when there is none. Linear. */
export function from(text: string, signs: string): string {
  return text.slice(firstOf(text, signs));
}

/** A text without these signs at its ends. Linear, as an expression for it is not. */
export function withoutEnds(text: string, signs: string): string {
  let start = 0;
  let end = text.length;
  while (start < end && signs.includes(text[start]!)) start += 1;
  while (end > start && signs.includes(text[end - 1]!)) end -= 1;
  return text.slice(start, end);
}
