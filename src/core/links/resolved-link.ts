import { z } from "zod";
import { DESTINATION_KINDS } from "../address/classify.ts";

/** What the site says of an address: enough to judge links to it without asking again. */
export const resolvedLinkSchema = z.object({
  address: z.string(),
  kind: z.enum(DESTINATION_KINDS),
  /** Where it ends when it goes through our own routes, else the address itself. */
  ends: z.string(),
  /** Title of the page that stands there. */
  title: z.string().optional(),
  /** A page that readers do not get yet. */
  draft: z.boolean().optional(),
  /** A redirect, which only leads on; a short link is made to be linked to. */
  redirect: z.boolean().optional(),
});
export type ResolvedLink = z.infer<typeof resolvedLinkSchema>;
