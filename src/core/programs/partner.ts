import { z } from "zod";
import { line } from "../ground/fields.ts";

/** A program that was joined, as rules and checks see it: whose readers a link brings. */
export const partnerSchema = z.object({
  /** The program's. */
  id: z.string().optional(),
  name: z.string(),
  network: z.string(),
  domains: z.array(z.string()),
  /** It pays by the referrer: `noreferrer` would cost the commission. */
  needsReferrer: z.boolean(),
  /** Links to it without our tracking get it on pages that readers get through us from elsewhere. */
  tracksOnTheWay: z.boolean().optional(),
  trackingId: z.string().optional(),
  /** How its tracked links are built; absent or empty when that is not known. */
  template: z.string().optional(),
  subIdPattern: z.string().optional(),
  subIdLimit: z.int().optional(),
});
export type Partner = z.infer<typeof partnerSchema>;

/** What a site says to its readers about paid links, and whether delivered pages that carry some say it by themselves. */
export const disclosureSchema = z
  .strictObject({
    text: line("The disclosure", 1000),
    place: z.boolean(),
  })
  .refine(({ text, place }) => !place || text !== "", {
    path: ["text"],
    message: "Write the disclosure before it is placed on pages.",
  });
export type Disclosure = z.infer<typeof disclosureSchema>;
