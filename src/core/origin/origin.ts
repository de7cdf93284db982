import { z } from "zod";
import { beginsAsOne } from "../address/path-start.ts";
import { id, line, sitePath } from "../ground/fields.ts";
import type { OriginPlace } from "./place.ts";
import { COMES, PASSES, siteOriginSchema, type SiteOrigin } from "../sites/site-origin.ts";

/** What became of a page when it was last asked for. */
export const READING_STATES = [
  "found",
  "waiting",
  "read",
  "moved",
  "gone",
  "failing",
  "hidden",
  "elsewhere",
  "scripts",
  "other",
  "forbidden",
] as const;
export type ReadingState = (typeof READING_STATES)[number];

/** The address under which a site's pages stand: a web address without query and fragment. */
export const originAddress = z
  .string("Where the pages stand is a web address, such as https://garden.example/.")
  .trim()
  .max(500, "That address is longer than 500 characters.")
  .transform((typed, context) => {
    const whole = /^[a-z][a-z\d+.-]*:\/\//i.test(typed) ? typed : `https://${typed}`;
    if (/^https?:/i.test(whole) && URL.canParse(whole)) {
      const { username, password, host, protocol, pathname } = new URL(whole);
      if (username === "" && password === "" && host !== "") return `${protocol}//${host}${pathname}`;
    }
    context.addIssue({
      code: "custom",
      message: "This is no address of a website; write one such as https://garden.example/.",
    });
    return z.NEVER;
  });

const pathStart = line("A path", 500)
  .trim()
  .refine((path) => path.startsWith("/"), "A path begins with a slash, such as /shop/.");

/** What a person sets about reading. */
export const readingSettingsSchema = z.strictObject({
  /** Milliseconds between two requests to one host. */
  pauseMs: z
    .int("The pause is a whole number of milliseconds.")
    .min(0, "A pause is no shorter than nothing.")
    .max(60_000, "A pause is at most 60 seconds.")
    .default(1_000),
  mostPages: z
    .int("Pages are a whole number.")
    .min(1, "At least one page is read.")
    .max(50_000, "At most 50,000 pages are read.")
    .default(5_000),
  /** Beginnings of paths that are not read. */
  leaveOut: z.array(pathStart).max(200, "At most 200 beginnings of paths are left out.").default([]),
  /** Parts of the site that are read, by the first step of their path; empty: all of it. */
  parts: z.array(line("A part", 200)).max(500).default([]),
});
export type ReadingSettings = z.infer<typeof readingSettingsSchema>;

/** Whether a page is one of those that are to be read. */
export function isToBeRead(
  { path, part }: Pick<OriginPlace, "path" | "part">,
  { parts, leaveOut }: Pick<ReadingSettings, "parts" | "leaveOut">,
): boolean {
  return (parts.length === 0 || parts.includes(part)) && !beginsAsOne(path, leaveOut);
}

/** What is read of an origin: what is written here alone where we stand before it is left out, too. */
export function settingsOfReading({
  settings,
  comes,
  here,
}: Pick<SiteOrigin, "comes" | "here"> & { settings: Partial<ReadingSettings> }): ReadingSettings {
  const set = readingSettingsSchema.parse(settings);
  return comes === "front" ? { ...set, leaveOut: [...set.leaveOut, ...here] } : set;
}

export const originInputSchema = z.strictObject({
  address: originAddress,
  settings: readingSettingsSchema.partial().optional(),
});

export const originChangeSchema = z.strictObject({
  settings: readingSettingsSchema.partial(),
  version: z.int().positive(),
});

/** A document for machines that named pages, or why it did not. */
const namingDocument = z.object({
  address: z.string(),
  kind: z.enum(["robots", "sitemap", "index", "feed", "page"]),
  pages: z.int(),
  fault: z.string().nullable(),
});

/** What a first look at an origin found. */
export const foundSchema = z.object({
  /** What its robots file says to us. */
  robots: z.enum(["none", "allows", "forbids-some", "forbids-all", "unreadable"]),
  delaySeconds: z.number().nullable(),
  documents: z.array(namingDocument),
  /** What was left out of `documents` because there was too much of it. */
  documentsLeft: z.int(),
  pages: z.int(),
  /** Pages by the first step of their path; the empty one is what stands at the root. */
  parts: z.array(z.object({ part: z.string(), pages: z.int() })),
  hosts: z.array(z.object({ host: z.string(), links: z.int() })),
  languages: z.array(z.object({ language: z.string(), pages: z.int() })),
  title: z.string(),
});
export type Found = z.infer<typeof foundSchema>;

export const trapSchema = z.object({
  kind: z.enum(["calendar", "filters", "session", "growing"]),
  shape: z.string(),
  sample: z.string(),
  left: z.int(),
});

const counted = z.object({ state: z.enum(READING_STATES), pages: z.int() });

/** Where a site's pages stand, and how far they are read. */
export const originSchema = siteOriginSchema.extend({
  settings: readingSettingsSchema,
  found: foundSchema.nullable(),
  foundAt: z.string().nullable(),
  traps: z.array(trapSchema),
  readAt: z.string().nullable(),
  states: z.array(counted),
  version: z.int(),
});
export type Origin = z.infer<typeof originSchema>;

/** One page of the origin. */
export const readingSchema = z.object({
  id,
  path: z.string(),
  address: z.string(),
  state: z.enum(READING_STATES),
  status: z.int().nullable(),
  note: z.string(),
  leadsTo: z.string().nullable(),
  title: z.string(),
  language: z.string(),
  words: z.int(),
  readAt: z.string().nullable(),
  changedAt: z.string().nullable(),
  nextAt: z.string().nullable(),
  pageId: id.nullable(),
});
export type Reading = z.infer<typeof readingSchema>;

/** What reading has come to so far. */
export const readingResultsSchema = z.object({
  pages: z.int(),
  links: z.int(),
  /** Outside links as they are written there, by treatment. */
  written: z.object({ sponsored: z.int(), ugc: z.int(), nofollow: z.int(), plain: z.int(), newTab: z.int() }),
  /** Links that the rules in force would change. */
  changed: z.int(),
  /** Inside links that nothing answers, and those that are only led on. */
  dead: z.int(),
  redirected: z.int(),
  programs: z.array(z.object({ program: z.string(), links: z.int() })),
  untracked: z.int(),
  /** Different outside addresses of programs that have no short link. */
  couldBeShort: z.int(),
  repeated: z.array(z.object({ id, title: z.string(), onPages: z.int(), links: z.int() })),
});
export type ReadingResults = z.infer<typeof readingResultsSchema>;

/** Addresses that another system says it has just published. */
export const readNowSchema = z.strictObject({
  addresses: z
    .array(
      z
        .string()
        .trim()
        .min(1, "An address is missing.")
        .max(2_048, "An address has at most 2,048 characters."),
    )
    .min(1, "Which pages? Give at least one address.")
    .max(1_000, "At most 1,000 addresses are read at once."),
});

/** What is done with pages on their way through us. */
export const frontInputSchema = z.strictObject({
  comes: z.enum(COMES, "Pages are read, or readers get them through us (front)."),
  passes: z.enum(PASSES, "Pages pass untouched, as a shadow, or on."),
  /** Beginnings of the paths that it is done on; none: all. */
  only: z.array(pathStart).max(100, "At most 100 beginnings of paths are named.").default([]),
  /** Beginnings of the paths that are written here alone. */
  here: z.array(pathStart).max(100, "At most 100 beginnings of paths are named.").default([]),
});

/** Which page serves pages of ours as a frame. */
export const frameInputSchema = z.strictObject({
  frame: z
    .strictObject({
      path: sitePath,
      selector: z
        .string("The content area is named by a selector.")
        .trim()
        .min(1, "Say where the content stands.")
        .max(300, "A selector has at most 300 characters."),
    })
    .nullable(),
});
export const frameLookSchema = z.strictObject({ path: sitePath });
/** What may be the content area of a page. */
export const frameAreasSchema = z.object({
  areas: z.array(z.object({ selector: z.string(), words: z.int(), begins: z.string() })),
});

const passedCounts = z.object({
  passed: z.int(),
  pages: z.int(),
  changedPages: z.int(),
  links: z.int(),
  changedLinks: z.int(),
  misses: z.int(),
  failures: z.int(),
});
const linkThere = z.object({ href: z.string(), rel: z.string().nullable(), target: z.string().nullable() });

/** How pages come to readers, and what passed in the last seven days. */
export const frontSchema = z.object({
  comes: z.enum(COMES),
  passes: z.enum(PASSES),
  only: z.array(z.string()),
  here: z.array(z.string()),
  frame: z.object({ path: z.string(), selector: z.string() }).nullable(),
  counts: passedCounts,
  /** Links that were, or would be, changed, the newest first. */
  samples: z.array(z.object({ page: z.string(), words: z.string(), before: linkThere, after: linkThere })),
});
export type FrontState = z.infer<typeof frontSchema>;

/** What would happen if readers were sent to us. */
export const frontCheckSchema = z.object({
  findings: z.array(
    z.object({
      about: z.enum(["answer", "round", "redirect", "absolute", "cookies", "caching", "coding"]),
      severity: z.enum(["good", "hint", "fault"]),
      message: z.string(),
    }),
  ),
  /** Lines to set it up, and to try it on one machine. */
  dns: z.string(),
  nginx: z.string(),
  hosts: z.string(),
});
export type FrontCheck = z.infer<typeof frontCheckSchema>;
