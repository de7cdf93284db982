import { z } from "zod";
import { hostName, id, requiredLine } from "./fields.ts";

export const HOST_ROLES = ["primary", "short", "other"] as const;

const prefix = z
  .string()
  .regex(
    /^(?:\/(?:[A-Za-z0-9._~-]+\/)*)?$/,
    "The prefix starts and ends with a slash, such as /to/, or is empty.",
  );

export const siteInputSchema = z.strictObject({
  key: z
    .string("key is text.")
    .regex(
      /^[a-z0-9](?:[a-z0-9-]{0,58}[a-z0-9])?$/,
      "A key is lower-case letters, digits and hyphens, such as low-lantern.",
    ),
  name: requiredLine("The name", 120),
  hosts: z
    .array(z.strictObject({ name: hostName, role: z.enum(HOST_ROLES) }))
    .min(1, "A site has at least one host.")
    .max(50)
    .refine(
      (hosts) => hosts.filter((host) => host.role === "primary").length === 1,
      "Exactly one host is the primary one.",
    )
    .refine(
      (hosts) => new Set(hosts.map((host) => host.name)).size === hosts.length,
      "Each host stands once.",
    ),
  shortPrefix: prefix.optional(),
});
export type SiteInput = z.infer<typeof siteInputSchema>;

export const siteSchema = z.object({
  id,
  key: z.string(),
  name: z.string(),
  tagline: z.string(),
  hosts: z.array(z.object({ name: z.string(), role: z.enum(HOST_ROLES), url: z.string() })),
  shortPrefix: z.string(),
  version: z.int(),
  createdAt: z.string(),
  updatedAt: z.string(),
});
export type Site = z.infer<typeof siteSchema>;
