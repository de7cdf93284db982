/** What can have the focus in the row of that key: the row itself, or the first thing in it; else the table's row that Tab goes to. */
export function rowOf(key: string): HTMLElement | null {
  const row = document.querySelector<HTMLElement>(`tr[data-key="${CSS.escape(key)}"]`);
  if (!row) return document.querySelector<HTMLElement>("tr[data-row][tabindex='0']");
  return row.tabIndex >= 0 || row.hasAttribute("tabindex")
    ? row
    : row.querySelector<HTMLElement>("button, a[href], input");
}
