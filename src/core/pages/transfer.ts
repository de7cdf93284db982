import { z } from "zod";
import { DESTINATION_KINDS } from "../address/classify.ts";
import { id } from "../ground/fields.ts";

export const MAX_IMPORT = 50_000_000;

export const importQuery = z.object({
  name: z.string("Send the file's name as ?name=.").min(1).max(500),
  dryRun: z.enum(["0", "1"]).optional(),
  publish: z.enum(["0", "1"]).optional(),
});

const importedLink = z.object({ href: z.string(), words: z.string(), kind: z.enum(DESTINATION_KINDS) });

/** What became of each file that was brought in, with every link that was found in it. */
export const importReportSchema = z.object({
  files: z.array(
    z.object({
      name: z.string(),
      outcome: z.enum(["created", "updated", "unchanged", "uploaded", "refused"]),
      message: z.string(),
      page: id.nullable(),
      path: z.string().nullable(),
      title: z.string().nullable(),
      links: z.array(importedLink),
      dropped: z.array(z.string()),
    }),
  ),
});
export type ImportReport = z.infer<typeof importReportSchema>;
export type ImportedFile = ImportReport["files"][number];

export const exportQuery = z.object({
  format: z.enum(["html", "markdown"]).default("html"),
  as: z.enum(["stored", "delivered"]).default("stored"),
  page: id.optional(),
});
export type ExportQuery = z.infer<typeof exportQuery>;
