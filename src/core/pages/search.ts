import { z } from "zod";
import { line, webPlace } from "../ground/fields.ts";
import { isLanguage } from "../sites/locale.ts";

/** What search engines and those who pass a page on are told beside its title and description. */
export const pageSearchSchema = z.strictObject({
  /** The title in their results, where it is to be another one. */
  title: line("The title for search engines", 300).optional(),
  /** They are to leave the page out of their results. */
  noindex: z.boolean("noindex is true or false.").optional(),
  /** The address that this page is a copy of (RFC 6596); it stands in the results then. */
  canonical: webPlace.optional(),
  /** The picture that is shown with it; absent: its first one. */
  picture: webPlace.optional(),
  /** The language of the page, where it is not the site's (BCP 47). */
  language: z
    .string("A language is its tag, such as en-GB.")
    .trim()
    .refine(isLanguage, "A language is its tag, such as en-GB or de.")
    .optional(),
});
export type PageSearch = z.infer<typeof pageSearchSchema>;
/** The same as it is sent: its addresses not checked yet. */
export type WrittenPageSearch = z.input<typeof pageSearchSchema>;

/** Whether lists for machines (sitemap, feed) name the page: not when it is to be left out, or is a copy. */
export function isListed({ noindex, canonical }: PageSearch): boolean {
  return noindex !== true && canonical === undefined;
}
