import { z } from "zod";

/** How a site's pages come to be that are not written here: we look at them where they stand, or readers get them through us. */
export const COMES = ["read", "front"] as const;
/** What is done with pages that come through us: nothing, nothing but counting what would be, or what rules ask. */
export const PASSES = ["untouched", "shadow", "on"] as const;

/** Where a site's pages stand, and how they come to its readers. */
export const siteOriginSchema = z.object({
  address: z.string(),
  comes: z.enum(COMES),
  /** Where we stand before them: what is done on the way. */
  passes: z.enum(PASSES).default("untouched"),
  /** Beginnings of the paths that it is done on; empty: all. */
  only: z.array(z.string()).default([]),
  /** Beginnings of the paths that are written here alone: where we stand before pages, their origin is never asked for these. */
  here: z.array(z.string()).default([]),
  /** The page whose look pages of ours have, and where their content stands in it; null: they have the installation's own. */
  frame: z.object({ path: z.string(), selector: z.string() }).nullable().default(null),
});
export type SiteOrigin = z.infer<typeof siteOriginSchema>;
