import { z } from "zod";
import { publicHost } from "../address/public-host.ts";
import { HOST_ROLES, ALL_ROLES } from "./choices.ts";

const role = z.enum(HOST_ROLES, "A host is primary, short or other.");

export const hostInputSchema = z.strictObject({ name: publicHost, role: role.default("other") });
export const hostChangeSchema = z.strictObject({
  role: role.optional(),
  /** Another name for it: all that hangs on it goes along. */
  name: publicHost.optional(),
  /** Whether the name that it had leads to the new one from then on, path by path. */
  keepsOld: z.boolean().optional(),
});

/** A host of a site, with what hangs on it. */
export const siteHostSchema = z.object({
  name: z.string(),
  role: z.enum(ALL_ROLES),
  /** Where a former host leads to. */
  leadsTo: z.string().nullable(),
  url: z.string(),
  /** Routes that answer on it alone. */
  routes: z.int(),
  /** Short links that answer on it, whose codes may be in print. */
  shortLinks: z.int(),
  /** Pages that readers get on it. */
  pages: z.int(),
  /** Links in texts that name it. */
  links: z.int(),
});
export type SiteHost = z.infer<typeof siteHostSchema>;

/** What one way of asking a host came to. */
const hostAnswerSchema = z.object({
  /** The address that was asked. */
  address: z.string(),
  /** Whether this installation answered. */
  isOurs: z.boolean(),
  /** What happened, in words. */
  says: z.string(),
});

/** Whether a host's name leads to this installation. */
export const hostCheckSchema = z.object({ plain: hostAnswerSchema, secure: hostAnswerSchema });
export type HostCheck = z.infer<typeof hostCheckSchema>;

/** Where a host answers whoever wants to know whether it leads to this installation. */
export const HOST_CHECK_PATH = "/.well-known/map-rope";
