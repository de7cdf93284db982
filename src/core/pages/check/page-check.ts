import { decoded } from "../../text/decoded.ts";
import { compareKey } from "../../address/compare.ts";
import { destinationKind, type DestinationKind } from "../../address/classify.ts";
import { headingAnchors } from "../body/headings.ts";
import { mayLeave } from "../../address/may-leave.ts";
import { findLinks, type LinkInHtml } from "../../links/find.ts";
import { pictureAddresses } from "../../links/pictures.ts";
import { plainText, type PlainText } from "../../links/plain-text.ts";
import type { Rule } from "../../rules/rule.ts";
import { writtenOn } from "../../rules/resolve/link-attributes.ts";
import { linkFacts, throughRoutes } from "../../rules/resolve/link-facts.ts";
import type { ResolvedLink } from "../../links/resolved-link.ts";
import { resolverOfLinks } from "../../links/resolver-of-links.ts";
import { resolve, type Resolved } from "../../rules/resolve/resolve.ts";
import { fillAddress, variableNames, type Variables } from "../../text/variables.ts";
import { isDisclosed } from "./disclosure.ts";
import { emptyWords } from "./empty-words.ts";
import type { Disclosure, Partner } from "../../programs/partner.ts";
import type { LinkFacts } from "../../rules/resolve/facts.ts";
import { needsReferrer, untracked, type Untracked } from "../../rules/partners.ts";
import type { Finding, FindingCode, Fix } from "./finding.ts";
import { ruleFindings, type PaidLimits, type RuledLink } from "./rule-findings.ts";

/** What a page is checked against: its site as it is now. */
export interface CheckAgainst {
  hosts: readonly string[];
  resolvedLinks: readonly ResolvedLink[];
  rules: readonly Rule[];
  page: { path: string; category: string };
  variables: Variables;
  limits: PaidLimits;
  partners?: readonly Partner[];
  /** What the site says to readers of paid links; absent where nothing need be said, as in a shared block. */
  disclosure?: Disclosure;
  /** It stands elsewhere and readers get it through us: some links get their tracking on the way. */
  comesThroughUs?: boolean;
}

interface Judged extends Omit<LinkInHtml, "creative"> {
  index: number;
  kind: DestinationKind;
  facts: LinkFacts;
  reach: "external" | "internal" | "none";
  resolved: Resolved;
  /** What the rules alone would deliver, nothing set or written on the link. */
  byRules: Resolved;
  needsReferrer: boolean;
  untracked: Untracked | undefined;
  look: ResolvedLink | undefined;
  block: number;
}

/**
 * Checks a page's links, as they will be delivered. Findings come in the order of the text, those of the whole page
 * first. Who has read text and links of it already hands them over.
 */
export function checkPage(
  html: string,
  against: CheckAgainst,
  { blocks, words, text }: PlainText = plainText(html),
  inHtml: readonly LinkInHtml[] = findLinks(html),
): Finding[] {
  const findings: Finding[] = [];
  const links = judge(inHtml, against, blocks);
  const headings = new Set(headingAnchors(html).map(({ id }) => id));
  // One finding a line, so that the check is read down its columns: the formatter would make eight lines of each.
  const add = (
    code: FindingCode,
    link: number | null,
    severity: Finding["severity"],
    message: string,
    why: string,
    fixes: Fix[] = [],
  ): void => void findings.push({ code, severity, link, message, why, fixes });
  const open = (word = "Open the link"): Fix => ({ do: "open", word });

  const unknown = variableNames(html).filter((name) => against.variables[name] === undefined);
  for (const name of unknown)
    add("unfilled", null, "fault", `{{${name}}} has no value.`, "Readers would see the braces, and an address with them leads nowhere. Give the variable a value in the site's settings."); // prettier-ignore

  for (const src of pictureAddresses(html).map((written) => fillAddress(written, against.variables)))
    if (!mayLeave(src))
      add("not-let-out", null, "fault", `A picture comes from “${src.slice(0, 80)}”, which is no address for pictures.`, "Pictures come from http and https addresses, or from a path of this site. Readers get none."); // prettier-ignore

  const disclosed = against.disclosure && isDisclosed(text, against.disclosure);
  findings.push(...ruleFindings(links.map(ruledLink), { words, disclosed }, against.limits));

  const seenTitles = new Map<string, string>();
  const seenDestinations = new Map<string, Judged>();
  const outsideIn = new Map<number, Judged>();
  for (const link of links) {
    const at = link.index;
    if (link.nested)
      add("nested", at, "fault", `The link “${link.words}” begins inside another one.`, "Browsers take nested links apart, each in its own way.", [{ do: "unlink", word: "Take it off" }]); // prettier-ignore
    if (link.words === "" && link.anchor === "text")
      add("no-words", at, "fault", "This link has no words.", "Nobody can see it, and a screen reader reads out its address.", [{ do: "unlink", word: "Take it off" }]); // prettier-ignore
    if (link.words === "" && link.anchor === "image")
      add("no-alternative", at, "fault", "This linked picture has no alternative text.", "The alternative text is the link's words for whoever cannot see the picture.", [open("Write it")]); // prettier-ignore
    if (link.href === "")
      add("broken", at, "fault", "This link has no address.", "It leads back to the page itself.", [open()]);

    const hollow =
      link.anchor === "text" && link.words !== "" && !spoken(link) ? emptyWords(link.words) : undefined;
    if (hollow)
      add("empty-words", at, "advice", `${hollow[0]!.toUpperCase()}${hollow.slice(1)}.`, "Eyes run from link to link, and screen readers list them: the words should say what comes.", [open("Change the words")]); // prettier-ignore
    if (link.picture !== null && sameAddress(link.href, link.picture))
      add("links-to-itself", at, "fault", "The picture links to its own file.", "Readers click to get to the thing, and get the same picture again.", [open("Choose where it leads"), { do: "unlink", word: "Take the link off" }]); // prettier-ignore

    if (!mayLeave(link.href)) {
      add("not-let-out", at, "fault", `“${link.href.slice(0, 80)}” is no address for links.`, "Links lead to http, https, mailto or tel addresses, or to a path of this site. Readers get the words without a link.", [open("Choose where it leads"), { do: "unlink", word: "Take the link off" }]); // prettier-ignore
      continue;
    }
    if (link.kind === "broken" && link.href !== "")
      add("broken", at, "fault", `Nothing on the site answers ${link.href}.`, "Readers would get “not found”.", [open("Choose where it leads")]); // prettier-ignore
    if (link.kind === "heading" && link.href !== "#" && !headings.has(decoded(link.href.slice(1))))
      add("missing-heading", at, "fault", `No heading of this page is called ${link.href}.`, "The link does nothing.", [open("Choose a heading")]); // prettier-ignore
    if (link.look?.redirect)
      add("redirected", at, "advice", `${link.href} only redirects to ${link.look.ends}.`, "Each hop costs time, and the redirect may go one day.", [{ do: "address", word: "Link to the end", address: link.look.ends }]); // prettier-ignore
    if (link.look?.draft)
      add("draft", at, "fault", `“${link.look.title ?? link.href}” is a draft.`, "Readers would get “not found” until it is published.", [open()]); // prettier-ignore
    if (/^http:\/\//i.test(link.href) && link.kind === "external" && !/^http:\/\/[^/?#]*\.localhost(?:[:/?#]|$)/i.test(link.href))
      add("http", at, "advice", "The address is http, without encryption.", "Browsers warn of such pages, and what is read there can be seen on the way.", [{ do: "address", word: "Use https", address: link.href.replace(/^http:/i, "https:") }]); // prettier-ignore

    if (link.untracked) {
      const { program, foreignId, tracked } = link.untracked;
      const says =
        foreignId === null
          ? `carries no tracking: ${program} pays nothing for it`
          : `is tracked for “${foreignId}”: somebody else is paid`;
      add("untracked", at, "advice", `This link to ${program} ${says}.`, "A program only pays for readers it can tell are yours.", [...(tracked && link.kind === "external" ? [{ do: "address" as const, word: "Put the tracked link", address: tracked }] : []), open()]); // prettier-ignore
    }

    if (link.title && link.title.trim() === link.words)
      add("repeated-title", at, "advice", "The title repeats the words.", "A screen reader says them twice; a title should add something.", [{ do: "drop-title", word: "Take the title off" }]); // prettier-ignore
    else if (link.title && (seenTitles.get(link.title) ?? link.href) !== link.href)
      add("repeated-title", at, "advice", `The title “${link.title}” stands on two links that lead to different places.`, "Readers cannot tell them apart.", [{ do: "drop-title", word: "Take the title off" }, open()]); // prettier-ignore
    if (link.title) seenTitles.set(link.title, link.href);

    const destination = link.kind === "heading" || link.href === "" ? undefined : compareKey(link.href);
    const before = destination === undefined ? undefined : seenDestinations.get(destination);
    if (before && !sameBlockPicture(before, link))
      add("same-destination", at, "advice", `“${before.words}” leads to the same place already.`, "The second link adds nothing, and search engines count the first.", [open(), { do: "unlink", word: "Take this one off" }]); // prettier-ignore
    if (destination !== undefined) seenDestinations.set(destination, before ?? link);

    if (link.reach === "external") {
      if (outsideIn.has(link.block))
        add("crowded-paragraph", at, "advice", `This paragraph leads outside already, with “${outsideIn.get(link.block)!.words}”.`, "Two ways out in one paragraph compete, and readers take neither.", [open(), { do: "unlink", word: "Take this one off" }]); // prettier-ignore
      else outsideIn.set(link.block, link);
    }
  }
  return findings.sort((a, b) => (a.link ?? -1) - (b.link ?? -1));
}

function judge(links: readonly LinkInHtml[], against: CheckAgainst, blocks: readonly number[]): Judged[] {
  const resolvedLinks = new Map(against.resolvedLinks.map((look) => [look.address, look]));
  const resolver = { ...resolverOfLinks(against.hosts, against.resolvedLinks), partners: against.partners };
  let block = 0;
  return links.map((link, index) => {
    while (block < blocks.length && blocks[block]! <= link.tag.start) block += 1;
    const href = fillAddress(link.href, against.variables);
    const kind = destinationKind(href, resolver);
    const facts = linkFacts(
      { href, anchor: link.anchor, page: against.page.path, category: against.page.category },
      resolver,
      kind,
    );
    const isBare = link.rel === null && link.target === null && link.override === null;
    const byRules = resolve(against.rules, facts, writtenOn({}));
    // Each field by itself: a spread made objects that cost a third of the check (`npm run bench -- rules`).
    const { tag, title, rel, target, override, words, anchor, picture, nested } = link;
    return {
      tag,
      title,
      rel,
      target,
      override,
      words,
      anchor,
      picture,
      nested,
      href,
      index,
      block,
      kind,
      facts,
      reach: facts.reach,
      resolved: isBare ? byRules : resolve(against.rules, facts, writtenOn(link)),
      byRules,
      needsReferrer: needsReferrer(against.partners, facts.programs),
      untracked:
        facts.programs.length > 0 ? untrackedBy(against, throughRoutes(href, resolver), index) : undefined,
      look: resolvedLinks.get(link.href) ?? resolvedLinks.get(href),
    };
  });
}

// On the way to readers some get their tracking by themselves.
function untrackedBy(
  { partners, page, comesThroughUs }: CheckAgainst,
  address: string,
  index: number,
): Untracked | undefined {
  const found = untracked(partners, address, { page: page.path, position: index + 1 });
  return comesThroughUs && found?.isPutOnTheWay ? undefined : found;
}

function ruledLink({
  index,
  reach,
  words,
  resolved,
  byRules,
  facts,
  needsReferrer: byReferrer,
}: Judged): RuledLink {
  const { rel, target } = resolved;
  const { programs } = facts;
  return {
    index,
    reach,
    words,
    rel,
    target,
    ruledTarget: byRules.target,
    programs,
    needsReferrer: byReferrer,
  };
}

// An own short link that is written out is there to be said aloud.
function spoken({ words, href, kind }: Judged): boolean {
  const plain = (text: string): string =>
    text
      .replace(/^https?:\/\//i, "")
      .replace(/:\d+(?=\/)/, "")
      .toLowerCase();
  return kind === "route" && plain(words) === plain(href);
}

// A picture and its caption, or the words beside it, may well lead to the same place.
function sameBlockPicture(a: Judged, b: Judged): boolean {
  return Math.abs(a.block - b.block) <= 1 && (a.anchor === "image") !== (b.anchor === "image");
}

function sameAddress(a: string, b: string): boolean {
  return compareKey(a) === compareKey(b);
}
