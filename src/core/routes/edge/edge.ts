import { z } from "zod";
import { EDGE_LEFT } from "./edge-route.ts";

/** A web server that answers for us, as a site sees it. */
export const edgeSchema = z.object({
  name: z.string(),
  /** When its configuration was last written; null before the first time. */
  writtenAt: z.string().nullable(),
  /** Something has changed that it does not answer yet. */
  isBehind: z.boolean(),
  /** When whoever writes its configuration was last heard of. */
  seenAt: z.string().nullable(),
  /** Why its last configuration was not taken; empty where it was. */
  fault: z.string(),
  /** Routes of this site that it answers by itself, and how many it leaves to us, by why. */
  routes: z.int(),
  left: z.array(z.object({ why: z.enum(EDGE_LEFT), routes: z.int() })),
  /** When its clicks were last collected; null before the first time. */
  collectedAt: z.string().nullable(),
  /** Clicks of all sites that were collected, and lines of its log that nobody could read. */
  collected: z.int(),
  unreadable: z.int(),
  waitingBytes: z.int(),
  collectFault: z.string(),
  /** How many milliseconds its clock is ahead of the database's. */
  clockMs: z.int(),
});
export type Edge = z.infer<typeof edgeSchema>;
