/**
 * How a route's address is compared with what readers ask for. Exact: the same path. Prefix: the path and all
 * below it. Wildcard: each `*` stands for any run of characters. Pattern: a regular expression for the whole path.
 */
export const MATCH_KINDS = ["exact", "prefix", "wildcard", "pattern"] as const;
export type MatchKind = (typeof MATCH_KINDS)[number];

/** What each kind is called on screen. */
export const MATCH_WORDS: Readonly<Record<MatchKind, string>> = {
  exact: "this address",
  prefix: "this address and all below",
  wildcard: "with * for anything",
  pattern: "a pattern",
};
