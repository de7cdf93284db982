import type { Page, Placement } from "../../../core/pages/page.ts";
import type { WrittenPageSearch } from "../../../core/pages/search.ts";
import type { Backup } from "./backup.ts";
import type { WrittenChange } from "./written-change.ts";

/** The fields of a page that the writing view edits. */
export interface DraftFields {
  path: string;
  title: string;
  description: string;
  category: string;
  inNavigation: boolean;
  search: WrittenPageSearch;
  placement: Placement | null;
}

/** A change of the draft. The text is given as a function: it is only written out when it is saved or kept, a body as JSON. */
export type DraftChange = Partial<DraftFields> & { body?: () => string; html?: () => string };

export type SaveState = "saved" | "waiting" | "saving" | "failed";

/** Whose text replaces what stands in the editor: somebody else's, or one's own that was written as source. */
export type AdoptedFrom = "others" | "source";

/** What a screen shows of the draft. */
export interface DraftView {
  page: Page;
  fields: DraftFields;
  state: SaveState;
  /** Why the last save failed; at its field when the server named one. */
  failure: string | undefined;
  fieldErrors: Record<string, string>;
  /** What somebody else saved meanwhile; nothing is written until the person has chosen. */
  conflict: Page | undefined;
}

/** What the draft has of the world around it. */
export interface DraftWorld {
  /** Saves a change over a version. Throws ApiProblem when it is refused. */
  save(change: WrittenChange, version: number): Promise<Page>;
  keep(backup: Backup): void;
  forget(): void;
  /** The page's text replaces what stands in the editor. */
  adopted(page: Page, from: AdoptedFrom): void;
  /** A failure in words. */
  wordsOf(error: unknown): string;
  now(): number;
  later(ms: number, work: () => void): () => void;
}
