import { z } from "zod";

const day = z.iso.date("A day is written as 2026-11-23.");

export const clicksQuestionSchema = z
  .object({
    from: day.optional(),
    to: day.optional(),
    by: z
      .enum(
        ["day", "route", "referrer", "device"],
        "Clicks can be asked for by day, route, referrer or device.",
      )
      .default("day"),
    route: z.string().regex(/^\d+$/).optional(),
  })
  .refine((range) => !range.from || !range.to || range.from <= range.to, {
    path: ["from"],
    message: "The first day is after the last.",
  });

const counts = {
  clicks: z.int(),
  visitors: z.int(),
  bots: z.int(),
  prefetches: z.int(),
  heads: z.int(),
} as const;

/** One row of a clicks table: a day, a route, a referrer host or a device class, and its counts. */
export const clicksRowSchema = z.object({ key: z.string(), label: z.string(), ...counts });
export type ClicksRow = z.infer<typeof clicksRowSchema>;

export const clicksAnswerSchema = z.object({
  from: z.string(),
  to: z.string(),
  by: z.string(),
  items: z.array(clicksRowSchema),
  total: z.object(counts),
});
export type ClicksAnswer = z.infer<typeof clicksAnswerSchema>;
