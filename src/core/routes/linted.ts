import type { MatchKind } from "./match/match-kind.ts";
import type { AdviceCode } from "./route.ts";

/** A route as the linter of the whole table reads it. */
export interface LintedRoute {
  id: string;
  kind: "short" | "redirect" | "gone";
  host: string | null;
  match: MatchKind;
  address: string;
  /** The stored keys of address and aliases. */
  keys: readonly string[];
  destination: string | null;
  /** What is known of how the destination answers, in words, when it does so badly. */
  answersBadly?: string;
}

/** The site around the table. */
export interface LintedSite {
  hosts: readonly string[];
  primary: string;
  /** Title of the published page at a path key. */
  pageAt(key: string): string | undefined;
  hasFile(key: string): boolean;
  /** The one address that was probably meant by a path that nothing answers. */
  closest?(key: string): string | undefined;
}

/** The step that removes a finding: a new destination for one route, or one route less. */
export interface LintFix {
  route: string;
  label: string;
  destination?: string;
  delete?: true;
}

/** Something that is to be said of one or several routes. */
export interface LintFinding {
  code: AdviceCode;
  severity: "error" | "warning" | "hint";
  routes: string[];
  message: string;
  fix?: LintFix;
}
