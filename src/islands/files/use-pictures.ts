import { useQuery } from "@tanstack/react-query";
import type { SiteFile } from "../../core/files/file.ts";
import type { Site } from "../../core/sites/site.ts";
import { asking } from "../../ui/client/queries.ts";
import type { Option } from "../../ui/choose/options.ts";

/** The pictures among a site's files, the newest first, to choose one from: by its path or its id. */
export function usePictures(site: Site, by: "path" | "id" = "path"): Option[] {
  const { data } = useQuery({
    ...asking("GET /sites/:site/files", { site: site.id, query: { limit: 200, sort: "-createdAt" } }),
    staleTime: 60_000,
  });
  return (data?.items ?? []).filter(isPicture).map((file) => ({
    value: file[by],
    word: file.name,
    note: file.alt || file.path,
  }));
}

function isPicture({ mediaType }: SiteFile): boolean {
  return mediaType.startsWith("image/");
}
