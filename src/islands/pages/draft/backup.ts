import { del, get, set } from "idb-keyval";
import { keptChange, type WrittenChange } from "./written-change.ts";

/** What had been written and not saved, kept in this browser: a tab that crashes loses nothing. */
export interface Backup extends WrittenChange {
  /** Version of the page that it was written on. */
  version: number;
  /** What of it was on its way to the server when this was kept: it may have arrived as the next version. */
  sending?: WrittenChange;
  at: number;
}

const keyOf = (pageId: string): string => `maprope:draft:${pageId}`;
/** More than this a browser's synchronous store may not take. */
const MAX_AT_ONCE = 2_000_000;

/** The newest backup of a page; undefined when there is none, or the browser keeps nothing. */
export async function readBackup(pageId: string): Promise<Backup | undefined> {
  const kept = await get<Backup>(keyOf(pageId)).catch(() => undefined); // private windows of some browsers have no storage
  const left = readLeft(pageId);
  const newest = left && left.at >= (kept?.at ?? 0) ? left : kept;
  return newest && { ...newest, change: keptChange(newest) };
}

export async function writeBackup(pageId: string, backup: Backup): Promise<void> {
  await set(keyOf(pageId), backup).catch(() => undefined); // the server still gets it with the next save
}

/** Keeps it at once, for a tab that is being left: what is only begun then does not come to its end. */
export function leaveBackup(pageId: string, backup: Backup): void {
  try {
    const text = JSON.stringify(backup);
    if (text.length <= MAX_AT_ONCE) localStorage.setItem(keyOf(pageId), text);
  } catch {
    // The other store has what is older than a quarter of a second.
  }
}

export async function dropBackup(pageId: string): Promise<void> {
  try {
    localStorage.removeItem(keyOf(pageId));
  } catch {
    // One that stays is recognised by what it holds.
  }
  await del(keyOf(pageId)).catch(() => undefined); // one that stays is recognised by its version
}

function readLeft(pageId: string): Backup | undefined {
  try {
    return (JSON.parse(localStorage.getItem(keyOf(pageId)) ?? "null") as Backup | null) ?? undefined;
  } catch {
    return undefined;
  }
}
