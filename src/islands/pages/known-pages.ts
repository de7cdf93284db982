import { useQueries, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import type { Site } from "../../core/sites/site.ts";
import type { Option } from "../../ui/choose/options.ts";
import { asking } from "../../ui/client/queries.ts";
import { useDebounced } from "../../ui/keys/use-debounced.ts";
import * as say from "./words.ts";

/** The categories that pages name. */
export function useCategories(site: Site): Option[] {
  const { data } = useQuery({
    ...asking("GET /sites/:site/categories", { site: site.id }),
    staleTime: 60_000,
  });
  return (data?.items ?? []).map(({ category, pages }) => ({
    value: category,
    word: category,
    note: say.pages(pages),
  }));
}

/**
 * Pages to choose from, by their id or their path: the first by title, and whatever `find` is asked for. Those in
 * `chosen` (ids) are among them, so that they can be named.
 */
export function usePageOptions(
  site: Site,
  by: "id" | "path",
  chosen: readonly string[] = [],
): { options: Option[]; find: (typed: string) => void } {
  const [typed, find] = useState("");
  const q = useDebounced(typed.trim(), 200);
  const { data } = useQuery({
    ...asking("GET /sites/:site/pages", {
      site: site.id,
      query: { limit: 100, sort: "title", ...(q ? { q } : {}) },
    }),
    staleTime: 30_000,
    placeholderData: (previous) => previous,
  });
  const pages = data?.items ?? [];
  const others = by === "id" ? chosen.filter((id) => !pages.some((page) => page.id === id)) : [];
  const named = useQueries({
    queries: others.map((id) => ({
      ...asking("GET /sites/:site/pages/:id", { site: site.id, id }),
      staleTime: 60_000,
    })),
  });
  const known = [...pages, ...named.flatMap((one) => (one.data ? [one.data] : []))];
  const options = known.map((page) => ({
    value: page[by],
    word: by === "id" ? page.title : page.path,
    note: `${by === "id" ? page.path : page.title}${page.status === "draft" ? " (draft)" : ""}`,
  }));
  return { options, find };
}
