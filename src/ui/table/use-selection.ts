import { useRef, useState } from "react";

/** Which rows are marked: some by id, or all that the filter leaves. */
export interface Selection {
  ids: ReadonlySet<string>;
  /** All that the filter leaves, those not shown yet too. */
  all: boolean;
  has(id: string): boolean;
  /** Marks or unmarks one; `through`: all from the last one marked to this. */
  mark(id: string, on: boolean, through: boolean): void;
  markAll(on: boolean): void;
  /** Takes all that the filter leaves. */
  takeAll(): void;
  clear(): void;
}

/** Marks over the rows that are shown, in their order. */
export function useSelection(shown: readonly string[]): Selection {
  const [ids, setIds] = useState<ReadonlySet<string>>(new Set());
  const [all, setAll] = useState(false);
  const last = useRef<string>(undefined);
  const change = (change: (next: Set<string>) => void): void => {
    const next = new Set(all ? shown : ids);
    change(next);
    setAll(false);
    setIds(next);
  };
  return {
    ids,
    all,
    has: (id) => all || ids.has(id),
    mark(id, on, through) {
      const from = through && last.current ? shown.indexOf(last.current) : -1;
      const to = shown.indexOf(id);
      const run = from === -1 ? [id] : shown.slice(Math.min(from, to), Math.max(from, to) + 1);
      last.current = id;
      change((next) => run.forEach((one) => (on ? next.add(one) : next.delete(one))));
    },
    markAll: (on) => change((next) => shown.forEach((one) => (on ? next.add(one) : next.delete(one)))),
    takeAll() {
      setAll(true);
      setIds(new Set(shown));
    },
    clear() {
      setAll(false);
      setIds(new Set());
    },
  };
}
