import { z } from "zod";
import { id, requiredLine } from "./fields.ts";

export const creativeInputSchema = z.strictObject({
  name: requiredLine("The creative's name", 120),
  /** The snippet as the program supplies it, pasted whole; {id} and {sub} are filled in when it is used. */
  html: z.string("The snippet is text.").trim().min(1, "Paste the snippet.").max(20_000, "The snippet has more than 20,000 characters."),
}); // prettier-ignore
export type CreativeInput = z.infer<typeof creativeInputSchema>;

export const creativeSchema = z.object({
  id,
  name: z.string(),
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
