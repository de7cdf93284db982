/** Whether a text from outside can be the id of a row (a positive bigint); any other is asked of no table. */
export function isRowId(text: string): boolean {
  return /^\d{1,18}$/.test(text);
}

/** A text from outside as the id of a row: of none that there is, where it can be none's. */
export function rowIdOf(text: string): string {
  return isRowId(text) ? text : "0";
}
