// A cell that begins so is run by spreadsheets as a formula. An apostrophe in front keeps it text; cells that begin
// with apostrophes of their own get one more, so that reading takes exactly one away again.
const RUNS = /^'*[=+\-@\t\r]/;

/** A cell as it is written into CSV: nothing that a spreadsheet would run. */
export function guardedCell(text: string): string {
  return RUNS.test(text) ? `'${text}` : text;
}

/** The cell's text, as it was before `guardedCell`. */
export function readCell(cell: string): string {
  return cell.startsWith("'") && RUNS.test(cell.slice(1)) ? cell.slice(1) : cell;
}
