import { isElsewhere, isPagePlace } from "../../core/ledger/ledger.ts";
import { ownPlace } from "../../core/address/classify.ts";
import { isDisclosed, tells } from "../../core/pages/check/disclosure.ts";
import { checkPage, type CheckAgainst } from "../../core/pages/check/page-check.ts";
import { RULE_FINDING_CODES, type Finding, type FindingCode } from "../../core/pages/check/finding.ts";
import { asItStands, occurrencesIn, type Occurrence } from "../../core/ledger/occurrence.ts";
import { movedTo } from "../../core/links/rewrite/deliver.ts";
import { findLinks } from "../../core/links/find.ts";
import { plainText } from "../../core/links/plain-text.ts";
import type { Rule } from "../../core/rules/rule.ts";
import type { LinkResolver } from "../../core/rules/resolve/link-facts.ts";
import { swapsOf } from "../../core/rules/swaps/swapped.ts";
import { subIdOf } from "../../core/rules/partners.ts";
import type { ResolvedLink } from "../../core/links/resolved-link.ts";
import { fillAddress } from "../../core/text/variables.ts";
import type { LedgerLinkRow, LedgerSourceRow } from "../../store/ledger/ledger-rows.ts";
import { pagePaths, withMovedLinks } from "../links/bound-links.ts";
import { resolvedAt } from "../links/resolve-links.ts";
import { snapshotSite, type SiteSnapshot } from "../links/site-snapshot.ts";
import { ingredientsOf, type LinkDocument } from "./documents.ts";
import { isAsWritten } from "./as-written.ts";
import type { OpenSite } from "../sites/open-site.ts";
import type { WithStore, WithDeliveryPort } from "../ground/parts.ts";
import { shortLinksTo } from "../../store/routes/destinations.ts";

/** A document as the ledger writes it. */
export interface ReadDocument {
  source: LedgerSourceRow;
  links: LedgerLinkRow[];
}

/** Reads the links of documents: where each leads, what readers get of it and what is to be said of it. */
export async function readLinks(
  core: WithStore & WithDeliveryPort,
  site: OpenSite,
  rules: readonly Rule[],
  documents: readonly LinkDocument[],
): Promise<ReadDocument[]> {
  const found = documents.map(({ html }) => findLinks(html));
  const fill = (href: string): string => fillAddress(href, site.variables);
  const stored = found.flatMap((links) => links.map(({ href }) => fill(href)));
  // Each document's own pages: the same path may have belonged to another page when another document was saved.
  const ids = [...new Set(documents.flatMap(({ bound }) => Object.values(bound)))];
  const paths = await pagePaths(core, site, ids);
  const pagePath = (id: string): string | undefined => paths.get(id);
  const swap = swapsOf(site.swaps);
  const swapped = (href: string): string | undefined => swap(href)?.address;
  const areThere = documents.map(({ source: { kind, path } }) => isAsWritten(site, kind, path));
  // What readers get as it is written elsewhere is not swapped either.
  const movedIn = documents.map(({ bound }, index) => {
    const ways = { hosts: site.hostNames, pagePath, ...(areThere[index] ? {} : { swapped }) };
    return (href: string) => movedTo(fill(href), bound, ways);
  });
  const moved = movedIn.flatMap((way, index) => found[index]!.flatMap(({ href }) => way(href) ?? []));
  const addresses = [...stored, ...moved];
  const snapshot = await snapshotSite(core, site, addresses);
  const resolver: LinkResolver = { ...snapshot.linkResolver(), pagePath };
  const unswapped: LinkResolver = { ...resolver, swapped: () => undefined };
  const read = documents.map((document, index) =>
    occurrencesIn(
      found[index]!,
      {
        page: document.source.path || undefined,
        category: document.source.category || undefined,
        bound: document.bound,
        variables: site.variables,
      },
      rules,
      areThere[index] ? unswapped : resolver,
    ),
  );
  const short = await shortLinksFor(core, site, read.flat());
  const madeOf = ingredientsOf(site);
  return documents.map((document, index) => {
    const isMoved = found[index]!.some(({ href }) => movedIn[index]!(href) !== undefined);
    const html = isMoved ? withMovedLinks(document.html, movedIn[index]!) : document.html;
    const links = isMoved ? findLinks(html) : found[index]!;
    const resolvedLinks = resolvedAt(
      snapshot,
      site,
      links.map(({ href }) => fill(href)),
    );
    const plain = plainText(html);
    const isThere = areThere[index]!;
    const findings = checkPage(
      html,
      against(site, isThere ? undefined : rules, document, resolvedLinks),
      plain,
      links,
    );
    const codes = codesByLink(findings);
    return {
      source: {
        ...document.source,
        madeOf,
        words: plain.words,
        // null: it need not tell readers.
        disclosed: isPagePlace(document.source.kind) ? isDisclosed(plain.text, site.disclosure) : null,
        tells: tells(plain.text, site.disclosure.text),
        findings: codes.get(null) ?? [],
      },
      links: read[index]!.map((one) =>
        linkRow(one, { codes: codes.get(one.ordinal) ?? NONE, isThere }, snapshot, site, short),
      ),
    };
  });
}

function against(
  site: OpenSite,
  rules: readonly Rule[] | undefined,
  { source }: LinkDocument,
  resolvedLinks: readonly ResolvedLink[],
): CheckAgainst {
  const { partners, disclosure, variables, hostNames, paidLimit, paidLimitLong, longWords } = site;
  const isPage = isPagePlace(source.kind);
  return {
    hosts: hostNames,
    resolvedLinks,
    rules: rules ?? [],
    comesThroughUs: rules !== undefined && isElsewhere(source.kind),
    page: { path: source.path, category: source.category },
    variables,
    // A block stands on many pages: how many paid links those bear is theirs to say.
    limits: isPage
      ? { paidLimit, paidLimitLong, longWords }
      : { paidLimit: Infinity, paidLimitLong: Infinity, longWords },
    partners,
    disclosure: isPage ? disclosure : undefined,
  };
}

const NONE: readonly FindingCode[] = [];

function linkRow(
  one: Occurrence,
  { codes, isThere }: { codes: readonly FindingCode[]; isThere: boolean },
  snapshot: SiteSnapshot,
  site: OpenSite,
  short: ReadonlyMap<string, string>,
): LedgerLinkRow {
  const delivered = isThere
    ? asItStands(one.storedRel, one.storedTarget, one.delivered.rules)
    : one.delivered;
  // What is delivered is what was looked up: a link that follows its page has the page's path of now.
  const place =
    one.ownKey === null
      ? undefined
      : { key: one.ownKey, host: ownPlace(one.address, site.hostNames)?.host ?? null };
  const page = one.kind === "page" && place ? snapshot.pageAt(place.key) : undefined;
  const route =
    one.kind === "route" && place ? snapshot.routeAt(place.host ?? site.primary, place.key) : undefined;
  return {
    ordinal: one.ordinal,
    words: one.words,
    anchor: one.anchor,
    href: one.href,
    ends: one.ends,
    host: one.host,
    via: one.via,
    kind: one.kind,
    reach: one.reach,
    own_key: one.ownKey,
    destination_key: one.destinationKey,
    route_id: route?.id ?? null,
    leads_to: page?.id ?? null,
    short_id: one.kind === "external" ? (short.get(one.destinationKey) ?? null) : null,
    stored_rel: one.storedRel,
    stored_target: one.storedTarget,
    override: one.override,
    creative_id: one.creative,
    programs: one.programs,
    networks: one.networks,
    // A short link leads to its program from many places: its label names none of them.
    sub_id: one.kind === "external" && one.programs.length > 0 ? subIdOf(site.partners, one.address) : null,
    rel: delivered.rel.join(" "),
    target: delivered.target,
    treatment: delivered.treatment,
    rules: delivered.rules,
    wanted_rel: isThere ? one.delivered.rel.join(" ") : null,
    wanted_target: isThere ? one.delivered.target : null,
    text_findings: codes.filter((code) => !RULE_FINDING_CODES.has(code)),
    rule_findings: codes.filter((code) => RULE_FINDING_CODES.has(code)),
  };
}

// The codes of each link's findings, each once; those of the whole document under null.
function codesByLink(findings: readonly Finding[]): Map<number | null, FindingCode[]> {
  const codes = new Map<number | null, FindingCode[]>();
  for (const { link, code } of findings) {
    const there = codes.get(link);
    if (!there) codes.set(link, [code]);
    else if (!there.includes(code)) there.push(code);
  }
  return codes;
}

// Short links that lead to these raw destinations: the oldest of each.
async function shortLinksFor(
  core: WithStore,
  site: OpenSite,
  links: readonly Occurrence[],
): Promise<Map<string, string>> {
  const keys = [...new Set(links.flatMap((one) => (one.kind === "external" ? one.destinationKey : [])))];
  if (keys.length === 0) return new Map();
  const rows = await shortLinksTo(core.store, { site: site.id, keys });
  return new Map(rows.map(({ key, id }) => [key, id]));
}
