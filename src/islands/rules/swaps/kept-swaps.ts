import { z } from "zod";
import { swapSchema, type Swap } from "../../../core/rules/swaps/swap.ts";

/** A set of swaps that was worked on and not applied, in this browser's own store. */
export interface KeptSwaps {
  base: number;
  swaps: Swap[];
}

const keptSchema = z.object({ base: z.int(), swaps: z.array(swapSchema) });

/** Reads what was kept; undefined when nobody can go on with it. */
export function readKeptSwaps(text: string): KeptSwaps | undefined {
  try {
    return keptSchema.parse(JSON.parse(text));
  } catch {
    return undefined;
  }
}
