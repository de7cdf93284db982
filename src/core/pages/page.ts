import { z } from "zod";
import { DESTINATION_KINDS } from "../address/classify.ts";
import { bodyInput } from "./body/body-input.ts";
import { pageSearchSchema } from "./search.ts";
import { id, line, requiredLine, sitePath, version } from "../ground/fields.ts";

/** The longest HTML body that is taken, in characters. */
export const MAX_HTML = 5_000_000;

const html = z
  .string("html is text.")
  .max(MAX_HTML, "The HTML has more than 5,000,000 characters; split it into several pages.");

/** Where a shared block stands, and on which pages: all, by page patterns, or by categories. */
export const placementSchema = z.strictObject({
  place: z.enum(["footer", "sidebar"]),
  shown: z.enum(["all", "pages", "categories"]),
  on: z.array(line("A page or category", 1024)).max(500).default([]),
});
export type Placement = z.infer<typeof placementSchema>;

export const blockInputSchema = z.strictObject({
  title: requiredLine("The name", 300),
  placement: placementSchema,
  html: html.optional(),
  publish: z.boolean().optional(),
});
export type BlockInput = z.infer<typeof blockInputSchema>;

const fields = {
  path: sitePath,
  title: requiredLine("The title", 300),
  description: line("The description", 500).optional(),
  category: line("The category", 120).optional(),
  inNavigation: z.boolean().optional(),
  search: pageSearchSchema.optional(),
  html: html.optional(),
  body: bodyInput.optional(),
} as const;

export const pageInputSchema = z.strictObject({ ...fields, publish: z.boolean().optional() });
export const pageChangeSchema = z
  .strictObject({ ...fields, placement: placementSchema, version })
  .partial()
  .required({ version: true });
export const publishSchema = z.strictObject({ version });

/** Many pages to be published, each over the version that was read. */
export const publishManySchema = z.strictObject({
  pages: z
    .array(z.strictObject({ id, version }), "pages is a list of pages.")
    .min(1, "Which pages?")
    .max(500, "At most 500 pages are published at once."),
});
export const publishedManySchema = z.object({
  published: z.array(z.object({ id: z.string(), version: z.int(), url: z.string() })),
  /** Those that stay as they were, and why. */
  refused: z.array(z.object({ id: z.string(), message: z.string() })),
});

export type PageInput = z.infer<typeof pageInputSchema>;
export type PageChange = z.infer<typeof pageChangeSchema>;

export const pageSummarySchema = z.object({
  id,
  kind: z.enum(["page", "block"]),
  /** Only a shared block has one. */
  placement: placementSchema.nullable(),
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

/** A category as pages name it, and how many do. */
export const categorySchema = z.object({ category: z.string(), pages: z.number().int() });

export const pageSchema = pageSummarySchema.extend({
  description: z.string(),
  inNavigation: z.boolean(),
  search: pageSearchSchema,
  html: z.string(),
  body: z.unknown(),
  /** What was left out of submitted HTML, in words. */
  dropped: z.array(z.string()).optional(),
});
export type Page = z.infer<typeof pageSchema>;

export const REVISION_KINDS = ["published", "aside"] as const;

/** A version that was kept: one that was published, or one that was set aside when two people had saved. */
export const revisionSchema = z.object({
  id,
  version: z.int(),
  kind: z.enum(REVISION_KINDS),
  title: z.string(),
  path: z.string(),
  createdBy: z.string(),
  createdAt: z.string(),
});
export type Revision = z.infer<typeof revisionSchema>;

export const revisionFullSchema = revisionSchema.extend({
  description: z.string(),
  category: z.string(),
  inNavigation: z.boolean(),
  search: pageSearchSchema,
  html: z.string(),
  body: z.unknown(),
});
export type RevisionFull = z.infer<typeof revisionFullSchema>;

export const asideSchema = z.strictObject({ ...fields }).partial();
export type AsideInput = z.infer<typeof asideSchema>;

/** Says that a tab has the page open, and asks what others did meanwhile. */
export const visitSchema = z.strictObject({ tab: z.string().min(1).max(60) });
export const visitAnswerSchema = z.object({
  version: z.int(),
  updatedBy: z.string(),
  updatedAt: z.string(),
  /** Others who have the page open now. */
  others: z.array(z.string()),
});
export type VisitAnswer = z.infer<typeof visitAnswerSchema>;

/** A partner's snippet: as a body, and what was left out of it. */
export const snippetSchema = z.strictObject({ html: z.string().min(1).max(200_000) });
export const snippetAnswerSchema = z.object({
  body: z.unknown(),
  links: z.int(),
  pictures: z.int(),
  dropped: z.array(z.string()),
  placeholders: z.array(z.object({ text: z.string(), variable: z.string().optional() })),
});
export type SnippetAnswer = z.infer<typeof snippetAnswerSchema>;
