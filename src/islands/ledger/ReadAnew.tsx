import { RefreshCw } from "lucide-react";
import { useEffect } from "react";
import type { Site } from "../../core/sites/site.ts";
import { api, queries } from "../../ui/client/api.ts";
import { useWork } from "../../ui/notices/job.ts";
import { WorkBar } from "../../ui/notices/WorkBar.tsx";

/** Reads every page's links anew. The ledger follows by itself; this is for whoever wants to be sure. */
export function ReadAnew({ site }: { site: Site }) {
  const work = useWork();
  useEffect(() => {
    if (work.state === "done") void queries.invalidateQueries({ queryKey: ["links", site.id] });
  }, [work.state, site.id]);
  if (work.state === "running") return <WorkBar work={work} label="Reading" />;
  return (
    <button
      className="action py-1 text-sm"
      title="Reads every page's links anew"
      onClick={() => work.start(() => api("POST", `/sites/${site.id}/links/rebuild`))}
    >
      <RefreshCw size={14} aria-hidden /> {work.state === "failed" ? work.message : "Read anew"}
    </button>
  );
}
