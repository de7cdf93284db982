import { z } from "zod";
import type { Address } from "../address/address.ts";
import { repairAddress } from "../address/repair/repair.ts";
import { id, requiredLine } from "../ground/fields.ts";
import { MAX_LEVELS, NAVIGATION_KINDS, type NavigationKind } from "./choices.ts";

/** One entry of the navigation. A heading groups its children and may have a landing address of its own. */
export interface NavigationItem<A extends string = string> {
  id: string;
  label: string;
  kind: NavigationKind;
  /** Id of the page, for the kind "page" and for a heading that lands on one. */
  page?: string;
  /** Where the other kinds lead, and where a heading lands. */
  address?: A;
  /** The entry's own tab choice; absent: as the rules say. */
  target?: "same" | "new";
  children: NavigationItem<A>[];
}

/** An entry whose address was checked: only such ones are stored. */
export type StoredItem = NavigationItem<Address>;

const landing = z
  .string()
  .trim()
  .max(4096)
  .transform((pasted, context) => {
    const repaired = repairAddress(pasted);
    if (repaired.ok) return repaired.address;
    context.addIssue({ code: "custom", message: repaired.reason.message });
    return z.NEVER;
  });

/** An entry as it is sent. */
export const navigationItemInputSchema: z.ZodType<StoredItem> = z.lazy(() =>
  z
    .strictObject({
      id: z.string().min(1).max(60),
      label: requiredLine("The label", 120),
      kind: z.enum(NAVIGATION_KINDS),
      page: id.optional(),
      address: landing.optional(),
      target: z.enum(["same", "new"]).optional(),
      children: z.array(navigationItemInputSchema).max(100).default([]),
    })
    .superRefine((item, context) => {
      if (item.kind === "page" && !item.page)
        context.addIssue({
          code: "custom",
          path: ["page"],
          message: `Choose the page that “${item.label}” leads to.`,
        });
      if (item.kind !== "page" && item.kind !== "heading" && !item.address)
        context.addIssue({
          code: "custom",
          path: ["address"],
          message: `“${item.label}” needs an address to lead to.`,
        });
    }),
);

const items = z
  .array(navigationItemInputSchema)
  .max(200, "The navigation has at most 200 entries on its first level.")
  .refine((list) => depthOf(list) <= MAX_LEVELS, `The navigation has at most ${MAX_LEVELS} levels.`);

export const navigationInputSchema = z.strictObject({ version: z.int().nonnegative(), items });

/** An entry as it is answered. */
export const navigationItemSchema: z.ZodType<StoredItem> = z.lazy(() =>
  z.object({
    id: z.string(),
    label: z.string(),
    kind: z.enum(NAVIGATION_KINDS),
    page: z.string().optional(),
    address: z
      .string()
      .transform((address) => address as Address)
      .optional(),
    target: z.enum(["same", "new"]).optional(),
    children: z.array(navigationItemSchema),
  }),
);

export const navigationSchema = z.object({
  version: z.int(),
  items: z.array(navigationItemSchema),
  updatedBy: z.string(),
});
export type Navigation = z.infer<typeof navigationSchema>;

function depthOf(list: readonly NavigationItem[]): number {
  return list.length === 0 ? 0 : 1 + Math.max(...list.map(({ children }) => depthOf(children)));
}
