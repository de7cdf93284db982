/** Rows in the order of a value of each, backwards if asked; those of which it is not known come last either way. */
export function inOrder<T>(
  rows: readonly T[],
  value: (row: T) => string | number | undefined,
  down: boolean,
): T[] {
  const compare = (a: T, b: T): number => {
    const [x, y] = [value(a), value(b)];
    if (x === undefined || y === undefined) return Number(x === undefined) - Number(y === undefined);
    const order =
      typeof x === "string" ? x.localeCompare(String(y), "en") : x < Number(y) ? -1 : x > Number(y) ? 1 : 0;
    return order * (down ? -1 : 1);
  };
  return [...rows].sort(compare);
}
