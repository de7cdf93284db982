import { z } from "zod";
import { directorySchema } from "../sites/directory.ts";
import { readHost } from "../address/repair/named-host.ts";
import { DESTINATION_KINDS } from "../address/classify.ts";
import { FINDING_CODES } from "../pages/check/finding.ts";
import { TREATMENTS } from "../rules/treatment.ts";
import { id } from "../ground/fields.ts";
import { HEALTH_VERDICTS } from "../routes/choices.ts";
import { switchSchema, targetSchema } from "../rules/rule.ts";
import { MANAGED_TOKENS } from "../rules/choices.ts";

export const EDITIONS = ["written", "readers"] as const;

/** What a link stands in: what is written here, or a page that is read elsewhere and what stands on many of those. */
export const LEDGER_PLACES = ["page", "block", "navigation", "read", "repeated"] as const;
export type LedgerPlace = (typeof LEDGER_PLACES)[number];

/** True for a page, wherever it is written; false for what stands on many. */
export function isPagePlace(place: LedgerPlace): boolean {
  return place === "page" || place === "read";
}

/** True for what stands in another system and is read there. */
export function isElsewhere(place: LedgerPlace): boolean {
  return place === "read" || place === "repeated";
}

/** What the ledger can be narrowed by, in lists, facets and changes of many. */
export const ledgerFilterSchema = z.object({
  q: z.string().max(500).optional(),
  /** written: as drafts have it; readers: as published pages have it. */
  edition: z.enum(EDITIONS, "edition is written or readers.").optional(),
  host: z.string().max(253).optional(),
  /** Path of a page, or its id. */
  page: z.string().max(1024).optional(),
  place: z.enum(LEDGER_PLACES, `place is one of ${LEDGER_PLACES.join(", ")}.`).optional(),
  category: z.string().max(120).optional(),
  program: z.string().max(120).optional(),
  /** Where it ends: outside, on our own site, or nowhere on the web. */
  reach: z.enum(["external", "internal", "none"], "reach is external, internal or none.").optional(),
  kind: z.enum(DESTINATION_KINDS, "kind is a kind of destination.").optional(),
  anchor: z.enum(["text", "image"], "anchor is text or image.").optional(),
  /** A delivered rel token, or none. */
  rel: z.string().max(60).optional(),
  target: z.enum(["new", "same"], "target is new or same.").optional(),
  treatment: z.enum(TREATMENTS, "treatment is plain, nofollow, sponsored or ugc.").optional(),
  rule: z.string().max(160).optional(),
  finding: z.enum([...FINDING_CODES, "any"], "finding is a code of the page check, or any.").optional(),
  health: z.enum([...HEALTH_VERDICTS, "bad", "unknown"], "health is bad, unknown or a verdict.").optional(),
  byHand: z.enum(["1", "0"], "byHand is 1 or 0.").optional(),
  /** Outside links that have a short link already, or none. */
  short: z.enum(["1", "0"], "short is 1 or 0.").optional(),
});
export type LedgerFilter = z.infer<typeof ledgerFilterSchema>;

const resolvedLinkSchema = z.object({ rel: z.array(z.string()), target: z.string().nullable() });

/** One entry of the ledger. */
export const ledgerLinkSchema = z.object({
  id,
  /** Path of the page; empty for the navigation. */
  page: z.string(),
  pageId: z.string(),
  title: z.string(),
  place: z.enum(LEDGER_PLACES),
  /** On how many pages it stands, where it was read once for all of them. */
  onPages: z.int(),
  category: z.string(),
  edition: z.enum(["both", "draft", "published"]),
  live: z.boolean(),
  /** Which link of its document, counted from 0. */
  ordinal: z.int(),
  /** The words, or the picture's alternative text. */
  anchor: z.string(),
  anchorKind: z.enum(["text", "image"]),
  href: z.string(),
  destination: z.string(),
  /** Host where it is known to end; empty for our own. */
  host: z.string(),
  /** Host of the network that a tracked link is written with; empty for all others. */
  via: z.string(),
  kind: z.enum(DESTINATION_KINDS),
  stored: resolvedLinkSchema,
  delivered: resolvedLinkSchema,
  /** What rules ask of a link that readers get as it is written elsewhere; null for all others. */
  wanted: resolvedLinkSchema.nullable(),
  override: z.string().nullable(),
  treatment: z.enum(TREATMENTS),
  /** The rule that decided first, and all that decided something. */
  rule: z.string().nullable(),
  rules: z.array(z.string()),
  programs: z.array(z.string()),
  /** The short link that it goes through, or that exists for its destination. */
  shortLink: z.object({ id, url: z.string(), used: z.boolean() }).nullable(),
  health: z.string().nullable(),
  /** Clicks of people on it; null where they are not counted. */
  clicks: z.int().nullable(),
  findings: z.array(z.enum(FINDING_CODES)),
});
export type LedgerLink = z.infer<typeof ledgerLinkSchema>;

const count = z.object({ value: z.string(), links: z.int() });
export const ledgerFacetsSchema = z.object({
  kind: z.array(count),
  treatment: z.array(count),
  target: z.array(count),
  anchor: z.array(count),
  place: z.array(count),
  host: z.array(count),
  rule: z.array(count),
  finding: z.array(count),
  program: z.array(count),
});
export type LedgerFacets = z.infer<typeof ledgerFacetsSchema>;

export const ledgerViewInputSchema = z.strictObject({
  name: z.string().trim().min(1, "A view needs a name.").max(80, "A view's name has at most 80 characters."),
  query: z.string().max(2000),
});
export const ledgerViewSchema = z.object({ id, name: z.string(), query: z.string(), madeBy: z.string() });
export type LedgerView = z.infer<typeof ledgerViewSchema>;

const overrideSwitch = z.union([switchSchema, z.literal("clear")]);
const address = (what: string) => z.string().trim().min(1, `${what} is missing.`).max(4096);

// A host alone, with a port, or a whole address that has it.
const host = (what: string) =>
  address(what).refine(
    (typed) => readHost(typed) !== undefined,
    `${what} is no host; write one such as shop.example.`,
  );

const directory = (name: string) =>
  z.string(`${name} is missing.`).transform((text, context) => {
    const read = directorySchema.safeParse(text.trim());
    if (read.success) return read.data || "/";
    context.addIssue({ code: "custom", message: `${name} starts and ends with a slash, such as /to/.` });
    return z.NEVER;
  });

/** What can be done to many links at once. */
export const linkActionSchema = z.discriminatedUnion(
  "do",
  [
    z.strictObject({
      do: z.literal("override"),
      /** What to set by hand; `clear` gives it back to the rules. */
      set: z
        .strictObject({
          ...(Object.fromEntries(MANAGED_TOKENS.map((token) => [token, overrideSwitch.optional()])) as Record<
            (typeof MANAGED_TOKENS)[number],
            z.ZodOptional<typeof overrideSwitch>
          >),
          target: z.union([targetSchema, z.literal("clear")]).optional(),
        })
        .refine((set) => Object.keys(set).length > 0, "Say what to set."),
    }),
    z.strictObject({ do: z.literal("clear-overrides") }),
    z.strictObject({
      do: z.literal("destination"),
      find: address("The address to look for"),
      replace: address("The new address"),
    }),
    z.strictObject({
      do: z.literal("host"),
      find: host("The host to look for"),
      replace: host("The new host"),
    }),
    z.strictObject({
      do: z.literal("parameter"),
      name: address("The parameter's name"),
      /** null takes the parameter away. */
      value: z.string().max(1000).nullable(),
      /** Only links that have it already, or all that are chosen. */
      add: z.boolean().default(false),
    }),
    z.strictObject({ do: z.literal("shorten") }),
    z.strictObject({
      do: z.literal("directory"),
      /** Short links that begin with this, and the links that lead to them, begin with `to` from then on. */
      from: directory("The directory that they leave"),
      to: directory("The new directory"),
      /** The host that they answer on; the primary one when absent. */
      host: z.string().trim().toLowerCase().max(255).optional(),
      /** Whether their old addresses answer on. */
      keepOld: z.boolean().default(true),
    }),
    z.strictObject({
      do: z.literal("program"),
      program: id,
      /** `unlink` leaves the words of links in content; routes go on to the plain address. */
      become: z.enum(
        ["reissue", "track", "plain", "unlink"],
        "Links are reissued, tracked, made plain or unlinked.",
      ),
      /** The terms by which the links are known, where they are not those of today. */
      before: z
        .strictObject({
          trackingId: z.string().max(120),
          template: z.string().max(1500),
          domains: z.array(z.string().max(255)).max(200),
        })
        .optional(),
      /** Another program whose links they become. */
      other: id.optional(),
    }),
    z.strictObject({
      do: z.literal("creative"),
      /** The creative whose places follow. */
      creative: id,
      /** The snippet that it becomes. */
      html: z.string().max(20_000),
    }),
  ],
  "do is override, clear-overrides, destination, host, parameter, shorten, directory, program or creative.",
);
export type LinkAction = z.infer<typeof linkActionSchema>;

export const linkBulkSchema = z
  .strictObject({
    ids: z.array(id).min(1).max(20_000).optional(),
    filter: ledgerFilterSchema.optional(),
    action: linkActionSchema,
    /** Change what readers get as well; else drafts alone. */
    published: z.boolean().default(false),
    /** Routes that lead to what is replaced, too. */
    routes: z.boolean().default(true),
    dryRun: z.boolean().default(false),
  })
  .refine(
    ({ ids, filter, action: { do: what } }) =>
      (ids === undefined) !== (filter === undefined) ||
      ((what === "program" || what === "creative" || what === "directory") && ids === undefined),
    "Choose links by ids or by filter.",
  );
export type LinkBulk = z.infer<typeof linkBulkSchema>;

const change = z.object({
  place: z.enum([...LEDGER_PLACES, "route"]),
  /** Path of the page, or the route's address. */
  where: z.string(),
  id: z.string(),
  words: z.string(),
  before: z.string(),
  after: z.string(),
  edition: z.enum(["draft", "published", "both"]),
});
export const linkBulkAnswerSchema = z.object({
  /** How many of those that were meant stay as they are; the first of them stand in `refused` with the reason. */
  left: z.int(),
  links: z.int(),
  pages: z.int(),
  routes: z.int(),
  /** Links of pages that are written elsewhere: they go on the list of what is to be done there. */
  elsewhere: z.int(),
  changes: z.array(change),
  refused: z.array(z.object({ where: z.string(), message: z.string() })),
  /** By which all of it is undone; null when nothing was changed. */
  batch: z.string().nullable(),
});
export type LinkBulkAnswer = z.infer<typeof linkBulkAnswerSchema>;
export type LinkChange = z.infer<typeof change>;

/** Links counted by host or by page; treatments are those of outside links. */
export const ledgerGroupSchema = z.object({
  /** The host; the page's path, or what a block is found by. */
  value: z.string(),
  title: z.string(),
  /** What a page's path stands for; null for hosts. */
  place: z.enum(LEDGER_PLACES).nullable(),
  links: z.int(),
  outside: z.int(),
  sponsored: z.int(),
  ugc: z.int(),
  nofollow: z.int(),
  plain: z.int(),
  newTab: z.int(),
  findings: z.int(),
});
export type LedgerGroup = z.infer<typeof ledgerGroupSchema>;

const treatmentSums = z.object({ sponsored: z.int(), ugc: z.int(), nofollow: z.int(), plain: z.int() });
export const ledgerReportSchema = z.object({
  madeAt: z.string(),
  total: treatmentSums,
  newTab: z.int(),
  hosts: z.array(ledgerGroupSchema),
  hostsInAll: z.int(),
  pages: z.array(ledgerGroupSchema),
  pagesInAll: z.int(),
  days: z.array(treatmentSums.extend({ day: z.string() })),
  /** Addresses that were not let out, at most 500: readers get the words of such a link, and no picture. */
  notLetOut: z.array(
    z.object({ page: z.string(), title: z.string(), words: z.string(), address: z.string().nullable() }),
  ),
});
export type LedgerReport = z.infer<typeof ledgerReportSchema>;
