import { z } from "zod";
import { id } from "../../core/ground/fields.ts";
import { ROUTE_KINDS, QUERY_MODES, AFTER_END } from "../../core/routes/choices.ts";
import { MATCH_KINDS } from "../../core/routes/match/match-kind.ts";

/** A route as it is being typed, and addresses to try it on. */
export const tryRouteSchema = z.strictObject({
  id: id.optional(),
  kind: z.enum(ROUTE_KINDS).default("redirect"),
  match: z.enum(MATCH_KINDS).default("exact"),
  address: z.string().max(2048),
  host: z.string().max(253).nullish(),
  destination: z.string().max(8192).default(""),
  status: z.coerce.number().int().default(301),
  query: z.enum(QUERY_MODES).default("drop"),
  parameters: z.string().max(1000).default(""),
  afterEnd: z.enum(AFTER_END).default("nothing"),
  tries: z.array(z.string().max(8192)).max(500),
});

export const triedSchema = z.object({
  results: z.array(
    z.object({
      address: z.string(),
      /** Whether the route that is being typed answers it itself. */
      answered: z.boolean(),
      status: z.int().nullable(),
      by: z.string(),
      /** Where a reader ends, as far as our own site knows. */
      end: z.string().nullable(),
      hops: z.int(),
      note: z.string(),
    }),
  ),
});
export type Tried = z.infer<typeof triedSchema>;
