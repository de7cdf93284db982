/** What a key means on a row of a table. */
export type RowKey = { go: number } | "first" | "last" | "mark" | undefined;

const STEPS: Readonly<Record<string, number>> = {
  ArrowDown: 1,
  j: 1,
  ArrowUp: -1,
  k: -1,
  PageDown: 20,
  PageUp: -20,
};

/** The meaning of a key on a row; undefined for those that mean what the table's owner says. */
export function rowKey(key: string): RowKey {
  const step = STEPS[key];
  if (step !== undefined) return { go: step };
  if (key === "Home") return "first";
  if (key === "End") return "last";
  return key === " " ? "mark" : undefined;
}

/** The row that a key leads to from this one, of so many. */
export function rowAfter(at: number, meaning: RowKey, rows: number): number {
  const last = Math.max(0, rows - 1);
  if (meaning === "first") return 0;
  if (meaning === "last") return last;
  return Math.max(0, Math.min(last, at + (typeof meaning === "object" ? meaning.go : 0)));
}
