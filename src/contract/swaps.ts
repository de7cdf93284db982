import {
  swapSetSchema,
  swapsInputSchema,
  swapsTrySchema,
  swapVersionSchema,
  triedSwapsSchema,
} from "../core/rules/swaps/swap.ts";
import { call, listOf } from "./ground/call.ts";

/** The calls about swaps: addresses, hosts and parameters that are replaced in delivered pages. */
export const swaps = {
  read: call("GET", "/sites/:site/swaps", {
    summary: "The swaps in force, in the order in which they act",
    role: "reader",
    answer: swapSetSchema,
  }),
  replace: call("PUT", "/sites/:site/swaps", {
    summary: "Replace the set of swaps; it acts on pages as they are delivered",
    role: "editor",
    body: swapsInputSchema,
    answer: swapSetSchema,
  }),
  try: call("POST", "/sites/:site/swaps/try", {
    summary: "What a set of swaps would change on the whole site; with “Prefer: respond-async” as a job",
    role: "reader",
    body: swapsTrySchema,
    answer: triedSwapsSchema,
    job: "preferred",
  }),
  versions: call("GET", "/sites/:site/swaps/versions", {
    summary: "Every set of swaps that was in force, newest first",
    role: "reader",
    answer: listOf(swapVersionSchema),
  }),
  restoreVersion: call("POST", "/sites/:site/swaps/versions/:version/restore", {
    summary: "Put a kept set of swaps into force again",
    role: "editor",
    body: swapsInputSchema.pick({ version: true }),
    answer: swapSetSchema,
  }),
};
