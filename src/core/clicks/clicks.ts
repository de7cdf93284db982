import { z } from "zod";
import { CLICK_CLASSES, DEVICES } from "./record.ts";
import { CLICK_GROUPINGS } from "./choices.ts";

const day = z.iso.date("A day is written as 2026-11-23.");

const span = {
  from: day.optional(),
  to: day.optional(),
  route: z
    .string()
    .regex(/^\d{1,18}$/, "A route is named by its id.")
    .optional(),
} as const;

const notAfter = {
  path: ["from"],
  message: "The first day is after the last.",
};

export const clicksQuestionSchema = z
  .object({
    ...span,
    by: z
      .enum(
        CLICK_GROUPINGS,
        "Clicks can be asked for by day, route, referrer, page, program, device or hour.",
      )
      .default("day"),
    /** With the same number of days before, for comparing. */
    compare: z.enum(["0", "1"]).optional(),
  })
  .refine((range) => !range.from || !range.to || range.from <= range.to, notAfter);

export const clicksExportQuestionSchema = z
  .object({
    ...span,
    by: z
      .enum([...CLICK_GROUPINGS, "click"], "by is a grouping, or click for every single one.")
      .default("click"),
  })
  .refine((range) => !range.from || !range.to || range.from <= range.to, notAfter);

const counts = {
  clicks: z.int(),
  visitors: z.int(),
  bots: z.int(),
  prefetches: z.int(),
  heads: z.int(),
  /** Requests that the route would have led back to their own address, and that something else answered. */
  asides: z.int(),
} as const;

/** One row of a clicks table: what it is grouped by, and its counts. */
export const clicksRowSchema = z.object({ key: z.string(), label: z.string(), ...counts });
export type ClicksRow = z.infer<typeof clicksRowSchema>;

export const clicksAnswerSchema = z.object({
  from: z.string(),
  to: z.string(),
  by: z.string(),
  items: z.array(clicksRowSchema),
  total: z.object(counts),
  /** Requests of all sites in this time that could not be kept: the disk refused them, or nobody can read them. */
  lost: z.int(),
  /** The same number of days before; there when it was asked for. */
  before: z
    .object({ from: z.string(), to: z.string(), items: z.array(clicksRowSchema), total: z.object(counts) })
    .optional(),
});
export type ClicksAnswer = z.infer<typeof clicksAnswerSchema>;

/** Single clicks, newest first, to look at: no address and no user agent is kept, so none is here. */
export const latestClicksSchema = z.object({
  items: z.array(
    z.object({
      at: z.string(),
      route: z.string(),
      address: z.string(),
      class: z.enum(CLICK_CLASSES),
      device: z.enum(DEVICES),
      referrer: z.string(),
      page: z.string(),
    }),
  ),
});
export type LatestClicks = z.infer<typeof latestClicksSchema>;
