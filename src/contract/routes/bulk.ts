import { z } from "zod";
import { destination as destinationSchema, id, requiredLine, sitePath } from "../../core/ground/fields.ts";
import { routeFilter } from "../../core/routes/filter.ts";

const tag = requiredLine("A tag", 60);

/** One change for many routes: those with these ids, or all that a filter leaves. */
export const bulkSchema = z.strictObject({
  ids: z
    .array(id)
    .min(1, "Which routes?")
    .max(5000, "At most 5,000 by id; take a filter for more.")
    .optional(),
  filter: routeFilter.optional(),
  action: z.discriminatedUnion("do", [
    z.strictObject({ do: z.literal("tag"), tag }),
    z.strictObject({ do: z.literal("untag"), tag }),
    z.strictObject({ do: z.literal("switch"), on: z.boolean() }),
    z.strictObject({ do: z.literal("delete") }),
    /** What search engines are told (X-Robots-Tag); what is absent stays. */
    z.strictObject({
      do: z.literal("robots"),
      noindex: z.boolean().optional(),
      nofollow: z.boolean().optional(),
    }),
    z.strictObject({
      do: z.literal("retarget"),
      find: z.string().min(1, "What is to be replaced?").max(2048),
      replace: z.string().max(2048),
    }),
    z.strictObject({
      do: z.literal("mend"),
      destinations: z.record(id, destinationSchema).optional(),
      delete: z.array(id).optional(),
    }),
    z.strictObject({
      do: z.literal("move"),
      /** New addresses of single routes. */
      addresses: z.record(id, sitePath),
      /** Whether their old addresses answer on. */
      keepOld: z.boolean().default(true),
    }),
  ]),
  /** Only says what would change. */
  dryRun: z.boolean().default(false),
});

export const bulkAnswerSchema = z.object({
  /** Routes that change, or would. */
  changed: z.int(),
  /** For its undo; null for a dry run and when nothing changed. */
  batch: z.string().nullable(),
  refused: z.array(z.object({ id: z.string(), address: z.string(), message: z.string() })),
  samples: z.array(z.object({ id: z.string(), address: z.string(), before: z.string(), after: z.string() })),
});
/** The same as it is sent. */
export type WrittenBulk = z.input<typeof bulkSchema>;
export type Bulk = z.infer<typeof bulkSchema>;

export type BulkAnswer = z.infer<typeof bulkAnswerSchema>;
