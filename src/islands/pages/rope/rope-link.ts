import type { DeliveredLink } from "./use-delivered.ts";
import type { Finding } from "../../../core/pages/check/finding.ts";

/** What the rope needs of a link: its place, its words and what it is. */
export interface RopeLink {
  key: string;
  top: number;
  words: string;
  href: string;
  override: string | null;
  delivered: DeliveredLink | undefined;
  findings: readonly Finding[];
}
