import { z } from "zod";
import { id, requiredLine } from "../ground/fields.ts";
import { linkBulkAnswerSchema } from "../ledger/ledger.ts";

export const creativeInputSchema = z.strictObject({
  name: requiredLine("The creative's name", 120),
  /** The snippet as the program supplies it, pasted whole; {id} and {sub} are filled in when it is used. */
  html: z
    .string("The snippet is text.")
    .trim()
    .min(1, "Paste the snippet.")
    .max(20_000, "The snippet has more than 20,000 characters."),
});
export type CreativeInput = z.infer<typeof creativeInputSchema>;

/** A creative as it shall be from now on, over the version that was read. */
export const creativeChangeSchema = creativeInputSchema.extend({
  version: z.int("Say which version was changed.").positive(),
  /** Readers get the change at once; else drafts change, and are published as always. */
  published: z.boolean().default(false),
});
export type CreativeChange = z.infer<typeof creativeChangeSchema>;

/** Where a creative is to stand. */
export const creativePlaceSchema = z.strictObject({ page: id.optional() });
export type CreativePlace = z.infer<typeof creativePlaceSchema>;

/** A creative made ready for its place. */
export const placedCreativeSchema = z.object({ href: z.string(), subId: z.string(), html: z.string() });
export type PlacedCreative = z.infer<typeof placedCreativeSchema>;

export const creativeSchema = z.object({
  id,
  name: z.string(),
  program: z.object({ id, name: z.string() }),
  html: z.string(),
  kind: z.enum(["text", "banner"]),
  href: z.string(),
  words: z.string(),
  picture: z
    .object({
      src: z.string(),
      alt: z.string(),
      width: z.number().nullable(),
      height: z.number().nullable(),
    })
    .nullable(),
  pixel: z.string().nullable(),
  /** What of the pasted snippet is not used, in words. */
  leftOut: z.array(z.string()),
  /** Filled from the program's account, ready to use: null while something is missing, which `fault` then says. */
  filled: z.object({ href: z.string(), html: z.string() }).nullable(),
  fault: z.string().nullable(),
  /** Pages and blocks that hold its link. */
  uses: z.array(z.object({ page: z.string(), title: z.string() })),
  version: z.int(),
});
export type Creative = z.infer<typeof creativeSchema>;

/** A changed creative, and what became of the places that use it. */
export const changedCreativeSchema = z.object({ creative: creativeSchema, places: linkBulkAnswerSchema });
export type ChangedCreative = z.infer<typeof changedCreativeSchema>;
