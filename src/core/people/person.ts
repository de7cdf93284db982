import { z } from "zod";
import { requiredLine } from "../ground/fields.ts";
import { ROLES } from "./choices.ts";

export const mailAddress = z
  .string("The mail address is missing.")
  .trim()
  .toLowerCase()
  .pipe(z.email("That is not a mail address."));

// A password as it was typed before, however it was chosen then.
const present = (what: string) => z.string(`${what} is missing.`).min(1, `${what} is missing.`).max(1024);

export const signInSchema = z.strictObject({
  email: mailAddress,
  password: present("The password"),
  /** A one-time code, or a recovery code, of whoever has a second factor. */
  code: z.string().max(40, "That is no code.").optional(),
});

/** Who wants a mail with a link for a new password. */
export const resetInputSchema = z.strictObject({ mail: mailAddress });

/** The person who is signed in, as they see themselves. */
export const accountSchema = z.object({
  id: z.string(),
  name: z.string(),
  mail: z.string(),
  /** What one may do on every site; null: only what single sites say. */
  role: z.enum(ROLES).nullable(),
  createdAt: z.string(),
});
export type Account = z.infer<typeof accountSchema>;

export const accountChangeSchema = z.strictObject({
  name: requiredLine("Your name", 120).optional(),
  mail: mailAddress.optional(),
  /** The password that one has; needed where the mail address changes. */
  password: z.string().max(1024).optional(),
});

/** Characters that a password has at least; how good it is beyond that is judged by what guessing it would take. */
const MIN_PASSWORD = 10;
const MAX_PASSWORD = 200;

const newPassword = z
  .string("The new password is missing.")
  .min(
    MIN_PASSWORD,
    `A password has at least ${MIN_PASSWORD} characters; several words are easiest to keep in mind.`,
  )
  .max(MAX_PASSWORD, `A password has at most ${MAX_PASSWORD} characters.`);

export const passwordChangeSchema = z.strictObject({
  current: present("The password that you have"),
  next: newPassword,
});

/** The secret of a link that was handed to somebody. */
const linkToken = z.string("The link is not whole.").regex(/^[\w-]{40,64}$/, "The link is not whole.");

/** Asking whose a link is with which a password is chosen. */
export const linkLookSchema = z.strictObject({ token: linkToken });
/** Choosing a password by a link; whoever is new says what they are called. */
export const linkTakeSchema = z.strictObject({
  token: linkToken,
  name: requiredLine("Your name", 120).optional(),
  password: newPassword,
});
export const sessionSchema = z.object({
  id: z.uuid(),
  /** Where it was begun from: an address, or the network of one. */
  place: z.string(),
  /** The browser, as it names itself. */
  agent: z.string(),
  createdAt: z.string(),
  lastSeenAt: z.string(),
  expiresAt: z.string(),
  /** It is the one that asks. */
  isThis: z.boolean(),
});
export type Session = z.infer<typeof sessionSchema>;
