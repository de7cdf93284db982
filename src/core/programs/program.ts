import { z } from "zod";
import { readAmount } from "../earnings/money.ts";
import { readTemplate } from "./template.ts";
import { DEFAULT_SUB_ID, subIdPatternFault } from "./sub-id.ts";
import { domainPattern } from "../address/domain-pattern.ts";
import { currencyCode } from "../earnings/earning.ts";
import { clicksOf, destination, hostName, id, line, requiredLine, version } from "../ground/fields.ts";
import { PROGRAM_STATES, COMMISSION_KINDS, COMMISSION_FOR } from "./choices.ts";

const text = (name: string, most: number) =>
  z.string(`${name} is text.`).max(most, `${name} has more than ${most} characters; shorten it.`).default("");
const day = (name: string) => z.iso.date(`${name} is a day, such as 2026-12-01.`).nullable().default(null);
const webAddress = (name: string) =>
  z
    .union([
      z.literal(""),
      destination.refine((address) => /^https?:/i.test(address), `${name} is a web address.`),
    ])
    .default("");
const decimal = (name: string) =>
  z
    .string(`${name} is a decimal number as text.`)
    .trim()
    .regex(/^\d{1,12}(?:\.\d{1,4})?$/, `${name} is a number such as 7.5.`);
/** An amount of a currency, exact, as decimal text. */
const amount = (name: string) => decimal(name).nullable().default(null);

/** What the network says it pays per 100 clicks, over so many days. */
const networkEpc = z
  .strictObject({
    d7: amount("EPC over 7 days"),
    d30: amount("EPC over 30 days"),
    d90: amount("EPC over 90 days"),
  })
  .default({ d7: null, d30: null, d90: null });

const fields = {
  name: requiredLine("The program's name", 120),
  network: line("The network", 120).default(""),
  state: z
    .enum(PROGRAM_STATES, "A program is considering, applied, approved, paused or closed.")
    .default("considering"),
  siteAddress: webAddress("The program's site"),
  signInAddress: webAddress("The address to sign in"),
  trackingId: line("The tracking ID", 120).default(""),
  template: z
    .string("The link template is text.")
    .trim()
    .max(1500, "The template has more than 1,500 characters.")
    .superRefine((typed, context) => {
      const read = typed === "" ? undefined : readTemplate(typed);
      if (read && !read.ok) context.addIssue({ code: "custom", message: read.reason });
    })
    .default(""),
  subIdPattern: line("The pattern for sub-IDs", 120)
    .superRefine((typed, context) => {
      const fault = subIdPatternFault(typed);
      if (fault) context.addIssue({ code: "custom", message: fault });
    })
    .default(DEFAULT_SUB_ID),
  subIdLimit: z.int("The longest sub-ID is a whole number.").min(1).max(255).default(50),
  slugPattern: line("The pattern for short links", 120).default("{product}"),
  domains: z
    .array(domainPattern, "Domains are a list.")
    .min(1, "Name at least one domain that its links lead to.")
    .max(200),
  commission: decimal("The commission").default("0"),
  commissionKind: z.enum(COMMISSION_KINDS).default("percent"),
  commissionFor: z.enum(COMMISSION_FOR).default("sale"),
  currency: currencyCode.default("EUR"),
  cookieDays: z.int("The cookie window is a whole number of days.").min(0).max(3650).default(30),
  payoutThreshold: amount("The payout threshold"),
  payoutMethod: line("How it pays", 120).default(""),
  /** The day of the month on which it pays; null when it is not known. */
  payoutDay: z
    .int()
    .min(1, "A day of the month is 1 to 31.")
    .max(31, "A day of the month is 1 to 31.")
    .nullable()
    .default(null),
  /** The day up to which it has paid out: what came later counts towards the threshold. */
  paidUntil: day("The day up to which it paid"),
  epc: networkEpc,
  needsReferrer: z.boolean().default(false),
  /** Links to it without our tracking get it on pages that readers get through us from elsewhere. */
  tracksOnTheWay: z.boolean("tracksOnTheWay is true or false.").default(false),
  /** Somebody has decided that its links stay as they are although it is closed. */
  linksLeft: z.boolean().default(false),
  /** When its terms are to be looked at again. */
  termsReview: day("The day to look at its terms again"),
  /** What reports call it besides its name. */
  reportNames: z
    .array(requiredLine("A name in reports", 200))
    .max(30, "Thirty names in reports are enough.")
    .default([]),
  contacts: text("Contacts", 2000),
  notes: text("Notes", 20_000),
  tags: z.array(requiredLine("A tag", 60)).max(30).default([]),
  nextStep: line("The next step", 300).default(""),
  nextStepDue: day("The day of the next step"),
};

const whole = z.strictObject(fields);
type Whole = z.infer<typeof whole>;

function checkWhole(program: Partial<Whole>, context: z.RefinementCtx): void {
  const { template, domains, payoutThreshold, currency, commission, commissionKind } = program;
  if (commissionKind === "percent" && commission !== undefined && Number(commission) > 100)
    context.addIssue({ code: "custom", path: ["commission"], message: "A percentage is at most 100." });
  if (payoutThreshold && currency) {
    const read = readAmount(payoutThreshold, currency, ".");
    if (!read.ok) context.addIssue({ code: "custom", path: ["payoutThreshold"], message: read.reason });
  }
  if (template?.startsWith("{destination}") && domains?.length === 0)
    context.addIssue({ code: "custom", path: ["domains"], message: "Name the domains of its pages." });
}

export const programInputSchema = whole.superRefine(checkWhole);
export type ProgramInput = z.infer<typeof programInputSchema>;
/** A program as it is sent: its addresses not checked yet. */
export type WrittenProgram = z.input<typeof programInputSchema>;

// A default that is taken off takes the checks behind it along: in every field it stands last.
/** A change: the fields that are given, over the version that was read. */
export const programChangeSchema = z
  .strictObject(
    Object.fromEntries(
      Object.entries(fields).map(([name, field]) => [
        name,
        (field instanceof z.ZodDefault ? field.unwrap() : field).optional(),
      ]),
    ) as unknown as { [K in keyof typeof fields]: z.ZodOptional<(typeof fields)[K]> },
  )
  .extend({ version })
  .superRefine(checkWhole);
export type ProgramChange = z.infer<typeof programChangeSchema>;

/** Money of one currency, as decimal text. */
const money = z.object({ currency: z.string(), amount: z.string() });

export const programSchema = whole.extend({
  id,
  /** When it came into each state. */
  stateDates: z.partialRecord(z.enum(PROGRAM_STATES), z.string()),
  /** Whether a name and a password are stored; they themselves are never in an answer but that which asks for them. */
  hasCredentials: z.boolean(),
  version: z.int(),
  createdAt: z.string(),
  updatedAt: z.string(),
});
export type Program = z.infer<typeof programSchema>;

/** A program with what it does for the site. */
export const programFiguresSchema = programSchema.extend({
  /** Links of delivered pages that lead to it, and how many of them carry no tracking of ours. */
  links: z.int(),
  untracked: z.int(),
  /** Clicks on its short links in the last 90 days. */
  clicks: z.int(),
  /** Approved and pending commission of the last 90 days. */
  earned: z.array(money),
  /** Our own earnings per 100 clicks, in the program's currency. */
  ownEpc: z.object({ d7: z.string().nullable(), d30: z.string().nullable(), d90: z.string().nullable() }),
  /** Whose clicks they are divided by: ours on short links, or the network's where it counted more. */
  ownEpcPer: z.object({ d7: clicksOf, d30: clicksOf, d90: clicksOf }),
  /** Approved since it last paid out: what counts towards the threshold. */
  towardsPayout: z.string(),
});
export type ProgramFigures = z.infer<typeof programFiguresSchema>;

export const programListQuery = z.object({
  q: z.string().max(500).optional(),
  network: z.string().max(120).optional(),
  state: z.enum(PROGRAM_STATES).optional(),
  tag: z.string().max(60).optional(),
  sort: z.string().max(60).optional(),
});

export const linkQuestionSchema = z.strictObject({
  destination: z.string("A destination is text.").trim().min(1, "Paste the address of a product.").max(4096),
  /** The sub-ID itself, instead of one made by the pattern. */
  subId: line("The sub-ID", 255).optional(),
  /** The page that the link will stand on, by id, and free text: what the sub-ID is made of. */
  page: id.optional(),
  text: line("The label", 120).optional(),
});
export type LinkQuestion = z.infer<typeof linkQuestionSchema>;

export const builtLinkSchema = z.object({
  address: z.string(),
  subId: z.string(),
  destination: z.string(),
  /** What a short link for it would be called, by the program's pattern; empty when that says nothing. */
  slug: z.string(),
  program: z.object({ id, name: z.string() }),
  /** What is worth a second look though the link is built. */
  warnings: z.array(z.string()),
});
export type BuiltProgramLink = z.infer<typeof builtLinkSchema>;

export const credentialsInputSchema = z.strictObject({
  name: line("The name to sign in with", 320),
  password: z.string("The password is text.").max(1000, "The password has more than 1,000 characters."),
});
export const credentialsSchema = z.object({ name: z.string(), password: z.string() });
export type Credentials = z.infer<typeof credentialsSchema>;

/** A network: where its links lead first, and where its catalogue and its report are. */
export const networkInputSchema = z.strictObject({
  name: requiredLine("The network's name", 120),
  hosts: z.array(hostName).max(50).default([]),
  catalogue: webAddress("The catalogue"),
  report: webAddress("The report"),
});
export const networkSchema = networkInputSchema.extend({ id });
export type Network = z.infer<typeof networkSchema>;
