/** What is typed into forms, in this browser's own store until it is saved or given up. */

interface Kept {
  /** What it was typed on, such as a version. */
  base: string;
  value: unknown;
  at: number;
}

const PREFIX = "maprope:typed:";
/** Forms whose typing is kept; beyond that, what was typed longest ago goes. */
const MAX_KEPT = 60;

/** What was typed under a key, and on what; undefined when there is nothing. */
export function readKept(key: string): { base: string; value: unknown } | undefined {
  try {
    return (JSON.parse(localStorage.getItem(PREFIX + key) ?? "null") as Kept | null) ?? undefined;
  } catch {
    return undefined; // private windows of some browsers have no storage
  }
}

/** Keeps what was typed. */
export function writeKept(key: string, base: string, value: unknown): void {
  try {
    const isNew = localStorage.getItem(PREFIX + key) === null;
    localStorage.setItem(PREFIX + key, JSON.stringify({ base, value, at: Date.now() } satisfies Kept));
    if (isNew) letGo();
  } catch {
    // The form still holds it, for as long as it is open.
  }
}

/** Forgets what was typed: it is saved, or given up. */
export function dropKept(key: string): void {
  try {
    localStorage.removeItem(PREFIX + key);
  } catch {
    // What could not be kept need not be dropped.
  }
}

/** True when a form of today can show what was kept: an earlier version of the application had other fields. */
export function hasShapeOf(value: unknown, form: unknown): boolean {
  if (Array.isArray(form)) return Array.isArray(value);
  if (typeof form !== "object" || form === null) return typeof value === typeof form;
  if (typeof value !== "object" || value === null) return false;
  return Object.keys(form).every((name) => name in value);
}

function letGo(): void {
  const keys = Object.keys(localStorage).filter((key) => key.startsWith(PREFIX));
  if (keys.length <= MAX_KEPT) return;
  const aged = keys.map((key) => ({ key, at: (JSON.parse(localStorage.getItem(key)!) as Kept).at ?? 0 }));
  for (const { key } of aged.sort((a, b) => a.at - b.at).slice(0, keys.length - MAX_KEPT))
    localStorage.removeItem(key);
}
