import type { Page } from "../../../core/pages/page.ts";
import { ApiProblem } from "../../../ui/client/api-problem.ts";
import type { Backup } from "./backup.ts";
import type { DraftChange, DraftFields, DraftView, DraftWorld } from "./draft-view.ts";
import { isSavedIn } from "./saved-in.ts";
import {
  isEmpty,
  keptChange,
  NOTHING_WRITTEN,
  over,
  writtenOut,
  writtenOver,
  type WrittenChange,
} from "./written-change.ts";

/** A save waits for a rest in the typing, but never longer than this. */
export const REST_MS = 700;
export const MAX_MS = 2_500;
/** How old what this browser has kept may be, while somebody types and when they stop. */
export const BACKUP_MS = 200;
export const RETRY_MS = 4_000;

/**
 * A draft that saves itself. What is typed waits for a rest, is kept in this browser meanwhile, and is sent one save at
 * a time; what could not be saved waits together with what was typed since. It knows nothing of a browser.
 */
export class DraftMachine {
  #view: DraftView;
  readonly #world: DraftWorld;
  readonly #listeners = new Set<() => void>();
  #version: number;
  #pending: Record<string, unknown> = {};
  #sending: WrittenChange = NOTHING_WRITTEN;
  #running: Promise<boolean> | undefined;
  #waitingSince = 0;
  #lastEdit = 0;
  /** What was saved in the midst of typing, to be shown at its rest. */
  #unshown: Page | undefined;
  #stopSave: (() => void) | undefined;
  #stopRest: (() => void) | undefined;
  #stopKeep: (() => void) | undefined;

  constructor(first: Page, recovered: Backup | undefined, world: DraftWorld) {
    this.#world = world;
    this.#version = first.version;
    this.#view = {
      page: first,
      fields: pickFields({ ...first, ...recovered?.change }),
      state: "saved",
      failure: undefined,
      fieldErrors: {},
      conflict: undefined,
    };
  }

  readonly subscribe = (listener: () => void): (() => void) => {
    this.#listeners.add(listener);
    return () => this.#listeners.delete(listener);
  };
  readonly view = (): DraftView => this.#view;

  /** The version that the next save is made over. */
  get version(): number {
    return this.#version;
  }
  /** Nothing waits to be sent. */
  get isIdle(): boolean {
    return Object.keys(this.#pending).length === 0;
  }
  readonly isAllSaved = (): boolean => isEmpty(this.#sending) && this.isIdle;
  /** What waits to be sent, written out. */
  unsaved(): Record<string, unknown> {
    return keptChange(writtenOut(this.#pending));
  }
  /** Waits for the save that runs. */
  async settled(): Promise<void> {
    await this.#running;
  }

  readonly edit = (change: DraftChange): void => {
    const { body, html, ...others } = change;
    this.#pending = over(this.#pending, body || html ? change : others);
    const fields = Object.keys(others).length > 0 ? { ...this.#view.fields, ...others } : this.#view.fields;
    this.#show({ fields, state: "waiting" });
    const now = this.#world.now();
    this.#lastEdit = now;
    if (this.#waitingSince === 0) this.#waitingSince = now;
    this.#stopRest?.();
    this.#unshown = undefined;
    this.#stopSave?.();
    const wait = Math.max(0, Math.min(REST_MS, this.#waitingSince + MAX_MS - now));
    this.#stopSave = this.#world.later(wait, () => void this.#save("at rest"));
    // Each key is kept soon after it was pressed, whether or not another one follows.
    this.#stopKeep ??= this.#world.later(BACKUP_MS, () => {
      this.#stopKeep = undefined;
      if (!this.isIdle) this.#world.keep(this.backupNow());
    });
  };

  readonly saveNow = (): Promise<boolean> => this.#save("at once");

  readonly backupNow = (): Backup => {
    const sent = this.#sending;
    const kept = writtenOver(sent, writtenOut(this.#pending));
    return {
      version: this.#version,
      at: this.#world.now(),
      ...kept,
      ...(isEmpty(sent) ? {} : { sending: sent }),
    };
  };

  /** Goes on from a version of the page that was fetched or restored. */
  readonly adopt = (next: Page): void => {
    this.#stopSave?.();
    this.#stopRest?.();
    this.#unshown = undefined;
    this.#pending = {};
    this.#waitingSince = 0;
    this.#version = next.version;
    this.#show({
      page: next,
      fields: pickFields(next),
      failure: undefined,
      fieldErrors: {},
      state: "saved",
    });
    this.#world.adopted(next, "others");
  };

  /**
   * Takes up what a tab that crashed had not saved. Answers what became of it: it stands in the page already, is
   * written over the version that it was written on, or meets what somebody saved since.
   */
  recover(recovered: Backup, first: Page): "arrived" | "goes on" | "conflict" {
    // What was sent as the tab was left has arrived: it is what stands there.
    if (isSavedIn(recovered.change, first)) {
      this.#world.forget();
      return "arrived";
    }
    this.#pending = recovered.change;
    const { version: base, sending: sent } = recovered;
    const hasSentArrived =
      sent !== undefined && first.version === base + 1 && isSavedIn(keptChange(sent), first);
    if (base !== first.version && !hasSentArrived) {
      this.#show({ conflict: first });
      return "conflict";
    }
    this.#show({ state: "waiting" });
    void this.saveNow();
    return "goes on";
  }

  /** Ends a conflict: goes on from the other's version, with one's own text over it or not. */
  resolve(conflict: Page, keepMine: boolean): void {
    this.#version = conflict.version;
    this.#show({ conflict: undefined, failure: undefined });
    if (keepMine) return void this.saveNow();
    this.#world.forget();
    this.adopt(conflict);
  }

  /** The page after it was published or taken back. */
  showPage(page: Page): void {
    this.showSaved();
    this.#show({ page, failure: undefined });
  }

  /** Tells why something that needs the saved draft was refused. */
  showRefusal(problem: ApiProblem): void {
    this.#show({
      failure: problem.message,
      fieldErrors: byField(problem),
      ...(problem.status === 409 ? { conflict: problem.current as Page } : {}),
    });
  }

  // A save in the midst of typing is shown when the typing rests: to render a long page between two keys would be felt.
  showSaved(): void {
    this.#stopRest?.();
    if (!this.#unshown) return;
    this.#show({ page: this.#unshown, state: "saved" });
    this.#unshown = undefined;
  }

  async #save(show: "at once" | "at rest"): Promise<boolean> {
    this.#stopSave?.();
    await this.#running;
    this.#running = this.#send(show);
    return this.#running;
  }

  async #send(show: "at once" | "at rest"): Promise<boolean> {
    const change = this.#pending;
    if (this.isIdle) {
      this.showSaved();
      return true;
    }
    this.#pending = {};
    const written = writtenOut(change);
    this.#sending = written;
    this.#waitingSince = 0;
    if (this.#restLeft(show) <= 0) this.#show({ state: "saving" });
    try {
      const saved = await this.#world
        .save(written, this.#version)
        .catch((error: unknown) => arrivedBefore(error, keptChange(written)));
      this.#arrived(saved, show);
      if (change.html !== undefined) this.#world.adopted(saved, "source");
      return true;
    } catch (error) {
      this.#refused(change, error);
      return false;
    }
  }

  #arrived(saved: Page, show: "at once" | "at rest"): void {
    this.#sending = NOTHING_WRITTEN;
    this.#version = saved.version;
    this.#show({ failure: undefined, fieldErrors: {} });
    if (!this.isIdle) return this.#show({ state: "waiting" });
    this.#unshown = saved;
    const rest = this.#restLeft(show);
    if (rest > 0) this.#stopRest = this.#world.later(rest, () => this.showSaved());
    else this.showSaved();
    this.#stopKeep?.();
    this.#stopKeep = undefined;
    this.#world.forget();
  }

  #refused(change: Record<string, unknown>, error: unknown): void {
    // What could not be saved waits together with what was typed since.
    this.#pending = over(change, this.#pending);
    this.#sending = NOTHING_WRITTEN;
    const failure = this.#world.wordsOf(error);
    const problem = error instanceof ApiProblem ? error : undefined;
    if (problem?.status === 409)
      return this.#show({ state: "failed", failure, conflict: problem.current as Page });
    if (problem?.status === 422)
      return this.#show({ state: "failed", failure, fieldErrors: byField(problem) });
    this.#show({ state: "failed", failure });
    this.#stopSave = this.#world.later(RETRY_MS, () => void this.#save("at once"));
  }

  #restLeft(show: "at once" | "at rest"): number {
    return show === "at once" ? 0 : this.#lastEdit + REST_MS - this.#world.now();
  }

  // Who looks on is told of a change alone: most keys change nothing that is shown.
  #show(part: Partial<DraftView>): void {
    const isSame = Object.entries(part).every(([name, value]) => {
      const before = this.#view[name as keyof DraftView];
      return before === value || (isBare(before) && isBare(value));
    });
    if (isSame) return;
    this.#view = { ...this.#view, ...part };
    for (const listener of this.#listeners) listener();
  }
}

function isBare(value: unknown): boolean {
  return typeof value === "object" && value !== null && Object.keys(value).length === 0;
}

function pickFields(page: Page): DraftFields {
  const { path, title, description, category, inNavigation, search, placement } = page;
  return { path, title, description, category, inNavigation, search, placement };
}

/** The page, where a save is refused since it has arrived before: by the request that outlived its tab. */
function arrivedBefore(error: unknown, change: Record<string, unknown>): Page {
  const current = error instanceof ApiProblem && error.status === 409 ? (error.current as Page) : undefined;
  if (current && isSavedIn(change, current)) return current;
  throw error;
}

function byField(problem: ApiProblem): Record<string, string> {
  return Object.fromEntries(problem.errors.map(({ path, message }) => [path, message]));
}
