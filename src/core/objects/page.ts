import { z } from "zod";
import { DESTINATION_KINDS } from "../address/classify.ts";
import { bodyInput } from "../body/body.ts";
import { id, line, requiredLine, sitePath, version } from "./fields.ts";

/** The longest HTML body that is taken, in characters. */
export const MAX_HTML = 5_000_000;

const html = z
  .string("html is text.")
  .max(MAX_HTML, "The HTML has more than 5,000,000 characters; split it into several pages.");

const fields = {
  path: sitePath,
  title: requiredLine("The title", 300),
  description: line("The description", 500).optional(),
  category: line("The category", 120).optional(),
  inNavigation: z.boolean().optional(),
  html: html.optional(),
  body: bodyInput.optional(),
} as const;

export const pageInputSchema = z.strictObject({ ...fields, publish: z.boolean().optional() });
export const pageChangeSchema = z
  .strictObject({ ...fields, version })
  .partial()
  .required({ version: true });
export const publishSchema = z.strictObject({ version });

export type PageInput = z.infer<typeof pageInputSchema>;
export type PageChange = z.infer<typeof pageChangeSchema>;

export const pageSummarySchema = z.object({
  id,
  path: z.string(),
  title: z.string(),
  category: z.string(),
  status: z.enum(["draft", "published"]),
  /** True when the draft differs from what is published. */
  changed: z.boolean(),
  links: z.int(),
  outside: z.int(),
  /** The kind of each link in the order of the text, at most 24: the page's rope in small. */
  knots: z.array(z.enum(DESTINATION_KINDS)),
  version: z.int(),
  url: z.string(),
  updatedAt: z.string(),
  updatedBy: z.string(),
  publishedAt: z.string().nullable(),
});
export type PageSummary = z.infer<typeof pageSummarySchema>;

export const pageSchema = pageSummarySchema.extend({
  description: z.string(),
  inNavigation: z.boolean(),
  html: z.string(),
  body: z.unknown(),
  /** What was left out of submitted HTML, in words. */
  dropped: z.array(z.string()).optional(),
});
export type Page = z.infer<typeof pageSchema>;
