import { z } from "zod";
import { DESTINATION_KINDS } from "../address/classify.ts";
import { fileSchema } from "../files/file.ts";
import { attributesAnswerSchema } from "../rules/rule.ts";
import { pageSummarySchema } from "../pages/page.ts";
import { routeSchema } from "../routes/route.ts";

export const pasteQuestionSchema = z.object({ text: z.string().min(1).max(20_000) });

/** What is known about something that was pasted. */
export const pasteAnswerSchema = z.object({
  form: z.enum(["web", "mail", "phone", "path", "fragment", "words", "refused"]),
  kind: z.enum(DESTINATION_KINDS).nullable(),
  address: z.string().nullable(),
  repairs: z.array(z.string()),
  warnings: z.array(z.string()),
  refusal: z.string().nullable(),
  /** Other good readings of what was pasted, each as it would be pasted to be taken. */
  others: z.array(z.string()),
  /** The page or route of ours that answers it, in words. */
  answeredBy: z.string().nullable(),
  /** Where it ends when it goes through our own routes. */
  ends: z.string().nullable(),
  attributes: attributesAnswerSchema.nullable(),
  /** A partner's snippet that the address was found in, which can be kept as a creative. */
  snippet: z
    .object({
      kind: z.enum(["text", "banner"]),
      words: z.string(),
      picture: z.string().nullable(),
      leftOut: z.array(z.string()),
      /** The program that its link leads to, where one is known. */
      program: z.string().nullable(),
    })
    .nullable(),
  shortLinks: z.array(routeSchema),
  pages: z.array(pageSummarySchema),
  routes: z.array(routeSchema),
  files: z.array(fileSchema),
});
export type PasteAnswer = z.infer<typeof pasteAnswerSchema>;
