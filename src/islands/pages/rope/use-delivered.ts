import { useQuery } from "@tanstack/react-query";
import { useMemo } from "react";
import type { DestinationKind } from "../../../core/address/classify.ts";
import type { RuleSet } from "../../../core/rules/rule.ts";
import type { Site } from "../../../core/sites/site.ts";
import { linkAttributes } from "../../../core/rules/resolve/link-attributes.ts";
import { linkFacts, type LinkOnPage } from "../../../core/rules/resolve/link-facts.ts";
import { sightOfLooks, type Look } from "../../../core/rules/looks.ts";
import type { Resolved } from "../../../core/rules/resolve/resolve.ts";
import { fillAddress } from "../../../core/text/variables.ts";
import { api } from "../../../ui/client/api.ts";

/** What rules and site make of a link. */
export interface DeliveredLink {
  kind: DestinationKind;
  /** Where it ends when it goes through our own routes; variables filled in. */
  ends: string;
  outside: boolean;
  look: Look;
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
  looks: readonly Look[];
  judge(link: LinkOnPage): DeliveredLink | undefined;
}

/** The rules in force; every link on the screen is judged by them, in this browser. */
export function useRules(site: Site): RuleSet | undefined {
  return useQuery({
    queryKey: ["rules", site.id],
    queryFn: () => api<RuleSet>("GET", `/sites/${site.id}/rules`),
  }).data;
}

const NO_LOOKS: readonly Look[] = [];

/** Judges links to these addresses: asks once where they lead, then resolves without further questions. */
export function useJudge(site: Site, page: PageFields, addresses: readonly string[]): Judging {
  const rules = useRules(site);
  const filled = useMemo(
    () => [...new Set(addresses.map((address) => fillAddress(address, site.variables)))].sort(),
    [addresses, site.variables],
  );
  const looks =
    useQuery({
      queryKey: ["looks", site.id, filled],
      queryFn: () => api<{ items: Look[] }>("POST", `/sites/${site.id}/looks`, { addresses: filled }),
      placeholderData: (previous) => previous,
      enabled: filled.length > 0,
      staleTime: 10_000,
    }).data?.items ?? NO_LOOKS;
  return useMemo(() => {
    const known = new Map(looks.map((look) => [look.address, look]));
    const ofLooks = sightOfLooks(
      site.hosts.map(({ name }) => name),
      looks,
    );
    const sight = { ...ofLooks, partners: site.partners };
    return {
      rules,
      looks,
      judge(link) {
        const onPage = {
          ...link,
          href: fillAddress(link.href, site.variables),
          page: page.path,
          category: page.category,
        };
        const look = known.get(onPage.href);
        if (!rules || !look) return undefined;
        const { reach, programs } = linkFacts(onPage, sight);
        return {
          kind: look.kind,
          ends: look.ends,
          look,
          outside: reach === "external",
          programs,
          resolved: linkAttributes(onPage, rules.rules, sight),
        };
      },
    };
  }, [site, page.path, page.category, rules, looks]);
}
