import { useEffect, useRef, type FocusEvent } from "react";

const CAN_FOCUS = "button:not(:disabled), a[href], input:not(:disabled)";

/**
 * Keeps the focus in a table when the row that had it is gone: what stands in its place takes it, or the row before where
 * it was the last. Answers what the table's body is to have as `onFocus`.
 */
export function useRowFocus(keys: readonly string[]): (event: FocusEvent<HTMLElement>) => void {
  const had = useRef<{ key: string; at: number; body: HTMLElement } | undefined>(undefined);
  useEffect(() => {
    const last = had.current;
    if (!last || keys.includes(last.key)) return;
    had.current = undefined;
    // Somebody has gone elsewhere meanwhile.
    if (document.activeElement !== document.body) return;
    const rows = last.body.querySelectorAll("tr");
    const row = rows[Math.min(last.at, rows.length - 1)];
    row?.querySelector<HTMLElement>(CAN_FOCUS)?.focus();
  }, [keys]);
  return ({ target, currentTarget }) => {
    const key = target.closest("tr")?.dataset.key;
    if (key !== undefined) had.current = { key, at: keys.indexOf(key), body: currentTarget };
  };
}
