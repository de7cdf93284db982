import { z } from "zod";
import { binItemSchema, historyEntrySchema } from "../core/sites/history.ts";
import { BIN_KINDS } from "../core/sites/choices.ts";
import { call, listOf } from "./ground/call.ts";
import { listQuery } from "./ground/lists.ts";

const day = (name: string) =>
  z
    .string()
    .refine((text) => !Number.isNaN(Date.parse(text)), `${name} is a day or a time, such as 2026-11-30.`);

export const historyQuery = listQuery.pick({ limit: true, cursor: true }).extend({
  /** The object's id, or its name. */
  object: z.string().max(500).optional(),
  /** A kind of object, such as page, or one thing that was done, such as page.publish. */
  action: z
    .string()
    .regex(/^[a-z-]{1,40}(?:\.[a-z-]{1,40})?$/, "action is a kind of object, such as page, or page.publish.")
    .optional(),
  person: z.string().max(200).optional(),
  from: day("from").optional(),
  to: day("to").optional(),
});

/** The calls about what was done to a site, and what was deleted from it. */
export const history = {
  list: call("GET", "/sites/:site/history", {
    summary: "Who did what and when, the latest first; with what it was before and after where that was kept",
    role: "editor",
    query: historyQuery,
    answer: listOf(historyEntrySchema),
  }),
  export: call("GET", "/sites/:site/history/export", {
    summary: "The same as CSV",
    role: "editor",
    query: historyQuery.omit({ limit: true, cursor: true }),
    file: { media: ["text/csv; charset=utf-8"] },
  }),
  putBack: call("POST", "/sites/:site/history/:entry/put-back", {
    summary: "Set what a change has set to what it was before; refused where it was changed again since",
    role: "editor",
  }),
  bin: call("GET", "/sites/:site/bin", {
    summary: "What was deleted in the last 30 days and can be brought back, the latest first",
    role: "editor",
    query: listQuery
      .pick({ limit: true, cursor: true, q: true })
      .extend({ kind: z.enum(BIN_KINDS, `kind is one of ${BIN_KINDS.join(", ")}.`).optional() }),
    answer: listOf(binItemSchema),
  }),
  restore: call("POST", "/sites/:site/bin/:item/restore", {
    summary: "Bring something back, at another path where its own is taken by now",
    role: "editor",
    body: z.strictObject({ address: z.string().trim().min(1).max(2000).optional() }),
  }),
};
