import { z } from "zod";
import { COMMISSION_FOR, COMMISSION_KINDS } from "./choices.ts";

/** A program as a network's catalogue offers it. */
export const catalogueEntrySchema = z.object({
  name: z.string().trim().min(1).max(120),
  about: z.string().max(2000).default(""),
  category: z.string().max(120).default(""),
  siteAddress: z.string().max(2048).default(""),
  domains: z.array(z.string().max(255)).min(1).max(50),
  commission: z.coerce.string(),
  commissionKind: z.enum(COMMISSION_KINDS).default("percent"),
  commissionFor: z.enum(COMMISSION_FOR).default("sale"),
  currency: z.string().default("EUR"),
  cookieDays: z.coerce.number().int().min(0).max(3650).default(30),
  epc30: z.coerce.string().nullable().default(null),
  template: z.string().max(1500).default(""),
  needsReferrer: z
    .union([
      z.boolean(),
      z.enum(["yes", "no", "true", "false", ""]).transform((word) => word === "yes" || word === "true"),
    ])
    .default(false),
});
export type CatalogueEntry = z.infer<typeof catalogueEntrySchema>;
