import { del, get, set } from "idb-keyval";

/** What had been written and not saved, kept in this browser: a tab that crashes loses nothing. */
export interface Backup {
  /** Version of the page that it was written on. */
  version: number;
  change: Record<string, unknown>;
  at: number;
}

const keyOf = (pageId: string): string => `maprope:draft:${pageId}`;

/** The backup of a page; undefined when there is none, or the browser keeps nothing. */
export async function readBackup(pageId: string): Promise<Backup | undefined> {
  return get<Backup>(keyOf(pageId)).catch(() => undefined); // private windows of some browsers have no storage
}

export async function writeBackup(pageId: string, backup: Backup): Promise<void> {
  await set(keyOf(pageId), backup).catch(() => undefined); // the server still gets it with the next save
}

export async function dropBackup(pageId: string): Promise<void> {
  await del(keyOf(pageId)).catch(() => undefined); // one that stays is recognised by its version
}
