const SAY_NOTHING = new Set(
  "click|click here|here|this|this link|link|this page|page|more|read more|learn more|find out more|more info|more information|details|website|site|go|go here|see here|continue|download|article|post|source".split(
    "|",
  ),
);

/** Why these words tell a reader nothing of where a link leads; undefined when they do. */
export function emptyWords(words: string): string | undefined {
  const plain = words
    .toLowerCase()
    .replace(/[^\p{L}\p{N}\s]+/gu, " ")
    .replace(/\s+/g, " ")
    .trim();
  if (SAY_NOTHING.has(plain)) return `“${words}” says nothing about where it leads`;
  if (
    /^(?:https?:\/\/|www\.)\S+$/i.test(words) ||
    /^[\w-]+(?:\.[\w-]+)*\.[a-z]{2,}(?::\d+)?(?:\/\S*)?$/i.test(words)
  )
    return "a bare address stands where words should";
  if (/^[\d\s.,:;#%+/()-]+$/.test(words) && /\d/.test(words)) return `“${words}” is a lone number`;
  return undefined;
}
