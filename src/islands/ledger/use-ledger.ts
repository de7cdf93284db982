import { useInfiniteQuery, useQuery } from "@tanstack/react-query";
import type { Site } from "../../core/sites/site.ts";
import { useAddress } from "../../ui/client/url-state.ts";
import { useDebounced } from "../../ui/keys/use-debounced.ts";
import { asking, refresh, keyOf } from "../../ui/client/queries.ts";
import { api } from "../../ui/client/api.ts";

/** What the ledger can be narrowed by, as it stands in the screen's address. */
export const LEDGER_FILTERS = [
  "q",
  "edition",
  "host",
  "page",
  "place",
  "category",
  "program",
  "reach",
  "kind",
  "anchor",
  "rel",
  "target",
  "treatment",
  "rule",
  "finding",
  "health",
  "byHand",
  "short",
] as const;
export type LedgerAsked = Partial<Record<(typeof LEDGER_FILTERS)[number], string>>;

/** The filter in the screen's address, without what is empty; the search words once they have settled. */
export function useLedgerFilter(): LedgerAsked {
  const search = useDebounced(useAddress(), 140);
  const params = new URLSearchParams(search);
  return Object.fromEntries(
    LEDGER_FILTERS.flatMap((name) => (params.get(name) ? [[name, params.get(name)!]] : [])),
  );
}

/** A filter without how it is looked at: what stands there when everything is shown. */
export const NOTHING_ASKED: Readonly<Record<string, string>> = Object.fromEntries(
  LEDGER_FILTERS.filter((name) => name !== "edition").map((name) => [name, ""]),
);

/** Asks anew for everything that shows the ledger. */
export function refreshLedger(): Promise<void> {
  return refresh(
    "GET /sites/:site/links",
    "GET /sites/:site/links/facets",
    "GET /sites/:site/links/groups",
    "GET /sites/:site/links/report",
    "POST /sites/:site/attributes",
  );
}

/** The links that a filter leaves, portion by portion. */
export function useLinks(site: Site, asked: LedgerAsked, sort: string) {
  return useInfiniteQuery({
    queryKey: keyOf("GET /sites/:site/links", { site: site.id, query: { ...asked, sort } }),
    queryFn: ({ pageParam }) =>
      api("GET /sites/:site/links", {
        site: site.id,
        query: { limit: "200", cursor: pageParam, ...asked, ...(sort ? { sort } : {}) },
      }),
    initialPageParam: "",
    getNextPageParam: (last) => last.nextCursor ?? undefined,
    placeholderData: (previous) => previous,
  });
}

/** What the links that a filter leaves can be narrowed by further. */
export function useLinkFacets(site: Site, asked: LedgerAsked) {
  return useQuery({
    ...asking("GET /sites/:site/links/facets", { site: site.id, query: asked }),
    placeholderData: (previous) => previous,
  });
}

/** The ledger by host or by page, portion by portion. */
export function useLinkGroups(site: Site, asked: LedgerAsked, by: "host" | "page") {
  return useInfiniteQuery({
    queryKey: keyOf("GET /sites/:site/links/groups", { site: site.id, query: { ...asked, by } }),
    queryFn: ({ pageParam }) =>
      api("GET /sites/:site/links/groups", {
        site: site.id,
        query: { by, limit: "200", cursor: pageParam, ...asked },
      }),
    initialPageParam: "",
    getNextPageParam: (last) => last.nextCursor ?? undefined,
    placeholderData: (previous) => previous,
  });
}
