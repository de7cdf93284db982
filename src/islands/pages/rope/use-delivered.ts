import { useQuery } from "@tanstack/react-query";
import { useMemo } from "react";
import type { DestinationKind } from "../../../core/address/classify.ts";
import type { RuleSet } from "../../../core/rules/rule.ts";
import type { Site } from "../../../core/sites/site.ts";
import { linkAttributes } from "../../../core/rules/resolve/link-attributes.ts";
import { linkFacts, type LinkOnPage } from "../../../core/rules/resolve/link-facts.ts";
import type { ResolvedLink } from "../../../core/links/resolved-link.ts";
import { resolverOfLinks } from "../../../core/links/resolver-of-links.ts";
import type { Resolved } from "../../../core/rules/resolve/resolve.ts";
import { fillAddress } from "../../../core/text/variables.ts";
import { asking } from "../../../ui/client/queries.ts";

/** What rules and site make of a link. */
export interface DeliveredLink {
  kind: DestinationKind;
  /** Where it ends when it goes through our own routes; variables filled in. */
  ends: string;
  outside: boolean;
  look: ResolvedLink;
  resolved: Resolved;
  /** Programs that it leads to, by name. */
  programs: readonly string[];
}

/** The page that a link stands on, as rules look at it. */
export interface PageFields {
  path: string;
  category: string;
  /** A shared block, which stands on other pages. */
  isBlock?: boolean;
}

/** What a page's links are judged by: the rules in force, and what the site says of their addresses. */
export interface Judging {
  rules: RuleSet | undefined;
  resolvedLinks: readonly ResolvedLink[];
  judge(link: LinkOnPage): DeliveredLink | undefined;
}

/** The rules in force; every link on the screen is judged by them, in this browser. */
export function useRules(site: Site): RuleSet | undefined {
  return useQuery(asking("GET /sites/:site/rules", { site: site.id })).data;
}

const NO_LINKS: readonly ResolvedLink[] = [];

/** Judges links to these addresses: asks once where they lead, then resolves without further questions. */
export function useJudge(site: Site, page: PageFields, addresses: readonly string[]): Judging {
  const rules = useRules(site);
  const filled = useMemo(
    () => [...new Set(addresses.map((address) => fillAddress(address, site.variables)))].sort(),
    [addresses, site.variables],
  );
  const resolvedLinks =
    useQuery({
      ...asking("POST /sites/:site/looks", { site: site.id, body: { addresses: filled } }),
      placeholderData: (previous) => previous,
      enabled: filled.length > 0,
      staleTime: 10_000,
    }).data?.items ?? NO_LINKS;
  return useMemo(() => {
    const known = new Map(resolvedLinks.map((look) => [look.address, look]));
    const ofLinks = resolverOfLinks(
      site.hosts.map(({ name }) => name),
      resolvedLinks,
    );
    const resolver = { ...ofLinks, partners: site.partners };
    return {
      rules,
      resolvedLinks,
      judge(link) {
        const onPage = {
          ...link,
          href: fillAddress(link.href, site.variables),
          page: page.path,
          category: page.category,
        };
        const look = known.get(onPage.href);
        if (!rules || !look) return undefined;
        const { reach, programs } = linkFacts(onPage, resolver);
        return {
          kind: look.kind,
          ends: look.ends,
          look,
          outside: reach === "external",
          programs,
          resolved: linkAttributes(onPage, rules.rules, resolver),
        };
      },
    };
  }, [site, page.path, page.category, rules, resolvedLinks]);
}
