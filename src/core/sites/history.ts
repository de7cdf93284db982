import { z } from "zod";
import { BIN_KINDS } from "./choices.ts";

/** What somebody did: who, when, to what, and what it was before and after where that was kept. */
export const historyEntrySchema = z.object({
  id: z.string(),
  at: z.string(),
  person: z.string(),
  /** What was done, such as `page.publish`: the kind of object, and what happened to it. */
  action: z.string(),
  /** What it was done to: an id, or a name. */
  object: z.string(),
  /** What that is called by now, where it is still there. */
  name: z.string().nullable(),
  before: z.unknown(),
  after: z.unknown(),
  /** Whether that can be put back as it was before. */
  canPutBack: z.boolean(),
  /** The id of the request that did it; null for what was not asked for by one. */
  requestId: z.string().nullable(),
  /** What else was kept of it. */
  detail: z.record(z.string(), z.unknown()),
});
export type HistoryEntry = z.infer<typeof historyEntrySchema>;

/** Something that was deleted and can be brought back. */
export const binItemSchema = z.object({
  /** Its kind and id, such as `page-12`. */
  id: z.string(),
  kind: z.enum(BIN_KINDS),
  name: z.string(),
  /** Where it stood, or leads to. */
  address: z.string(),
  deletedAt: z.string(),
  /** Null where it went with many others, or before that was kept. */
  deletedBy: z.string().nullable(),
});
export type BinItem = z.infer<typeof binItemSchema>;
