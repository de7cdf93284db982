import type { Attribute } from "../attribute.ts";
import type { Override } from "../override.ts";

/** Who decided an attribute. */
export type Decider =
  | { kind: "override" }
  | { kind: "rule"; index: number; name: string }
  | { kind: "author" }
  | { kind: "implied" };

/** One decision, with everyone who would have decided otherwise or the same, had the decider been silent. */
export interface Decision {
  attribute: Attribute;
  /** on or off for a token; new, same, or the author's own frame name for the target. */
  value: string;
  by: string;
  /** Which of the link's hosts a rule for domains was matched by, in words; absent where none was. */
  matched?: string;
  overridden: string[];
  decider: Decider;
}

/** The attributes that a link is delivered with. */
export interface Resolved {
  /** Managed tokens in their fixed order, then the author's others; empty means no `rel` is written. */
  readonly rel: readonly string[];
  readonly target: string | null;
  readonly trace: readonly Decision[];
}

/** What the author wrote on the link itself, and the override. */
export interface Written {
  rel: readonly string[];
  target: string | null;
  override: Override;
}
