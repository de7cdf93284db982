import { useQuery } from "@tanstack/react-query";
import type { Site } from "../../../core/sites/site.ts";
import { asking } from "../../../ui/client/queries.ts";

/** The categories that pages name. */
export function useCategories(site: Site): string[] {
  const { data } = useQuery({
    ...asking("GET /sites/:site/pages", { site: site.id, query: { limit: 500 } }),
    staleTime: 60_000,
  });
  return [...new Set((data?.items ?? []).map(({ category }) => category).filter(Boolean))].sort();
}
