import { z } from "zod";
import { domainPattern } from "../address/domain-pattern.ts";
import { requiredLine } from "../ground/fields.ts";

export const switchSchema = z.enum(["on", "off"]);
export const targetSchema = z.enum(["new", "same"]);

const pagePattern = z
  .string()
  .trim()
  .max(1024)
  .regex(/^\/[^\s?#]*$/, "A page pattern is a path such as /reviews/first or /reviews/*.");

const names = z.array(requiredLine("A name", 120)).min(1).max(500);

/** What a rule looks at in a link. A field that is present must match; `*.d` is d's subdomains, `d` is d itself. */
export const ruleMatchSchema = z.strictObject({
  destination: z.enum(["external", "internal", "any"]).optional(),
  domains: z.array(domainPattern).min(1).max(2000).optional(),
  programs: names.optional(),
  networks: names.optional(),
  categories: names.optional(),
  pages: z.array(pagePattern).min(1).max(2000).optional(),
  anchor: z.enum(["text", "image"]).optional(),
});

/** What a rule sets; what is absent is left to other rules and to the author. */
export const ruleSetsSchema = z.strictObject({
  nofollow: switchSchema.optional(),
  sponsored: switchSchema.optional(),
  ugc: switchSchema.optional(),
  noopener: switchSchema.optional(),
  noreferrer: switchSchema.optional(),
  external: switchSchema.optional(),
  target: targetSchema.optional(),
});

/** A statement that sets rel tokens and target for the links it matches. */
export const ruleSchema = z.strictObject({
  name: requiredLine("The rule's name", 160),
  enabled: z.boolean().default(true),
  match: ruleMatchSchema.default({}),
  except: ruleMatchSchema.optional(),
  set: ruleSetsSchema,
  mode: z.enum(["fill", "overwrite"]).default("fill"),
});

export const rulesInputSchema = z.strictObject({
  version: z.int().nonnegative(),
  rules: z.array(ruleSchema).max(1000, "A set has at most 1,000 rules."),
});

export const ruleSetSchema = z.object({ version: z.int(), rules: z.array(ruleSchema) });

export type Rule = z.infer<typeof ruleSchema>;
export type RuleMatch = z.infer<typeof ruleMatchSchema>;
export type RuleSet = z.infer<typeof ruleSetSchema>;

const relInput = z.union([z.string().max(500), z.array(z.string().max(60)).max(30)]);

/** A question to the rules: which rel and target would this link get? */
export const attributesQuestionSchema = z.strictObject({
  href: z.string("href is the link's address.").min(1, "href is missing.").max(4096),
  rel: relInput.optional(),
  target: z.string().max(120).nullish(),
  override: z.string().max(300).optional(),
  page: z.string().max(1024).optional(),
  category: z.string().max(120).optional(),
  anchor: z.enum(["text", "image"]).optional(),
});

/** Several links asked about at once. */
export const manyAttributesSchema = z.strictObject({
  links: z
    .array(attributesQuestionSchema, "links is a list of links.")
    .min(1, "Which links?")
    .max(1_000, "At most 1,000 links are asked about at once."),
});

export const attributesAnswerSchema = z.object({
  rel: z.array(z.string()),
  target: z.string().nullable(),
  trace: z.array(
    z.object({
      attribute: z.string(),
      value: z.string(),
      by: z.string(),
      /** Which of the link's hosts a rule for domains was matched by: as written, or where it ends. */
      matched: z.string().optional(),
      beat: z.array(z.string()),
    }),
  ),
  /** By attribute: what to change to get another answer. */
  otherwise: z.record(z.string(), z.string()),
});

const differenceSchema = z.object({
  change: z.enum(["added", "removed", "changed", "switched on", "switched off", "moved"]),
  name: z.string(),
  before: z.string().optional(),
  after: z.string().optional(),
});

/** One kept set, and what it changed of the one before. */
export const ruleVersionSchema = z.object({
  version: z.int(),
  rules: z.int(),
  createdBy: z.string(),
  createdAt: z.string(),
  differences: z.array(differenceSchema),
});
export type RuleVersion = z.infer<typeof ruleVersionSchema>;

/** A kept set in full, and what it would change of the set in force. */
export const ruleVersionFullSchema = ruleSetSchema.extend({
  createdBy: z.string(),
  createdAt: z.string(),
  against: z.array(differenceSchema),
});
export type RuleVersionFull = z.infer<typeof ruleVersionFullSchema>;

/** A set that is to come into force by itself at a time. `version`: the one in force that it was made over. */
export const scheduleInputSchema = rulesInputSchema.extend({
  at: z.iso.datetime({
    offset: true,
    message: "The time is a date with time, such as 2027-03-01T06:00:00Z.",
  }),
});
export const scheduleSchema = z.object({
  version: z.int(),
  rules: z.array(ruleSchema),
  at: z.string(),
  madeBy: z.string(),
  /** Why it did not come into force; null while it waits. */
  held: z.string().nullable(),
  differences: z.array(differenceSchema),
});
export type RuleSchedule = z.infer<typeof scheduleSchema>;

export const rulesTrySchema = z.strictObject({
  rules: rulesInputSchema.shape.rules,
  /** Lists the links of one group of changes. */
  only: z.strictObject({ change: z.string().max(300), offset: z.int().nonnegative().default(0) }).optional(),
});

const triedLook = z.object({ rel: z.array(z.string()), target: z.string().nullable() });
const changedLink = z.object({
  id: z.string(),
  page: z.string(),
  anchor: z.string(),
  href: z.string(),
  before: triedLook,
  after: triedLook,
});
const treatmentCounts = z.object({
  sponsored: z.int(),
  ugc: z.int(),
  nofollow: z.int(),
  plain: z.int(),
});
export const adviceListSchema = z.array(
  z.object({ code: z.string(), rules: z.array(z.int()), message: z.string() }),
);
export const triedRulesSchema = z.object({
  links: z.int(),
  pages: z.int(),
  changed: z.int(),
  changedPages: z.int(),
  samples: z.array(changedLink),
  groups: z.array(
    z.object({ change: z.string(), links: z.int(), pages: z.int(), samples: z.array(changedLink) }),
  ),
  hosts: z.array(z.object({ host: z.string(), before: treatmentCounts, after: treatmentCounts })),
  /** How many links each rule decides something of. */
  decides: z.array(z.int()),
  advice: adviceListSchema,
  listed: z.array(changedLink),
});
export type TriedRules = z.infer<typeof triedRulesSchema>;

/** Any HTML to which the rules are to be applied, with a report. */
export const rewriteInputSchema = z.strictObject({
  html: z.string("html is text."),
  page: z.string().max(1024).optional(),
  category: z.string().max(120).optional(),
});
const writtenLook = z.object({ rel: z.string().nullable(), target: z.string().nullable() });
export const rewriteAnswerSchema = z.object({
  html: z.string(),
  links: z.int(),
  changes: z.array(
    z.object({
      line: z.int(),
      words: z.string(),
      href: z.string(),
      before: writtenLook,
      after: writtenLook,
      by: z.array(z.string()),
    }),
  ),
  /** Addresses that may not leave the house, and were taken away. */
  refused: z.array(z.object({ line: z.int(), words: z.string(), address: z.string() })),
});
