import { useEffect, useRef, useState, type KeyboardEvent } from "react";
import { rowAfter, rowKey } from "./row-keys.ts";
import type { Selection } from "./use-selection.ts";

/** How many frames a row far away may take to be drawn. */
const FRAMES = 20;

// A row that is drawn has the focus before the next key comes; one far away as soon as it is there.
function focusRow(index: number, frames: number): void {
  const row = document.querySelector<HTMLElement>(`[data-row="${index}"]`);
  if (row) row.focus();
  else if (frames > 0) requestAnimationFrame(() => focusRow(index, frames - 1));
}

/** The keyboard of a table: which row has the focus, and what keys do. `show` brings a row into sight. */
export function useRowKeys<T extends { id: string }>(
  rows: readonly T[],
  selection: Selection,
  onKey: (key: string, row: T) => boolean,
  show: (index: number) => void,
) {
  const [at, setAt] = useState(0);
  const goTo = (next: number): void => {
    setAt(next);
    show(next);
    focusRow(next, FRAMES);
  };
  // The row that had the focus is gone: what stands in its place takes it, unless somebody has gone elsewhere.
  const had = useRef<string>(undefined);
  useEffect(() => {
    if (had.current === undefined || rows.some(({ id }) => id === had.current)) return;
    had.current = undefined;
    if (document.activeElement === document.body && rows.length > 0) goTo(Math.min(at, rows.length - 1));
  });
  const means = ({ key, shiftKey }: KeyboardEvent<HTMLElement>): boolean => {
    const row = rows[at];
    const meaning = rowKey(key);
    if (meaning === undefined) return row !== undefined && onKey(key, row);
    if (meaning === "mark") {
      if (row) selection.mark(row.id, !selection.has(row.id), false);
      return row !== undefined;
    }
    if (typeof meaning === "object" && shiftKey && row) selection.mark(row.id, true, false);
    goTo(rowAfter(at, meaning, rows.length));
    return true;
  };
  const onKeyDown = (event: KeyboardEvent<HTMLElement>): void => {
    const target = event.target as HTMLElement;
    if (target.closest("input, button, a, select") && !["ArrowDown", "ArrowUp"].includes(event.key)) return;
    if (event.ctrlKey || event.metaKey || event.altKey) return;
    if (means(event)) event.preventDefault();
  };
  return {
    at: Math.min(at, Math.max(0, rows.length - 1)),
    onFocus(index: number) {
      had.current = rows[index]?.id;
      setAt(index);
    },
    onKeyDown,
  };
}
