import { z } from "zod";
import { addressFault } from "./match/address-form.ts";
import { MATCH_KINDS } from "./match/match-kind.ts";
import { parametersFault } from "./chain/parameters.ts";
import { destination, hostName, id, line, requiredLine, time, version } from "../ground/fields.ts";
import {
  ROUTE_KINDS,
  ROUTE_STATUSES,
  type RouteStatus,
  QUERY_MODES,
  AFTER_END,
  IN_CONTENT,
  HEALTH_VERDICTS,
} from "./choices.ts";

const status = z
  .union([z.number(), z.string().regex(/^\d+$/).transform(Number)])
  .refine((value): value is RouteStatus => (ROUTE_STATUSES as readonly number[]).includes(value), {
    message: `A route answers with one of ${ROUTE_STATUSES.join(", ")}.`,
  });

const tags = z.array(requiredLine("A tag", 60)).max(50, "A route has at most 50 tags.");

// What an address may be depends on how it matches: the whole route's schema says, and for a change the desk.
const address = z
  .string("An address is text that starts with a slash, such as /to/eyepiece.")
  .trim()
  .max(2048, "The address has more than 2,048 characters; shorten it.");

const notice = z.strictObject({
  /** Whole seconds that the page shows itself. */
  seconds: z
    .int("The seconds are a whole number.")
    .min(1, "A notice shows itself for at least one second.")
    .max(60, "A notice shows itself for at most 60 seconds."),
  text: line("The notice", 1000),
});
export type Notice = z.infer<typeof notice>;

const parameters = line("The fixed parameters", 1000)
  .transform((text) => text.replace(/^\?/, ""))
  .superRefine((text, context) => {
    const fault = parametersFault(text);
    if (fault) context.addIssue({ code: "custom", message: fault });
  });

const fields = {
  kind: z.enum(ROUTE_KINDS, "A route is of kind short, redirect or gone."),
  address,
  host: hostName.nullish(),
  match: z.enum(MATCH_KINDS, "A route matches exact, by prefix, wildcard or pattern.").optional(),
  destination: destination.nullish(),
  status: status.optional(),
  query: z.enum(QUERY_MODES, "Query handling is drop, forward or merge.").optional(),
  /** Written behind the destination for every reader, as `name=value&name=value`. */
  parameters: parameters.optional(),
  notice: notice.nullish(),
  title: line("The title", 300).optional(),
  tags: tags.optional(),
  robots: z.strictObject({ noindex: z.boolean().optional(), nofollow: z.boolean().optional() }).optional(),
  counted: z.boolean().optional(),
  enabled: z.boolean().optional(),
  validFrom: time.nullish(),
  validUntil: time.nullish(),
  afterEnd: z.enum(AFTER_END, "After the end comes nothing, gone or destination.").optional(),
  endDestination: destination.nullish(),
  aliases: z.array(address).max(100, "A route has at most 100 aliases.").optional(),
  inContent: z.enum(IN_CONTENT, "In content is nowhere, everywhere or pages.").optional(),
  /** Ids of the chosen pages, when `inContent` is “pages”. */
  contentPages: z.array(id).max(1000, "At most 1,000 pages can be chosen.").optional(),
  replacesPage: z.boolean().optional(),
} as const;

/** A new route, as the API, the forms and every import hand it in. */
export const routeInputSchema = z.strictObject(fields).superRefine((route, context) => {
  const check = (text: string, path: (string | number)[]): void => {
    const message = addressFault(text, route.match ?? "exact");
    if (message) context.addIssue({ code: "custom", path, message });
  };
  check(route.address, ["address"]);
  route.aliases?.forEach((alias, index) => check(alias, ["aliases", index]));
});

/** A change of a route: the fields that change, and the version they were read at. */
export const routeChangeSchema = z
  .strictObject({ ...fields, version })
  .partial()
  .required({ version: true });

export type RouteInput = z.infer<typeof routeInputSchema>;
/** A route as it is sent: its addresses not checked yet. */
export type WrittenRoute = z.input<typeof routeInputSchema>;
export type RouteChange = z.infer<typeof routeChangeSchema>;
/** A change of a route as it is sent. */
export type WrittenRouteChange = z.input<typeof routeChangeSchema>;

export const ADVICE_CODES = [
  "loop",
  "chain",
  "taken",
  "page",
  "dead-end",
  "near",
  "long-way",
  "shadowed",
  "pattern",
  "open-host",
  "answers-badly",
  "same-destination",
  "one-for-all",
  "warning",
] as const;
export type AdviceCode = (typeof ADVICE_CODES)[number];

/** What the linter has to say about a route; an "error" keeps it from being saved. */
export const adviceSchema = z.object({
  code: z.enum(ADVICE_CODES),
  severity: z.enum(["error", "warning", "hint"]),
  message: z.string(),
  /** The field that the advice is about. */
  field: z.string().optional(),
  /** What would mend it: a destination or an address to take instead. */
  fix: z.string().optional(),
});
export type Advice = z.infer<typeof adviceSchema>;

/** How a route's destination answered. */
export const routeHealthSchema = z.object({
  verdict: z.enum(HEALTH_VERDICTS),
  status: z.int().nullable(),
  checkedAt: z.string(),
  note: z.string(),
});
export type RouteHealth = z.infer<typeof routeHealthSchema>;

/** A route as the API answers it. */
export const routeSchema = z.object({
  id,
  kind: z.enum(ROUTE_KINDS),
  host: z.string().nullable(),
  match: z.enum(MATCH_KINDS),
  address: z.string(),
  aliases: z.array(z.string()),
  destination: z.string().nullable(),
  status: z.number(),
  query: z.enum(QUERY_MODES),
  parameters: z.string(),
  notice: z.object({ seconds: z.int(), text: z.string() }).nullable(),
  title: z.string(),
  tags: z.array(z.string()),
  robots: z.object({ noindex: z.boolean(), nofollow: z.boolean() }),
  counted: z.boolean(),
  enabled: z.boolean(),
  replacesPage: z.boolean(),
  validFrom: z.string().nullable(),
  validUntil: z.string().nullable(),
  afterEnd: z.enum(AFTER_END),
  endDestination: z.string().nullable(),
  inContent: z.enum(IN_CONTENT),
  contentPages: z.array(z.string()),
  /** Clicks are counted from this moment; null: from the beginning. */
  countedFrom: z.string().nullable(),
  /** How the destination answered when it was last looked at; null: not looked at yet, or nothing to look at. */
  health: routeHealthSchema.nullable(),
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
  match: z.enum(MATCH_KINDS).default("exact"),
  address: z.string().max(2048).default(""),
  host: z.string().max(253).nullish(),
  destination: z.string().max(8192).default(""),
  title: z.string().max(300).default(""),
  replacesPage: z.boolean().default(false),
  /** Other spellings that are being typed, looked at as the address is. */
  aliases: z.array(z.string().max(2048)).max(100).default([]),
});

export const routeCheckSchema = z.object({
  /** Messages at their fields; empty when the route could be saved. */
  errors: z.array(z.object({ path: z.string(), message: z.string() })),
  advice: z.array(adviceSchema),
  destination: z.string().nullable(),
  repairs: z.array(z.string()),
  suggestions: z.array(z.object({ address: z.string(), reason: z.string() })),
  /** Whether the address is free, for each host of the site. */
  hosts: z.array(z.object({ host: z.string(), free: z.boolean(), takenBy: z.string().nullable() })),
  /** How the address sounds when it is said aloud. */
  spoken: z.string().nullable(),
  /** Spellings that people may type instead, all of them free. */
  mistypings: z.array(z.object({ address: z.string(), reason: z.string() })),
  existing: z.array(routeSchema),
});
export type RouteCheck = z.infer<typeof routeCheckSchema>;
