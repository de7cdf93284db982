import { useInfiniteQuery, useQuery } from "@tanstack/react-query";
import type { LedgerFacets, LedgerGroup, LedgerLink } from "../../core/ledger/ledger.ts";
import type { Site } from "../../core/sites/site.ts";
import { api, type ListOf } from "../../ui/client/api.ts";
import { useAddress } from "../../ui/client/url-state.ts";
import { useDebounced } from "../../ui/keys/use-debounced.ts";

/** What the ledger can be narrowed by, as it stands in the screen's address. */
export const LEDGER_FILTERS = ["q", "edition", "host", "page", "place", "category", "program", "reach", "kind", "anchor", "rel", "target", "treatment", "rule", "finding", "health", "byHand", "short"] as const; // prettier-ignore
export type LedgerAsked = Partial<Record<(typeof LEDGER_FILTERS)[number], string>>;

/** The filter in the screen's address, without what is empty; the search words once they have settled. */
export function useLedgerFilter(): LedgerAsked {
  const search = useDebounced(useAddress(), 140);
  const params = new URLSearchParams(search);
  return Object.fromEntries(LEDGER_FILTERS.flatMap((name) => (params.get(name) ? [[name, params.get(name)!]] : []))); // prettier-ignore
}

/** A filter without how it is looked at: what stands there when everything is shown. */
export const NOTHING_ASKED: Readonly<Record<string, string>> = Object.fromEntries(
  LEDGER_FILTERS.filter((name) => name !== "edition").map((name) => [name, ""]),
);

/** The links that a filter leaves, portion by portion. */
export function useLinks(site: Site, asked: LedgerAsked, sort: string) {
  return useInfiniteQuery({
    queryKey: ["links", site.id, asked, sort],
    queryFn: ({ pageParam }) =>
      api<ListOf<LedgerLink>>(
        "GET",
        `/sites/${site.id}/links?${new URLSearchParams({ limit: "200", cursor: pageParam, ...asked, ...(sort ? { sort } : {}) })}`,
      ),
    initialPageParam: "",
    getNextPageParam: (last) => last.nextCursor ?? undefined,
    placeholderData: (previous) => previous,
  });
}

/** What the links that a filter leaves can be narrowed by further. */
export function useLinkFacets(site: Site, asked: LedgerAsked) {
  return useQuery({
    queryKey: ["links", site.id, "facets", asked],
    queryFn: () => api<LedgerFacets>("GET", `/sites/${site.id}/links/facets?${new URLSearchParams(asked)}`),
    placeholderData: (previous) => previous,
  });
}

/** The ledger by host or by page, portion by portion. */
export function useLinkGroups(site: Site, asked: LedgerAsked, by: "host" | "page") {
  return useInfiniteQuery({
    queryKey: ["links", site.id, "groups", by, asked],
    queryFn: ({ pageParam }) =>
      api<ListOf<LedgerGroup>>(
        "GET",
        `/sites/${site.id}/links/groups?${new URLSearchParams({ by, limit: "200", cursor: pageParam, ...asked })}`,
      ),
    initialPageParam: "",
    getNextPageParam: (last) => last.nextCursor ?? undefined,
    placeholderData: (previous) => previous,
  });
}
