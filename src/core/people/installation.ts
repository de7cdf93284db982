import { z } from "zod";

export const SECOND_FACTOR_RULES = ["optional", "required"] as const;

/** What holds for the whole installation. */
export const installationSchema = z.object({
  /** Required: whoever has none may do nothing but set one up. */
  secondFactor: z.enum(SECOND_FACTOR_RULES),
  /** Whether a mail server is configured. */
  hasMail: z.boolean(),
});
export type Installation = z.infer<typeof installationSchema>;

export const installationChangeSchema = z.strictObject({
  secondFactor: z.enum(SECOND_FACTOR_RULES, "A second factor is optional or required."),
});
