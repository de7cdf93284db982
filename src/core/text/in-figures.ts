/** A number in a message, its thousands apart: messages are English whatever the language of a site. */
export function inFigures(count: number): string {
  return count.toLocaleString("en-GB");
}
