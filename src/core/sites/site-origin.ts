import { z } from "zod";

/** How a site's pages come to be that are not written here: we look at them where they stand, or readers get them through us. */
export const COMES = ["read", "front"] as const;

/** Where a site's pages stand, and how they come to its readers. */
export const siteOriginSchema = z.object({ address: z.string(), comes: z.enum(COMES) });
export type SiteOrigin = z.infer<typeof siteOriginSchema>;
