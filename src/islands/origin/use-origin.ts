import { useQuery } from "@tanstack/react-query";
import { useEffect, useRef } from "react";
import type { Site } from "../../core/sites/site.ts";
import { api } from "../../ui/client/api.ts";
import { asking, refresh } from "../../ui/client/queries.ts";
import { useWork, type Work } from "../../ui/notices/job.ts";

const WHILE_READING_MS = 2_500;
const OF_READING = new Set(["origin.look", "origin.read"]);

/** Where the site's pages stand, how far they are read, and what was found in them; followed while they are being read. */
export function useOrigin(site: Site) {
  const looking = useWork<"POST /sites/:site/origin/look">();
  const reading = useWork<"POST /sites/:site/origin/round">();
  const isReading = looking.state === "running" || reading.state === "running";
  const origin = useQuery({
    ...asking("GET /sites/:site/origin", { site: site.id }),
    enabled: site.origin !== null,
    refetchInterval: isReading ? WHILE_READING_MS : 30_000,
  });
  const results = useQuery({
    ...asking("GET /sites/:site/origin/results", { site: site.id }),
    enabled: site.origin !== null,
    refetchInterval: isReading ? WHILE_READING_MS : 30_000,
  });
  useTakenUp(site, looking, reading);
  const wasReading = useRef(isReading);
  useEffect(() => {
    if (wasReading.current && !isReading) void refreshReading();
    wasReading.current = isReading;
  }, [isReading]);
  return { origin, results, looking, reading, isReading };
}

/** Lets all that tells of reading be asked for anew. */
export function refreshReading(): Promise<void> {
  return refresh(
    "GET /sites/:site/origin",
    "GET /sites/:site/origin/results",
    "GET /sites/:site/origin/pages",
  );
}

// What goes on already, begun before this screen was opened, is followed by it.
function useTakenUp(
  site: Site,
  looking: Work<"POST /sites/:site/origin/look">,
  reading: Work<"POST /sites/:site/origin/round">,
): void {
  const isDone = useRef(false);
  useEffect(() => {
    if (isDone.current || site.origin === null) return;
    isDone.current = true;
    void api("GET /sites/:site/jobs", { site: site.id }).then(
      ({ items }) => {
        const going = items.find(({ name, state }) => OF_READING.has(name) && state === "running");
        if (!going) return;
        const work = going.name === "origin.look" ? looking : reading;
        work.start(() => api("GET /jobs/:job", { job: going.id }));
      },
      () => undefined,
    );
  }, [site, looking, reading]);
}
