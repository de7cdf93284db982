import { z } from "zod";
import { destination, id } from "../ground/fields.ts";
import { robotsText } from "./robots.ts";
import { slashSchema } from "./spelling.ts";

/** What a site is to readers and to machines that read it; what is absent is as it is everywhere. */
export const deliveredSiteSchema = z.strictObject({
  slashes: slashSchema.optional(),
  /** A page is found in whatever letter case it is asked for. */
  anyLetters: z.boolean("anyLetters is true or false.").optional(),
  /** What robots.txt says (RFC 9309); absent: the usual. */
  robots: robotsText.optional(),
  /** The file that is the site's icon. */
  icon: id.optional(),
  /** Where the root of a host that is kept for short links leads; absent: to the primary host. */
  shortRoot: destination.optional(),
});
export type DeliveredSiteSettings = z.infer<typeof deliveredSiteSchema>;
