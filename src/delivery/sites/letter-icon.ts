import { escapeText } from "entities/escape";

/** The icon of a site that has brought none: the first letter of its name, in the colours of delivered pages. */
export function letterIcon(name: string): string {
  const [letter = "·"] = [...new Intl.Segmenter("en", { granularity: "grapheme" }).segment(name)].map(
    ({ segment }) => segment,
  );
  return (
    '<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 32 32"><rect width="32" height="32" rx="6" fill="#7a4a12"/>' +
    '<text x="16" y="23" font-family="Georgia, serif" font-size="21" fill="#fff" text-anchor="middle">' +
    `${escapeText(letter.toUpperCase())}</text></svg>`
  );
}
