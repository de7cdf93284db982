import type { Finding, FindingCode, Fix } from "./finding.ts";

/** A link as rules leave it. */
export interface RuledLink {
  index: number;
  reach: "external" | "internal" | "none";
  words: string;
  rel: readonly string[];
  target: string | null;
  /** The tab that the rules alone would give it. */
  ruledTarget: string | null;
  programs: readonly string[];
  needsReferrer: boolean;
}

/** The page around the links, as far as paid links go. */
export interface RuledPage {
  words: number;
  /** Whether readers are told of paid links; undefined: this document need not tell them. */
  disclosed: boolean | undefined;
}

export interface PaidLimits {
  paidLimit: number;
  paidLimitLong: number;
  longWords: number;
}

const NEW_TAB = "_blank";
const OPEN: readonly Fix[] = [{ do: "open", word: "Open the link" }];
const RELEASE: readonly Fix[] = [{ do: "release-target", word: "Tab by the rules" }];

/** True for a link that somebody pays for: marked so, or leading to a partner. */
export function isPaid(link: Pick<RuledLink, "rel" | "programs">): boolean {
  return link.programs.length > 0 || link.rel.includes("sponsored");
}

/** What is to be said of links as rules leave them; the rest of a page's check needs its text. */
export function ruleFindings(links: readonly RuledLink[], page: RuledPage, limits: PaidLimits): Finding[] {
  const findings: Finding[] = [];
  const add = (
    code: FindingCode,
    link: number | null,
    severity: Finding["severity"],
    message: string,
    why: string,
    fixes: readonly Fix[] = [],
  ): void => void findings.push({ code, severity, link, message, why, fixes });

  const sponsored = links.filter(({ rel }) => rel.includes("sponsored"));
  const isLong = page.words >= limits.longWords;
  const most = isLong ? limits.paidLimitLong : limits.paidLimit;
  if (sponsored.length > most)
    add(
      "too-many-paid",
      sponsored[most]!.index,
      "advice",
      `${sponsored.length} paid links on ${page.words} words; ${most} ${isLong ? "is the limit for a long page" : "is the limit"}.`,
      "A page with many paid links reads like a catalogue, to readers and to search engines.",
      [{ do: "open", word: "Open the first beyond it" }],
    );
  const paid = links.filter(isPaid);
  if (paid.length > 0 && page.disclosed === false)
    add(
      "undisclosed",
      null,
      "advice",
      `${paid.length === 1 ? "A paid link stands" : `${paid.length} paid links stand`} here, and nothing tells readers so.`,
      "Readers are to know who pays, before they follow the link. The disclosure can be placed on such pages by itself: Rules, Disclosure.",
    );

  for (const { index, reach, rel, target, ruledTarget, programs, needsReferrer } of links) {
    if (reach === "internal" && target === NEW_TAB && ruledTarget !== NEW_TAB)
      add(
        "inside-new-tab",
        index,
        "advice",
        "An inside link opens a new tab, against the rules.",
        "Readers lose the way back; tabs of one site pile up.",
        RELEASE,
      );
    if (reach === "external" && target !== NEW_TAB && ruledTarget === NEW_TAB)
      add(
        "outside-same-tab",
        index,
        "advice",
        "An outside link takes the page away, against the rules.",
        "The site's rules open outside links in a new tab.",
        RELEASE,
      );
    if (programs.length > 0 && !rel.includes("sponsored") && !rel.includes("nofollow"))
      add(
        "paid-unmarked",
        index,
        "fault",
        `${programs[0]} pays for this link, and it says neither sponsored nor nofollow.`,
        "Search engines ask that paid links say so, and take unmarked ones for bought votes.",
        OPEN,
      );
    if (reach === "internal" && rel.includes("sponsored"))
      add(
        "sponsored-inside",
        index,
        "advice",
        "A link to ourselves says sponsored.",
        "Nobody pays us for it; search engines discount our own page.",
        OPEN,
      );
    if (needsReferrer && rel.includes("noreferrer"))
      add(
        "referrer-withheld",
        index,
        "fault",
        `${programs[0]} pays by the referrer, and noreferrer withholds it.`,
        "The click reaches the partner without a sender, and earns nothing.",
        OPEN,
      );
  }
  return findings;
}
