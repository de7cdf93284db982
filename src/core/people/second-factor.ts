import { z } from "zod";

/** Whether somebody signs in with a second factor. */
export const secondFactorSchema = z.object({
  /** Null: without one. */
  since: z.string().nullable(),
  recoveryLeft: z.int(),
});
export type SecondFactor = z.infer<typeof secondFactorSchema>;

/** A second factor that is begun: its secret in Base32, and the address that an app takes it from. */
export const secondFactorBegunSchema = z.object({ secret: z.string(), address: z.string() });
export type SecondFactorBegun = z.infer<typeof secondFactorBegunSchema>;

/** The codes that stand in once each; told once. */
export const recoverySchema = z.object({ recovery: z.array(z.string()) });

export const withPasswordSchema = z.strictObject({
  password: z.string("The password that you have is missing.").max(1024),
});
export const withCodeSchema = z.strictObject({
  code: z.string("The code is missing.").trim().min(1, "The code is missing.").max(40, "That is no code."),
});
