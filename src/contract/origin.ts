import { z } from "zod";
import {
  foundSchema,
  frameAreasSchema,
  frameInputSchema,
  frameLookSchema,
  frontCheckSchema,
  frontInputSchema,
  frontSchema,
  originChangeSchema,
  originInputSchema,
  originSchema,
  readingResultsSchema,
  readingSchema,
  READING_STATES,
  readNowSchema,
} from "../core/origin/origin.ts";
import { TODO_STATES, todoSchema } from "../core/origin/todo.ts";
import { LOOKED_AT, call, listOf } from "./ground/call.ts";
import { listQuery } from "./ground/lists.ts";

export const readingsQuery = listQuery.extend({
  state: z.enum(READING_STATES, `state is one of ${READING_STATES.join(", ")}.`).optional(),
});

export const todosQuery = listQuery.extend({
  state: z.enum(TODO_STATES, `state is one of ${TODO_STATES.join(", ")}.`).default("open"),
});

const roundResult = z.object({
  read: z.int(),
  waiting: z.int(),
  /** Why it ended before all was read; empty where it did not. */
  ended: z.string(),
});

/** The calls about pages that stand elsewhere. */
export const origin = {
  read: call("GET", "/sites/:site/origin", {
    summary: "Where the site's pages stand that are not written here, and how far they are read",
    role: "reader",
    answer: originSchema,
  }),
  name: call("PUT", "/sites/:site/origin", {
    summary: "Name where the site's pages stand; what was read at another address is forgotten",
    role: "owner",
    body: originInputSchema,
    answer: originSchema,
  }),
  change: call("PATCH", "/sites/:site/origin", {
    summary: "Change what is read, and how gently",
    role: "editor",
    body: originChangeSchema,
    answer: originSchema,
  }),
  drop: call("DELETE", "/sites/:site/origin", {
    summary: "All pages are written here again; what was read is forgotten",
    role: "owner",
  }),
  look: call("POST", "/sites/:site/origin/look", {
    summary: "Look at what there is: robots file, sitemaps, feeds and front page, as a job",
    role: "editor",
    answer: foundSchema,
    job: "always",
  }),
  round: call("POST", "/sites/:site/origin/round", {
    summary:
      "Read the pages that were chosen and have not been read, as a job; with `again`, all of them once more",
    role: "editor",
    body: z.strictObject({ again: z.boolean("again is true or false.").default(false) }),
    answer: roundResult,
    job: "always",
  }),
  now: call("POST", "/sites/:site/read", {
    summary: "Read these pages at once, as another system has just published them, as a job",
    role: "editor",
    body: readNowSchema,
    answer: roundResult,
    job: "always",
  }),
  front: call("GET", "/sites/:site/origin/front", {
    summary: "How pages come to readers through us, and what passed in the last seven days, with samples",
    role: "reader",
    answer: frontSchema,
  }),
  setFront: call("PUT", "/sites/:site/origin/front", {
    summary:
      "Let readers get the pages through us, untouched, as a shadow that only counts, or changed; or no more",
    role: "owner",
    body: frontInputSchema,
    answer: frontSchema,
  }),
  setFrame: call("PUT", "/sites/:site/origin/frame", {
    summary:
      "Let a page of the origin serve pages of ours as their frame, around its content area; null: none",
    role: "owner",
    body: frameInputSchema,
    answer: frontSchema,
  }),
  lookForAreas: call("POST", "/sites/:site/origin/frame/look", {
    summary: "The parts of a page of the origin that may be its content area",
    role: "editor",
    body: frameLookSchema,
    answer: frameAreasSchema,
  }),
  shownPage: call("GET", "/sites/:site/origin/frame/page", {
    summary: "A page of the origin without what runs in it, to point at its content area",
    role: "editor",
    query: z.object({ path: frameLookSchema.shape.path }),
    html: { shownWithin: LOOKED_AT },
  }),
  checkFront: call("POST", "/sites/:site/origin/front/check", {
    summary: "What would happen if readers were sent to us, and the lines that send them",
    role: "editor",
    answer: frontCheckSchema,
  }),
  pages: call("GET", "/sites/:site/origin/pages", {
    summary: "The pages that were found, and what became of each",
    role: "reader",
    query: readingsQuery,
    answer: listOf(readingSchema),
  }),
  todos: call("GET", "/sites/:site/origin/to-do", {
    summary: "What is to be changed where the pages stand: link by link, as it is and as it is to be",
    role: "reader",
    query: todosQuery,
    answer: listOf(todoSchema).extend({
      counts: z.object({ open: z.int(), done: z.int(), gone: z.int() }),
    }),
  }),
  exportTodos: call("GET", "/sites/:site/origin/to-do/export.csv", {
    summary: "What is open of it, as CSV",
    role: "reader",
    file: { media: ["text/csv"] },
  }),
  results: call("GET", "/sites/:site/origin/results", {
    summary:
      "What reading has come to so far: links by treatment, what rules would change, dead links, programs",
    role: "reader",
    answer: readingResultsSchema,
  }),
};
