import { useQuery } from "@tanstack/react-query";
import { useMemo } from "react";
import { ownPlace, type DestinationKind } from "../../core/address/classify.ts";
import type { RuleSet } from "../../core/objects/rule.ts";
import type { Site } from "../../core/objects/site.ts";
import { linkAttributes } from "../../core/rules/link-attributes.ts";
import type { LinkOnPage, SiteSight } from "../../core/rules/link-facts.ts";
import type { Resolved } from "../../core/rules/resolve.ts";
import { api } from "../../ui/api.ts";
import type { KnotAt } from "./use-rope.ts";

interface Look {
  address: string;
  kind: DestinationKind;
  ends: string;
}

/** What rules and site make of a link. */
export interface DeliveredLink {
  kind: DestinationKind;
  ends: string;
  resolved: Resolved;
}

/** The page that a link stands on, as rules look at it. */
export interface PageFields {
  path: string;
  category: string;
}

/** The rules in force; every link on the screen is judged by them, in this browser. */
export function useRules(site: Site): RuleSet | undefined {
  return useQuery({
    queryKey: ["rules", site.id],
    queryFn: () => api<RuleSet>("GET", `/sites/${site.id}/rules`),
  }).data;
}

/** What each of the text's links is delivered as; undefined until rules and site are known. */
export function useDelivered(
  site: Site,
  page: PageFields,
  knots: readonly KnotAt[],
): (knot: KnotAt) => DeliveredLink | undefined {
  const addresses = useMemo(() => [...new Set(knots.map(({ link }) => link.href))].sort(), [knots]);
  const judge = useJudge(site, page, addresses);
  return (knot) => judge({ ...knot.link });
}

/** Judges links to these addresses: asks once where they lead, then resolves without further questions. */
export function useJudge(
  site: Site,
  page: PageFields,
  addresses: readonly string[],
): (link: LinkOnPage) => DeliveredLink | undefined {
  const rules = useRules(site);
  const looks = useQuery({
    queryKey: ["looks", site.id, addresses],
    queryFn: () => api<{ items: Look[] }>("POST", `/sites/${site.id}/looks`, { addresses }),
    placeholderData: (previous) => previous,
    enabled: addresses.length > 0,
    staleTime: 10_000,
  }).data;
  return useMemo(() => {
    const known = new Map(looks?.items.map((look) => [look.address, look]));
    const sight = sightOf(site, [...known.values()]);
    return (link) => {
      const look = known.get(link.href);
      if (!rules || !look) return undefined;
      const resolved = linkAttributes(
        { ...link, page: page.path, category: page.category },
        rules.rules,
        sight,
      );
      return { kind: look.kind, ends: look.ends, resolved };
    };
  }, [site, page.path, page.category, rules, looks]);
}

function sightOf(site: Site, looks: readonly Look[]): SiteSight {
  const hosts = site.hosts.map(({ name }) => name);
  const places = new Map<string, Look>();
  for (const look of looks) {
    const place = ownPlace(look.address, hosts);
    if (place) places.set(`${place.host ?? ""} ${place.key}`, look);
  }
  const lookAt = (host: string | null, key: string): Look | undefined => places.get(`${host ?? ""} ${key}`);
  return {
    hosts,
    answers(host, key) {
      const kind = lookAt(host, key)?.kind;
      return kind === "page" || kind === "file" || kind === "route" ? kind : undefined;
    },
    routeDestination(host, key) {
      const look = lookAt(host, key);
      return look?.kind === "route" && look.ends !== look.address ? look.ends : undefined;
    },
  };
}
