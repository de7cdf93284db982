import { z } from "zod";
import { id, requiredLine } from "../ground/fields.ts";
import { mailAddress } from "./person.ts";
import { ROLES } from "./choices.ts";

const role = z.enum(ROLES, "A role is owner, editor or reader.");
/** A site by its id or its key. */
export const siteName = z.string("Which site? Name its id or key.").trim().min(1, "Which site?").max(60);
const siteRoles = z.array(z.strictObject({ site: siteName, role })).max(500);
const name = requiredLine("The name", 120);

/** Whether somebody may come in: not before they chose a password by their link, and not after they are kept out. */
export const PERSON_STATES = ["invited", "active", "out"] as const;

/** A person of the installation, as its owners see them. */
export const personSchema = z.object({
  id,
  name: z.string(),
  mail: z.string(),
  /** What they may do on every site; null: only what `roles` says. */
  role: role.nullable(),
  roles: z.array(z.object({ site: z.string(), role })),
  state: z.enum(PERSON_STATES),
  hasSecondFactor: z.boolean(),
  createdAt: z.string(),
  lastSeenAt: z.string().nullable(),
});
export type Person = z.infer<typeof personSchema>;

/** The link with which somebody chooses a password, below the workspace's address; it is told this once. */
export const handedLinkSchema = z.object({
  path: z.string(),
  expiresAt: z.string(),
  /** Whether the mail server took it; absent where it was not to be mailed. */
  mailed: z.boolean().optional(),
});
export type HandedLink = z.infer<typeof handedLinkSchema>;

export const personInputSchema = z
  .strictObject({
    mail: mailAddress,
    name,
    role: role.nullish(),
    roles: siteRoles.default([]),
    /** Sends the link, where a mail server is configured. */
    byMail: z.boolean().optional(),
  })
  .refine(({ role: everywhere, roles }) => everywhere || roles.length > 0, {
    path: ["roles"],
    message: "What may they do? Give a role for every site, or for single ones.",
  });
export type PersonInput = z.infer<typeof personInputSchema>;

export const personChangeSchema = z.strictObject({
  name: name.optional(),
  mail: mailAddress.optional(),
  role: role.nullable().optional(),
  /** The whole of what single sites say. */
  roles: siteRoles.optional(),
  /** Kept out (false), or let in again. */
  isActive: z.boolean("isActive is true or false.").optional(),
});
export type PersonChange = z.infer<typeof personChangeSchema>;

/** A person who may come into a site, as its owners see them. */
export const memberSchema = z.object({
  id,
  name: z.string(),
  mail: z.string(),
  /** What the site lets them do. */
  role: role.nullable(),
  /** What they may do on every site; it is the installation's owners who say so. */
  everywhere: role.nullable(),
  state: z.enum(PERSON_STATES),
  lastSeenAt: z.string().nullable(),
});
export type Member = z.infer<typeof memberSchema>;

export const memberInputSchema = z.strictObject({
  mail: mailAddress,
  name: name.optional(),
  role,
  /** Sends somebody new the link, where a mail server is configured. */
  byMail: z.boolean().optional(),
});
export type MemberInput = z.infer<typeof memberInputSchema>;
export const memberChangeSchema = z.strictObject({ role });

/** How many days somebody who is new, and somebody who lost their password, may take to choose one. */
export const INVITE_DAYS = 14;
export const RESET_DAYS = 2;
