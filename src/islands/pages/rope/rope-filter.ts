import type { Finding } from "../../../core/pages/check/finding.ts";
import type { DeliveredLink } from "./use-delivered.ts";

/** Which knots of the rope are shown. */
export const ROPE_FILTERS = ["all", "outside", "paid", "inside", "faulty"] as const;
export type RopeFilter = (typeof ROPE_FILTERS)[number];

/** True when the link belongs to the filter. */
export function passes(
  filter: RopeFilter,
  delivered: DeliveredLink | undefined,
  findings: readonly Finding[],
): boolean {
  switch (filter) {
    case "all":
      return true;
    case "outside":
      return delivered?.outside ?? false;
    case "paid":
      return delivered?.resolved.rel.includes("sponsored") ?? false;
    case "inside":
      return delivered !== undefined && !delivered.outside && !["mail", "phone"].includes(delivered.kind);
    case "faulty":
      return findings.length > 0;
  }
}
