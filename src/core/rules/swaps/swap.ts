import { z } from "zod";
import { compareKey } from "../../address/compare.ts";
import { domainPattern } from "../../address/domain-pattern.ts";
import { readHost } from "../../address/repair/named-host.ts";
import { destination, webPlace } from "../../ground/fields.ts";

const enabled = z.boolean("enabled is true or false.").default(true);
const host = (what: string) =>
  z
    .string(`${what} is missing.`)
    .trim()
    .min(1, `${what} is missing.`)
    .max(255, `${what} has at most 255 characters.`)
    .refine((typed) => readHost(typed) !== undefined, `${what} is no host; write one such as shop.example.`);

/** A part of a link's address, and what readers get in its place. */
export const swapSchema = z.discriminatedUnion(
  "what",
  [
    z.strictObject({ what: z.literal("address"), enabled, find: webPlace, replace: destination }),
    z.strictObject({
      what: z.literal("host"),
      enabled,
      find: host("The host to look for"),
      replace: host("The new host"),
    }),
    z.strictObject({
      what: z.literal("parameter"),
      enabled,
      name: z
        .string("The parameter's name is missing.")
        .trim()
        .min(1, "The parameter's name is missing.")
        .max(200, "The parameter's name has at most 200 characters."),
      /** Only where it says this; null: whatever it says. */
      find: z.string().max(1000, "What it says has at most 1,000 characters.").nullable().default(null),
      /** null takes it away. */
      replace: z.string().max(1000, "What it is to say has at most 1,000 characters.").nullable(),
      /** Hosts of the links; `*.d` is d's subdomains; empty: all. */
      domains: z.array(domainPattern).max(200, "At most 200 domains are named.").default([]),
    }),
  ],
  "what is address, host or parameter.",
);
export type Swap = z.infer<typeof swapSchema>;

/** What tells whether two swaps look for the same. */
function soughtBy(swap: Swap): string {
  if (swap.what === "address") return `address ${compareKey(swap.find)}`;
  if (swap.what === "host") {
    const there = readHost(swap.find);
    return `host ${there?.host ?? swap.find} ${there?.port ?? ""}`;
  }
  return JSON.stringify(["parameter", swap.name, swap.find, [...swap.domains].sort()]);
}

function isIdle(swap: Swap): boolean {
  if (swap.what === "parameter") return swap.find !== null && swap.find === swap.replace;
  return swap.what === "address"
    ? compareKey(swap.find) === compareKey(swap.replace)
    : swap.find.toLowerCase() === swap.replace.toLowerCase();
}

/** The swaps of a site, in the order in which they act. */
const swapList = z
  .array(swapSchema, "swaps is a list.")
  .max(1000, "A site has at most 1,000 swaps.")
  .superRefine((swaps, context) => {
    const sought = new Map<string, number>();
    for (const [at, swap] of swaps.entries()) {
      if (isIdle(swap))
        context.addIssue({ code: "custom", path: [at, "replace"], message: "This is what it is already." });
      const key = soughtBy(swap);
      const earlier = sought.get(key);
      if (earlier !== undefined)
        context.addIssue({
          code: "custom",
          path: [at, swap.what === "parameter" ? "name" : "find"],
          message: `Swap ${earlier + 1} looks for the same.`,
        });
      else sought.set(key, at);
    }
  });

export const swapsInputSchema = z.strictObject({
  version: z.int("version is the number of the set that this one was made over.").nonnegative(),
  swaps: swapList,
});
export const swapsTrySchema = z.strictObject({ swaps: swapList });

export const swapSetSchema = z.object({ version: z.int(), swaps: z.array(swapSchema) });
export type SwapSet = z.infer<typeof swapSetSchema>;

/** One kept set of swaps. */
export const swapVersionSchema = swapSetSchema.extend({ createdBy: z.string(), createdAt: z.string() });
export type SwapVersion = z.infer<typeof swapVersionSchema>;

/** What a set of swaps would change of the links that readers get through this installation. */
export const triedSwapsSchema = z.object({
  links: z.int(),
  pages: z.int(),
  /** Links that it would change on pages that readers get as they are written elsewhere. */
  outOfReach: z.int(),
  /** How many links each swap changes, in their order. */
  changes: z.array(z.int()),
  samples: z.array(
    z.object({
      /** The page's path, or what a block is found by. */
      page: z.string(),
      words: z.string(),
      before: z.string(),
      after: z.string(),
      /** Which swaps: their places in the set. */
      by: z.array(z.int()),
    }),
  ),
});
export type TriedSwaps = z.infer<typeof triedSwapsSchema>;
