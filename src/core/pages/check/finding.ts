/** Everything that a page is checked for. */
export const FINDING_CODES = [
  "crowded-paragraph",
  "too-many-paid",
  "same-destination",
  "empty-words",
  "inside-new-tab",
  "outside-same-tab",
  "broken",
  "not-let-out",
  "missing-heading",
  "redirected",
  "draft",
  "http",
  "nested",
  "no-words",
  "no-alternative",
  "repeated-title",
  "links-to-itself",
  "unfilled",
  "paid-unmarked",
  "sponsored-inside",
  "referrer-withheld",
  "undisclosed",
  "untracked",
] as const;
export type FindingCode = (typeof FINDING_CODES)[number];

/** Those that follow from rules and partners alone, whatever the text says. */
export const RULE_FINDING_CODES: ReadonlySet<FindingCode> = new Set([
  "too-many-paid",
  "undisclosed",
  "inside-new-tab",
  "outside-same-tab",
  "paid-unmarked",
  "sponsored-inside",
  "referrer-withheld",
]);

/** What can be done about a finding in one step. */
export type Fix =
  | { do: "address"; word: string; address: string }
  | { do: "release-target"; word: string }
  | { do: "drop-title"; word: string }
  | { do: "unlink"; word: string }
  | { do: "open"; word: string };

/** Something about a page's links that is wrong or worth a second look. */
export interface Finding {
  code: FindingCode;
  /** "fault": readers meet it; "advice": it could be better. */
  severity: "fault" | "advice";
  /** Which link of the page, counted from 0 in the order of the text; null: the page as a whole. */
  link: number | null;
  message: string;
  /** Why it matters. */
  why: string;
  fixes: readonly Fix[];
}
