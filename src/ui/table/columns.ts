/** The columns that a table can show besides its first, by name, and those that it shows unless told otherwise. */
export interface Columns {
  words: Readonly<Record<string, string>>;
  /** Names with commas between them. */
  standard: string;
}

/** The columns that a choice in the screen's address stands for. */
export function shownColumns(choice: string, { words, standard }: Columns): string[] {
  return (choice || standard).split(",").filter((name) => name in words);
}
