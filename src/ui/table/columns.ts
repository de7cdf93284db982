import { useAddressState } from "../client/url-state.ts";
import { useRemembered } from "../client/remembered.ts";

/** The columns that a table can show besides its first, by name, and those that it shows unless told otherwise. */
export interface Columns {
  /** What the table is called where its columns are remembered. */
  table: string;
  words: Readonly<Record<string, string>>;
  /** Names with commas between them. */
  standard: string;
}

/** The columns that a choice in the screen's address stands for. */
export function shownColumns(choice: string, { words, standard }: Columns): string[] {
  return (choice || standard).split(",").filter((name) => name in words);
}

/**
 * The columns that are shown, and how to choose others: the choice stands in the screen's address, so that a view can be
 * handed on, and is remembered for the next visit.
 */
export function useColumns(of: Columns): [shown: string[], choose: (names: readonly string[]) => void] {
  const [chosen, setChosen] = useAddressState("columns");
  const [remembered, remember] = useRemembered(`columns_${of.table}`);
  const choose = (names: readonly string[]): void => {
    const ordered = Object.keys(of.words)
      .filter((one) => names.includes(one))
      .join(",");
    const said = ordered === of.standard ? "" : ordered;
    setChosen(said);
    remember(said);
  };
  return [shownColumns(chosen || remembered, of), choose];
}
