import { z } from "zod";
import { QUERY_MODES } from "../routes/choices.ts";

const LEADING = [301, 302, 303, 307, 308] as const;
const status = z.literal(LEADING, `The usual status is one of ${LEADING.join(", ")}.`);

/** What new routes of a site are like that do not say otherwise; what is absent is as it is everywhere. */
export const routeDefaultsSchema = z.strictObject({
  /** The host that new short links are made on; absent, or none of the site's: the first short one, or the primary. */
  shortHost: z.string().max(255).optional(),
  shortStatus: status.optional(),
  redirectStatus: status.optional(),
  /** What becomes of a reader's query on a short link. */
  query: z.enum(QUERY_MODES, `A query is one of ${QUERY_MODES.join(", ")}.`).optional(),
  /** What robots are told of a short link. */
  robots: z.strictObject({ noindex: z.boolean().optional(), nofollow: z.boolean().optional() }).optional(),
});
export type RouteDefaults = z.infer<typeof routeDefaultsSchema>;
