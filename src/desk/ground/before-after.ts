import { isDeepStrictEqual } from "node:util";

// What is larger is not kept a second time: whole texts have their versions.
const MAX_KEPT = 20_000;

/** The fields that differ, as they were and as they are: for the history, and for putting back. */
export function beforeAndAfter(
  before: Readonly<Record<string, unknown>>,
  after: Readonly<Record<string, unknown>>,
): { before?: Record<string, unknown>; after?: Record<string, unknown> } {
  const names = [...new Set([...Object.keys(before), ...Object.keys(after)])].filter(
    (name) => !isSame(before[name], after[name]),
  );
  const kept = {
    before: Object.fromEntries(names.map((name) => [name, before[name] ?? null])),
    after: Object.fromEntries(names.map((name) => [name, after[name] ?? null])),
  };
  return names.length === 0 || JSON.stringify(kept).length > MAX_KEPT ? {} : kept;
}

/** True when a value is what it was: what is absent is nothing, and only what JSON keeps of it counts. */
export function isSame(before: unknown, after: unknown): boolean {
  return isDeepStrictEqual(plain(before), plain(after));
}

// As JSON keeps it: what is absent is nothing there.
function plain(value: unknown): unknown {
  return value === undefined ? null : JSON.parse(JSON.stringify(value));
}
