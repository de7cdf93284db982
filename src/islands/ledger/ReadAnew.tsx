import { RefreshCw } from "lucide-react";
import { useEffect } from "react";
import type { Site } from "../../core/sites/site.ts";
import { useWork } from "../../ui/notices/job.ts";
import { WorkBar } from "../../ui/notices/WorkBar.tsx";
import { refreshLedger } from "./use-ledger.ts";
import { startJob } from "../../ui/client/api.ts";
import * as say from "./words.ts";

/** Reads the links of every page again. The ledger follows by itself; this is for whoever wants to be sure. */
export function ReadAnew({ site }: { site: Site }) {
  const work = useWork<"POST /sites/:site/links/rebuild">();
  useEffect(() => {
    if (work.state === "done") void refreshLedger();
  }, [work.state]);
  if (work.state === "running") return <WorkBar work={work} label={say.reading} />;
  return (
    <button
      data-needs="editor"
      className="action py-1 text-sm"
      title={say.readsTheLinksOfEveryPageAgain}
      onClick={() => work.start(() => startJob("POST /sites/:site/links/rebuild", { site: site.id }))}
    >
      <RefreshCw size={14} aria-hidden /> {work.state === "failed" ? work.message : say.refresh}
    </button>
  );
}
