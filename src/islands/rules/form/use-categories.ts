import { useQuery } from "@tanstack/react-query";
import type { PageSummary } from "../../../core/pages/page.ts";
import type { Site } from "../../../core/sites/site.ts";
import { api, type ListOf } from "../../../ui/client/api.ts";

/** The categories that pages name. */
export function useCategories(site: Site): string[] {
  const { data } = useQuery({
    queryKey: ["categories", site.id],
    queryFn: () => api<ListOf<PageSummary>>("GET", `/sites/${site.id}/pages?limit=500`),
    staleTime: 60_000,
  });
  return [...new Set((data?.items ?? []).map(({ category }) => category).filter(Boolean))].sort();
}
