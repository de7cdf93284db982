import { z } from "zod";
import { id, requiredLine, time } from "../ground/fields.ts";

export const ROLES = ["owner", "editor", "reader"] as const;
/** What a person or a token may do: an owner everything, an editor content and routes, a reader look. */
export type Role = (typeof ROLES)[number];

export const signInSchema = z.strictObject({
  email: z
    .string("The mail address is missing.")
    .trim()
    .toLowerCase()
    .pipe(z.email("That is not a mail address.")),
  password: z.string("The password is missing.").min(1, "The password is missing.").max(1024),
});

export const tokenInputSchema = z.strictObject({
  name: requiredLine("The token's name", 120),
  role: z.enum(ROLES),
  expiresAt: time.nullish(),
});

export const tokenSchema = z.object({
  id,
  name: z.string(),
  role: z.enum(ROLES),
  expiresAt: z.string().nullable(),
  lastUsedAt: z.string().nullable(),
  createdAt: z.string(),
  /** The token itself; only in the answer that makes it. */
  token: z.string().optional(),
});
export type Token = z.infer<typeof tokenSchema>;
