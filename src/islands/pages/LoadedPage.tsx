import { useQuery, useQueryClient } from "@tanstack/react-query";
import type { Site } from "../../core/sites/site.ts";
import type { Page } from "../../core/pages/page.ts";
import { api, messageOf } from "../../ui/client/api.ts";
import { keyOf } from "../../ui/client/queries.ts";
import { readBackup } from "./draft/backup.ts";
import { TextToRead } from "./TextToRead.tsx";
import { Writing } from "./Writing.tsx";

/** How long the page that came with the screen is as it is now. */
const FRESH_MS = 10_000;

/** A page with what this browser kept of it, as it is written on. */
export function LoadedPage({ site, pageId }: { site: Site; pageId: string }) {
  const queries = useQueryClient();
  const loaded = useQuery({
    queryKey: ["page", pageId],
    queryFn: async () => {
      const asked = { site: site.id, id: pageId };
      const came = queries.getQueryState<Page>(keyOf("GET /sites/:site/pages/:id", asked));
      const isFresh = came?.data && Date.now() - came.dataUpdatedAt < FRESH_MS;
      const [page, backup] = await Promise.all([
        isFresh ? came.data! : api("GET /sites/:site/pages/:id", asked),
        readBackup(pageId),
      ]);
      return { page, backup };
    },
    staleTime: Infinity,
    refetchOnWindowFocus: false,
  });
  if (loaded.isError) return <p className="text-bad">{messageOf(loaded.error)}</p>;
  return loaded.data ? (
    <Writing site={site} first={loaded.data.page} backup={loaded.data.backup} />
  ) : (
    <TextToRead site={site} pageId={pageId} />
  );
}
