import { z } from "zod";
import { id, requiredLine, time } from "../ground/fields.ts";
import { siteName } from "./member.ts";
import { ROLES } from "./choices.ts";

export const tokenInputSchema = z.strictObject({
  name: requiredLine("The token's name", 120),
  role: z.enum(ROLES),
  expiresAt: time.nullish(),
  /** The sites that it is for; absent or null: all. */
  sites: z.array(siteName).min(1, "Which sites? Name one, or leave it out for all.").max(500).nullish(),
});

export const tokenSchema = z.object({
  id,
  name: z.string(),
  role: z.enum(ROLES),
  expiresAt: z.string().nullable(),
  lastUsedAt: z.string().nullable(),
  /** From where: an address, or the network of one. */
  lastUsedFrom: z.string(),
  sites: z.array(z.string()).nullable(),
  createdAt: z.string(),
  /** The token itself; only in the answer that makes it. */
  token: z.string().optional(),
});
export type Token = z.infer<typeof tokenSchema>;
