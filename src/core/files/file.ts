import { z } from "zod";
import { cropSchema, focusSchema } from "./picture.ts";
import { FILES_PREFIX } from "./files-prefix.ts";
import { id, line, pathFault } from "../ground/fields.ts";

/** The largest file that is taken, in bytes. */
export const MAX_FILE = 25_000_000;

export const fileSchema = z.object({
  id,
  path: z.string(),
  name: z.string(),
  mediaType: z.string(),
  bytes: z.int(),
  width: z.int().nullable(),
  height: z.int().nullable(),
  alt: z.string(),
  crop: cropSchema.nullable(),
  focus: focusSchema.nullable(),
  /** Its sizes for readers are made; a picture is sent as it is until then. */
  isFormed: z.boolean(),
  url: z.string(),
  /** On how many pages and blocks it is used. */
  uses: z.int(),
  createdBy: z.string(),
  createdAt: z.string(),
});
export type SiteFile = z.infer<typeof fileSchema>;

export const uploadQuery = z.object({
  name: z
    .string("Send the file's name as ?name=.")
    .min(1, "The file has no name.")
    .max(255, "The file's name has more than 255 characters."),
});

export const fileChangeSchema = z.strictObject({
  alt: line("The alternative text", 500).optional(),
  /** Which part of a picture is shown; null: all of it. */
  crop: cropSchema.nullable().optional(),
  focus: focusSchema.nullable().optional(),
  path: z
    .string()
    .trim()
    .superRefine((path, context) => {
      const wrong =
        pathFault(path) ??
        (path.startsWith(FILES_PREFIX) && path.length > FILES_PREFIX.length
          ? undefined
          : `A file's path begins with ${FILES_PREFIX}.`);
      if (wrong) context.addIssue({ code: "custom", message: wrong });
    })
    .optional(),
});

export type FileChange = z.infer<typeof fileChangeSchema>;

export const fileUsesSchema = z.object({
  items: z.array(z.object({ id, title: z.string(), path: z.string(), kind: z.enum(["page", "block"]) })),
});
export type FileUses = z.infer<typeof fileUsesSchema>;

/** A file's name as the last part of its path: letters, digits and hyphens, extension kept. */
export function fileSlug(name: string, extension: string): string {
  const stem = name
    .slice(Math.max(name.lastIndexOf("/"), name.lastIndexOf("\\")) + 1)
    .replace(/\.[^.]*$/, "");
  const plain = stem
    .normalize("NFKD")
    .replace(/\p{M}+/gu, "")
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, "-")
    .replace(/^-|-$/g, "")
    .slice(0, 80);
  return `${plain || "file"}.${extension}`;
}
