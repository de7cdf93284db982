import type { FindingCode } from "../../core/pages/check/finding.ts";
import type { Treatment } from "../../core/rules/treatment.ts";

/** How search engines are told to take an outside link, in a word or two. */
export const TREATMENT_WORD: Readonly<Record<Treatment, string>> = {
  sponsored: "sponsored",
  ugc: "ugc",
  nofollow: "nofollow",
  plain: "plain",
};

/** The colour of each treatment in charts. */
export const TREATMENT_COLOR: Readonly<Record<Treatment, string>> = {
  sponsored: "--color-accent",
  ugc: "--color-good",
  nofollow: "--color-hemp",
  plain: "--color-line",
};

/** What a finding is called where it is counted. */
export const FINDING_WORD: Readonly<Record<FindingCode, string>> = {
  "crowded-paragraph": "two outside links in a paragraph",
  "too-many-paid": "beyond the limit of paid links",
  "same-destination": "same destination twice",
  "empty-words": "words say nothing of the destination",
  "inside-new-tab": "inside link in a new tab",
  "outside-same-tab": "outside link in the same tab",
  broken: "leads nowhere",
  "not-let-out": "scheme is not allowed",
  "missing-heading": "heading is missing",
  redirected: "leads through a redirect",
  draft: "leads to a draft",
  http: "http, not https",
  nested: "inside another link",
  "no-words": "no words",
  "no-alternative": "no alternative text",
  "repeated-title": "title repeats the words",
  "links-to-itself": "picture of itself",
  unfilled: "variable without a value",
  "paid-unmarked": "paid and not marked",
  "sponsored-inside": "sponsored, to ourselves",
  "referrer-withheld": "referrer is withheld",
  undisclosed: "no disclosure on the page",
  untracked: "carries no tracking",
};
