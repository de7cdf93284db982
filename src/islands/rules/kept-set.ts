import { z } from "zod";
import type { Rule } from "../../core/rules/rule.ts";

/** A set that was worked on and not switched on, in this browser's own store. */
export interface KeptSet {
  base: number;
  rules: Rule[];
}

// What is typed may be half a rule; only that it has a rule's shape is asked, which an earlier version may have kept otherwise.
const keptSchema = z.object({
  base: z.int(),
  rules: z.array(
    z.looseObject({
      name: z.string(),
      enabled: z.boolean(),
      match: z.looseObject({}),
      set: z.looseObject({}),
      mode: z.enum(["fill", "overwrite"]),
    }),
  ),
});

/** Reads what was kept; undefined when nobody can go on with it. */
export function readKeptSet(text: string): KeptSet | undefined {
  try {
    return keptSchema.parse(JSON.parse(text)) as KeptSet;
  } catch {
    return undefined;
  }
}
