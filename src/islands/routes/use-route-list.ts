import { useInfiniteQuery, useQuery } from "@tanstack/react-query";
import type { Site } from "../../core/sites/site.ts";
import { useAddressState } from "../../ui/client/url-state.ts";
import { useDebounced } from "../../ui/keys/use-debounced.ts";
import { asking, keyOf } from "../../ui/client/queries.ts";
import { api } from "../../ui/client/api.ts";

/** What the list is narrowed by, as it stands in the screen's address. */
export interface RouteFilterState {
  q: string;
  kind: string;
  match: string;
  host: string;
  tag: string;
  state: string;
  health: string;
  unused: string;
}

export const FILTER_NAMES = ["q", "kind", "match", "host", "tag", "state", "health", "unused"] as const;

/** The filter in the screen's address; the search words once they have settled. */
export function useRouteFilter(): RouteFilterState {
  const [q] = useAddressState("q");
  const [kind] = useAddressState("kind");
  const [match] = useAddressState("match");
  const [host] = useAddressState("host");
  const [tag] = useAddressState("tag");
  const [state] = useAddressState("state");
  const [health] = useAddressState("health");
  const [unused] = useAddressState("unused");
  return { q: useDebounced(q, 160), kind, match, host, tag, state, health, unused };
}

/** The filter without what is empty, as the API takes it. */
export function setFilters(filter: RouteFilterState): Record<string, string> {
  return Object.fromEntries(Object.entries(filter).filter(([, value]) => value !== ""));
}

/** The routes that a filter leaves, portion by portion. */
export function useRouteList(site: Site, filter: RouteFilterState, sort: string) {
  const asked = setFilters(filter);
  return useInfiniteQuery({
    queryKey: keyOf("GET /sites/:site/routes", { site: site.id, query: { ...asked, sort } }),
    queryFn: ({ pageParam }) =>
      api("GET /sites/:site/routes", {
        site: site.id,
        query: { limit: "200", cursor: pageParam, ...asked, sort },
      }),
    initialPageParam: "",
    getNextPageParam: (last) => last.nextCursor ?? undefined,
    placeholderData: (previous) => previous,
    refetchInterval: 5_000,
  });
}

/** What routes can be narrowed to. */
export function useRouteFacets(site: Site) {
  return useQuery({
    ...asking("GET /sites/:site/routes/facets", { site: site.id }),
    staleTime: 30_000,
  });
}
