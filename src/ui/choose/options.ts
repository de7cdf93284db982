/** Something that can be chosen: what is kept, and what is read. */
export interface Option {
  value: string;
  word: string;
  /** What else tells it from its like, such as a path or how many there are. */
  note?: string;
}

/** The options of plain words that stand for themselves, each once. */
export function asOptions(words: readonly string[]): Option[] {
  return [...new Set(words)].filter(Boolean).map((word) => ({ value: word, word }));
}

/** How many options are shown at once; the rest is reached by typing. */
export const MAX_SHOWN = 50;

const plain = (text: string): string => text.normalize("NFD").replace(/\p{M}/gu, "").toLowerCase();

/**
 * The options that hold every word that was typed, in whatever order, without regard to case and accents; those that
 * begin with what was typed stand first, else they stay as they were.
 */
export function optionsFor(options: readonly Option[], typed: string): Option[] {
  const wanted = plain(typed.trim());
  if (wanted === "") return [...options];
  const words = wanted.split(/\s+/);
  const found = options.flatMap((option) => {
    const text = plain(`${option.word} ${option.note ?? ""}`);
    return words.every((word) => text.includes(word)) ? [{ option, isFirst: text.startsWith(wanted) }] : [];
  });
  return [...found.filter(({ isFirst }) => isFirst), ...found.filter(({ isFirst }) => !isFirst)].map(
    ({ option }) => option,
  );
}

/** What was typed or pasted as entries, each once: they stand in lines or with commas between them. */
export function entriesOf(typed: string, between: RegExp = /[\n,]/): string[] {
  return [...new Set(typed.split(between).map((entry) => entry.trim()))].filter(Boolean);
}

/**
 * What entries mean: an option by its value or its word, else themselves where anything may be said; the rest is
 * `unknown`.
 */
export function chosenBy(
  entries: readonly string[],
  options: readonly Option[],
  isFree: boolean,
): { chosen: string[]; unknown: string[] } {
  const chosen: string[] = [];
  const unknown: string[] = [];
  for (const entry of entries) {
    const option =
      options.find(({ value }) => value === entry) ??
      options.find(({ word }) => plain(word) === plain(entry));
    if (option) chosen.push(option.value);
    else (isFree ? chosen : unknown).push(entry);
  }
  return { chosen, unknown };
}
