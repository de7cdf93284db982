import { useQuery } from "@tanstack/react-query";
import type { Site } from "../../core/sites/site.ts";
import { Screen } from "../../ui/frame/Screen.tsx";
import { readBackup } from "./draft/backup.ts";
import { Writing } from "./Writing.tsx";
import "./writing.css";
import { api, messageOf } from "../../ui/client/api.ts";

/** One page: its text, and beside it the rope with a knot for each link. */
export function WritingView(props: { site: Site; pageId: string }) {
  return (
    <Screen>
      <Loader {...props} />
    </Screen>
  );
}

function Loader({ site, pageId }: { site: Site; pageId: string }) {
  const loaded = useQuery({
    queryKey: ["page", pageId],
    queryFn: async () => {
      const [page, backup] = await Promise.all([
        api("GET /sites/:site/pages/:id", { site: site.id, id: pageId }),
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
    <p className="text-quiet">Fetching the page…</p>
  );
}
