import { z } from "zod";
import { routeFilter } from "../../core/routes/filter.ts";

export const exportQuery = routeFilter.extend({
  format: z
    .enum(["csv", "json", "nginx", "apache"], "Routes are exported as csv, json, nginx or apache.")
    .default("csv"),
  /** The port that an exported server listens on. */
  listen: z.coerce.number("listen is a port.").int().min(1).max(65_535).default(80),
});
export const importQuery = z.object({
  dryRun: z.enum(["0", "1"], "dryRun is 0 or 1.").optional(),
  atomic: z.enum(["0", "1"], "atomic is 0 or 1.").optional(),
  name: z.string().max(300).optional(),
});

export type ImportQuery = z.infer<typeof importQuery>;

export const importAnswerSchema = z.object({
  created: z.int(),
  updated: z.int(),
  unchanged: z.int(),
  refused: z.array(z.object({ line: z.int(), message: z.string() })),
  /** What was noticed of the file as a whole. */
  notes: z.array(z.string()),
});

export type RoutesImported = z.infer<typeof importAnswerSchema>;

/** The largest file that is taken, in bytes. */
export const MAX_IMPORTED = 100_000_000;
