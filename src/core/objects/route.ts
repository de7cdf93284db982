import { z } from "zod";
import { destination, hostName, id, line, requiredLine, sitePath, time, version } from "./fields.ts";

export const ROUTE_KINDS = ["short", "redirect", "gone"] as const;
export type RouteKind = (typeof ROUTE_KINDS)[number];

/** Statuses that a route may answer with (RFC 9110 section 15.4 and 15.5.11). */
export const ROUTE_STATUSES = [301, 302, 303, 307, 308, 410] as const;
export type RouteStatus = (typeof ROUTE_STATUSES)[number];

/** What each status means to the person who chooses it. */
export const STATUS_WORDS: Readonly<Record<RouteStatus, string>> = {
  301: "moved for good",
  302: "for now, counted each time",
  303: "see other, always fetched with GET",
  307: "for now, method kept",
  308: "moved for good, method kept",
  410: "gone, nothing in its place",
};

export const QUERY_MODES = ["drop", "forward", "merge"] as const;
export type QueryMode = (typeof QUERY_MODES)[number];

const status = z
  .union([z.number(), z.string().regex(/^\d+$/).transform(Number)])
  .refine((value): value is RouteStatus => (ROUTE_STATUSES as readonly number[]).includes(value), {
    message: `A route answers with one of ${ROUTE_STATUSES.join(", ")}.`,
  });

const tags = z.array(requiredLine("A tag", 60)).max(50, "A route has at most 50 tags.");

const fields = {
  kind: z.enum(ROUTE_KINDS, "A route is of kind short, redirect or gone."),
  address: sitePath,
  host: hostName.nullish(),
  match: z.literal("exact", "Routes match exactly in this version: match is “exact”.").optional(),
  destination: destination.nullish(),
  status: status.optional(),
  query: z.enum(QUERY_MODES, "Query handling is drop, forward or merge.").optional(),
  title: line("The title", 300).optional(),
  tags: tags.optional(),
  robots: z.strictObject({ noindex: z.boolean().optional(), nofollow: z.boolean().optional() }).optional(),
  counted: z.boolean().optional(),
  enabled: z.boolean().optional(),
  validFrom: time.nullish(),
  validUntil: time.nullish(),
  aliases: z.array(sitePath).max(100, "A route has at most 100 aliases.").optional(),
  replacesPage: z.boolean().optional(),
} as const;

/** A new route, as the API, the forms and every import hand it in. */
export const routeInputSchema = z.strictObject(fields);

/** A change of a route: the fields that change, and the version they were read at. */
export const routeChangeSchema = z
  .strictObject({ ...fields, version })
  .partial()
  .required({ version: true });

export type RouteInput = z.infer<typeof routeInputSchema>;
export type RouteChange = z.infer<typeof routeChangeSchema>;

/** What the linter has to say about a route; an "error" keeps it from being saved. */
export const adviceSchema = z.object({
  code: z.enum(["loop", "chain", "taken", "page", "dead-end", "near", "long-way", "warning"]),
  severity: z.enum(["error", "warning", "hint"]),
  message: z.string(),
  /** The field that the advice is about. */
  field: z.string().optional(),
  /** What would mend it: a destination or an address to take instead. */
  fix: z.string().optional(),
});
export type Advice = z.infer<typeof adviceSchema>;

/** A route as the API answers it. */
export const routeSchema = z.object({
  id,
  kind: z.enum(ROUTE_KINDS),
  host: z.string().nullable(),
  match: z.literal("exact"),
  address: z.string(),
  aliases: z.array(z.string()),
  destination: z.string().nullable(),
  status: z.number(),
  query: z.enum(QUERY_MODES),
  title: z.string(),
  tags: z.array(z.string()),
  robots: z.object({ noindex: z.boolean(), nofollow: z.boolean() }),
  counted: z.boolean(),
  enabled: z.boolean(),
  replacesPage: z.boolean(),
  validFrom: z.string().nullable(),
  validUntil: z.string().nullable(),
  /** The full public address, ready to be shared. */
  url: z.string(),
  clicks: z.number(),
  lastClick: z.string().nullable(),
  version: z.int(),
  createdAt: z.string(),
  updatedAt: z.string(),
  advice: z.array(adviceSchema).optional(),
});
export type Route = z.infer<typeof routeSchema>;

/** A question before saving: is this address free, what would be wrong, what else might it be called? */
export const routeQuestionSchema = z.strictObject({
  id: id.optional(),
  kind: z.enum(ROUTE_KINDS).default("short"),
  address: z.string().max(2048).default(""),
  host: z.string().max(253).nullish(),
  destination: z.string().max(8192).default(""),
  title: z.string().max(300).default(""),
  replacesPage: z.boolean().default(false),
});

export const routeCheckSchema = z.object({
  /** Messages at their fields; empty when the route could be saved. */
  errors: z.array(z.object({ path: z.string(), message: z.string() })),
  advice: z.array(adviceSchema),
  destination: z.string().nullable(),
  repairs: z.array(z.string()),
  suggestions: z.array(z.object({ address: z.string(), reason: z.string() })),
  existing: z.array(routeSchema),
});
export type RouteCheck = z.infer<typeof routeCheckSchema>;
