import { z } from "zod";
import { destination, id, line, requiredLine } from "../ground/fields.ts";
import { adviceSchema } from "../routes/route.ts";
import { publicHost } from "../address/public-host.ts";
import { siteHostSchema } from "./host.ts";
import { HOST_ROLES } from "./choices.ts";
import { directorySchema } from "./directory.ts";
import { isCountry, isLanguage, isTimeZone } from "./locale.ts";
import { siteOriginSchema } from "./site-origin.ts";
import { deliveredSiteSchema } from "./delivered-site.ts";
import { routeDefaultsSchema } from "./route-defaults.ts";
import { disclosureSchema, partnerSchema } from "../programs/partner.ts";

/** First parts of the workspace's own addresses: a site with such a key could not be told from them. */
export const RESERVED_KEYS: ReadonlySet<string> = new Set([
  "404",
  "500",
  "api",
  "assets",
  "docs",
  "favicon",
  "fonts",
  "health",
  "healthz",
  "index",
  "invite",
  "metrics",
  "people",
  "readyz",
  "reset",
  "robots",
  "session",
  "sign-in",
  "sign-out",
  "sites",
  "welcome",
]);

export const siteInputSchema = z.strictObject({
  key: z
    .string("key is text.")
    .regex(
      /^[a-z0-9](?:[a-z0-9-]{0,58}[a-z0-9])?$/,
      "A key is lower-case letters, digits and hyphens, such as low-lantern.",
    )
    .refine(
      (key) => !RESERVED_KEYS.has(key),
      "The workspace has an address of its own that begins so; choose another key.",
    ),
  name: requiredLine("The name", 120),
  hosts: z
    .array(z.strictObject({ name: publicHost, role: z.enum(HOST_ROLES) }))
    .min(1, "A site has at least one host.")
    .max(50)
    .refine(
      (hosts) => hosts.filter((host) => host.role === "primary").length === 1,
      "Exactly one host is the primary one.",
    )
    .refine(
      (hosts) => new Set(hosts.map((host) => host.name)).size === hosts.length,
      "Each host stands once.",
    ),
  shortPrefix: directorySchema.optional(),
  /** A site whose settings the new one takes over, and its rules where `copyRules` says so; all else is its own. */
  copyOf: z.string().max(60).optional(),
  copyRules: z.boolean().optional(),
});
export type SiteInput = z.infer<typeof siteInputSchema>;

export const variableName = z
  .string()
  .trim()
  .toLowerCase()
  .regex(/^[a-z][a-z0-9_-]{0,59}$/, "A variable's name is letters, digits, - and _, such as account.");

export const MISS_ANSWERS = ["help", "closest", "destination"] as const;

/** What readers get who ask for an address that nothing answers. */
export const missPolicySchema = z
  .strictObject({
    /** A 404 page with the closest addresses; the closest itself when exactly one is good; or a chosen destination. */
    answer: z.enum(MISS_ANSWERS, "Misses get help, closest or destination."),
    destination: destination.optional(),
    /** Seconds that a notice stands before the chosen destination; 0: at once. */
    seconds: z.int().min(0).max(60, "A notice shows itself for at most 60 seconds.").optional(),
    text: line("The notice", 1000).optional(),
  })
  .refine(({ answer, destination: to }) => answer !== "destination" || to !== undefined, {
    path: ["destination"],
    message: "Where shall readers arrive who asked for an unknown address?",
  });
export type MissPolicy = z.infer<typeof missPolicySchema>;
/** The choice as it is sent: its address not checked yet. */
export type WrittenMissPolicy = z.input<typeof missPolicySchema>;

export const siteChangeSchema = z.strictObject({
  name: requiredLine("The name", 120).optional(),
  tagline: line("The line below the name", 300).optional(),
  /** Values for `{{name}}` in texts and addresses; the whole set. */
  variables: z
    .record(z.string(), line("A variable's value", 1000))
    .superRefine((all, context) => {
      if (Object.keys(all).length > 200)
        context.addIssue({ code: "custom", message: "A site has at most 200 variables." });
      for (const name of Object.keys(all)) {
        const named = variableName.safeParse(name);
        if (!named.success)
          context.addIssue({
            code: "custom",
            path: [name],
            message: `“${name}”: ${named.error.issues[0]!.message}`,
          });
      }
    })
    .transform((all) =>
      Object.fromEntries(Object.entries(all).map(([name, value]) => [name.trim().toLowerCase(), value])),
    )
    .optional(),
  paidLimit: z.int().min(0).max(1000).optional(),
  paidLimitLong: z.int().min(0).max(1000).optional(),
  longWords: z.int().min(1).max(1_000_000).optional(),
  misses: missPolicySchema.optional(),
  /** Two letters (ISO 3166-1): phone numbers without a country are of this one. Empty: of none. */
  country: z
    .string("A country is two letters, such as GB.")
    .trim()
    .toUpperCase()
    .refine((code) => code === "" || isCountry(code), "A country is two letters, such as GB.")
    .optional(),
  /** A language tag (BCP 47), such as en-GB: dates, numbers and money are shown in it. */
  language: z
    .string("A language is its tag, such as en-GB.")
    .trim()
    .refine(isLanguage, "A language is its tag, such as en-GB or de.")
    .optional(),
  /** An IANA time zone, such as Europe/London; empty: that of whoever looks. */
  timeZone: z
    .string("A time zone is its name, such as Europe/London.")
    .trim()
    .refine(isTimeZone, "A time zone is its name, such as Europe/London.")
    .optional(),
  /** Where new short links of the primary host begin, such as /to/; those that there are stay where they are. */
  shortPrefix: directorySchema.optional(),
  defaults: routeDefaultsSchema.optional(),
  delivered: deliveredSiteSchema.optional(),
  disclosure: disclosureSchema.optional(),
  clickMonths: z
    .int("Months are a whole number.")
    .min(1, "Clicks are kept for at least one month.")
    .max(240, "Clicks are kept for at most 240 months.")
    .optional(),
  historyMonths: z
    .int("Months are a whole number.")
    .min(1, "History is kept for at least one month.")
    .max(240, "History is kept for at most 240 months.")
    .optional(),
  version: z.int().positive(),
});
export type SiteChange = z.infer<typeof siteChangeSchema>;

export const siteSchema = z.object({
  id,
  key: z.string(),
  name: z.string(),
  tagline: z.string(),
  hosts: z.array(siteHostSchema.pick({ name: true, role: true, url: true })),
  shortPrefix: z.string(),
  variables: z.record(z.string(), z.string()),
  /** Paid links that a page of usual length bears, and one of at least `longWords` words. */
  paidLimit: z.int(),
  paidLimitLong: z.int(),
  longWords: z.int(),
  misses: missPolicySchema,
  /** The programs that were joined, as rules see them. */
  partners: z.array(partnerSchema),
  disclosure: z.object({ text: z.string(), place: z.boolean() }),
  /** Months that clicks themselves are kept; their counts stay. */
  clickMonths: z.int(),
  /** Months that its history is kept. */
  historyMonths: z.int(),
  /** Since when it rests: readers get what they got, and nothing is changed; null: it does not. */
  archivedAt: z.string().nullable(),
  country: z.string(),
  language: z.string(),
  timeZone: z.string(),
  defaults: routeDefaultsSchema,
  delivered: deliveredSiteSchema,
  /** Where its pages stand that are not written here; null: all are. */
  origin: siteOriginSchema.nullable(),
  version: z.int(),
  createdAt: z.string(),
  updatedAt: z.string(),
  /** What is to be said of a change that was just made. */
  advice: z.array(adviceSchema).optional(),
});
export type Site = z.infer<typeof siteSchema>;
