import { mayLeave } from "../address/may-leave.ts";
import { compareKey } from "../address/compare.ts";
import { destinationKind, ownPlace, type DestinationKind } from "../address/classify.ts";
import type { LinkInHtml } from "../links/find.ts";
import { movedTo } from "../links/rewrite/deliver.ts";
import type { Rule } from "../rules/rule.ts";
import { relTokens, writtenOn } from "../rules/resolve/link-attributes.ts";
import { linkFacts, throughRoutes, type LinkResolver } from "../rules/resolve/link-facts.ts";
import type { LinkFacts } from "../rules/resolve/facts.ts";
import { resolve, type Resolved } from "../rules/resolve/resolve.ts";
import { treatmentOf, type Treatment } from "../rules/treatment.ts";
import { fillAddress, type Variables } from "../text/variables.ts";

/** One place where a link stands: what is stored, and what readers get. */
export interface Occurrence {
  /** Which link of its document, counted from 0 in source order. */
  ordinal: number;
  words: string;
  anchor: "text" | "image";
  /** As it is stored, variables not filled in. */
  href: string;
  /** As it is delivered by default: variables filled in, following its page. */
  address: string;
  kind: DestinationKind;
  /** Where it ends when it goes through our own routes. */
  ends: string;
  /** Host where it is known to end: an outside one, or empty for our own. */
  host: string;
  /** Host of a network that it is written with, when it ends at another; empty for all others. */
  via: string;
  reach: LinkFacts["reach"];
  programs: readonly string[];
  networks: readonly string[];
  /** Path key on our own hosts; null for what leads elsewhere. */
  ownKey: string | null;
  /** By which the same destination is found again, and short links for it. */
  destinationKey: string;
  storedRel: string | null;
  storedTarget: string | null;
  override: string | null;
  creative: string | null;
  delivered: Treated;
}

/** What the rules make of a link. */
export interface Treated {
  rel: readonly string[];
  target: string | null;
  treatment: Treatment;
  /** Names of the rules that decided something of it: those of rel first, then that of the tab. */
  rules: readonly string[];
}

/** Where a fragment stands, as rules look at it. */
export interface Standing {
  page?: string;
  category?: string;
  bound: Readonly<Record<string, string>>;
  variables: Variables;
}

/** The links of a stored fragment as the ledger has them. */
export function occurrencesIn(
  links: readonly LinkInHtml[],
  standing: Standing,
  rules: readonly Rule[],
  site: LinkResolver,
): Occurrence[] {
  return links.map((link, ordinal) => {
    const filled = fillAddress(link.href, standing.variables);
    const href = movedTo(filled, standing.bound, site) ?? filled;
    const { words, anchor, rel, target, override } = link;
    const facts = ledgerFacts({ href, anchor, rel, target, override }, standing, rules, site);
    return {
      ordinal,
      words,
      anchor,
      href: link.href,
      storedRel: rel,
      storedTarget: target,
      override,
      creative: link.creative,
      address: facts.address,
      kind: facts.kind,
      ends: facts.ends,
      host: facts.host,
      via: facts.via,
      reach: facts.reach,
      programs: facts.programs,
      networks: facts.networks,
      ownKey: facts.ownKey,
      destinationKey: facts.destinationKey,
      delivered: facts.delivered,
    };
  });
}

/** What the site makes of one link: the part of its entry that does not stand in its own tag. */
export function ledgerFacts(
  link: {
    href: string;
    anchor: "text" | "image";
    rel: string | null;
    target: string | null;
    override: string | null;
  },
  { page, category }: Pick<Standing, "page" | "category">,
  rules: readonly Rule[],
  site: LinkResolver,
): Omit<
  Occurrence,
  "ordinal" | "words" | "anchor" | "href" | "storedRel" | "storedTarget" | "override" | "creative"
> {
  const { href, anchor } = link;
  const kind = destinationKind(href, site);
  const facts = linkFacts({ href, anchor, page, category }, site, kind);
  const { reach, programs, networks } = facts;
  return {
    address: href,
    kind,
    ends: kind === "route" ? throughRoutes(href, site) : href,
    host: facts.end ?? facts.domain ?? "",
    via: facts.end === undefined ? "" : (facts.domain ?? ""),
    reach,
    programs,
    networks,
    ownKey: ownPlace(href, site.hosts)?.key ?? null,
    destinationKey: compareKey(href),
    delivered: mayLeave(href) ? treated(resolve(rules, facts, writtenOn(link))) : WORDS_ALONE,
  };
}

// What may not leave the house is delivered as its words.
const WORDS_ALONE: Treated = { rel: [], target: null, treatment: "plain", rules: [] };

/** What a resolution comes to in the ledger. */
export function treated({ rel, target, trace }: Resolved): Treated {
  const rules = [...new Set(trace.flatMap(({ decider }) => (decider.kind === "rule" ? decider.name : [])))];
  return { rel, target, treatment: treatmentOf(rel), rules };
}

/** What readers get of a link that nobody changes on its way: rel and target as they are written. */
export function asItStands(rel: string | null, target: string | null, rules: readonly string[]): Treated {
  const tokens = relTokens(rel ?? "");
  return { rel: tokens, target, treatment: treatmentOf(tokens), rules };
}
