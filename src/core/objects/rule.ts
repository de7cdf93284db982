import { z } from "zod";
import { requiredLine } from "./fields.ts";

/** The rel tokens that rules manage, in the order in which they are delivered. */
export const MANAGED_TOKENS = ["nofollow", "sponsored", "ugc", "noopener", "noreferrer", "external"] as const;
export type ManagedToken = (typeof MANAGED_TOKENS)[number];

export const switchSchema = z.enum(["on", "off"]);
export const targetSchema = z.enum(["new", "same"]);

const domainPattern = z
  .string()
  .trim()
  .transform((typed, context) => {
    const wildcard = typed.startsWith("*.");
    const name = wildcard ? typed.slice(2) : typed;
    if (name !== "" && !/[*/\s?#@:\\]/.test(name) && URL.canParse(`http://${name}/`)) {
      return `${wildcard ? "*." : ""}${new URL(`http://${name}/`).hostname}`;
    }
    context.addIssue({
      code: "custom",
      message: `“${typed}” is not a domain. Write shop.example, or *.shop.example for its subdomains.`,
    });
    return z.NEVER;
  });

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

/** A statement that sets rel tokens and target for the links it matches (DESIGN section 7). */
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

export const attributesAnswerSchema = z.object({
  rel: z.array(z.string()),
  target: z.string().nullable(),
  trace: z.array(
    z.object({ attribute: z.string(), value: z.string(), by: z.string(), beat: z.array(z.string()) }),
  ),
});
