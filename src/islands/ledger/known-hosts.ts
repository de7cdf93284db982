import { useQuery } from "@tanstack/react-query";
import type { Site } from "../../core/sites/site.ts";
import type { Option } from "../../ui/choose/options.ts";
import { asking } from "../../ui/client/queries.ts";
import * as say from "./words.ts";

/** The hosts that the site's links lead to, the most linked first. */
export function useHostOptions(site: Site): Option[] {
  const { data } = useQuery({
    ...asking("GET /sites/:site/links/facets", { site: site.id, query: { reach: "external" } }),
    staleTime: 60_000,
  });
  return (data?.host ?? []).map(({ value, links }) => ({
    value,
    word: value,
    note: say.links2(links),
  }));
}
