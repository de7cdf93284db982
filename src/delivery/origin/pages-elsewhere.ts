import { pagesElsewhere } from "../../store/origin/read-pages.ts";
import type { Store } from "../../store/ground/store.ts";
import type { PagesElsewhere } from "../pages/rendered-pages.ts";

const FRESH_MS = 60_000;
/** Of each site so many are compared with what was asked for. */
const MOST = 20_000;

/** The pages of sites that stand elsewhere, read when they are first wanted and kept for a minute. */
export function createPagesElsewhere(store: Store): (siteId: string) => Promise<PagesElsewhere> {
  const known = new Map<string, { at: number; pages: Promise<PagesElsewhere> }>();
  let stamp = 0;
  return (siteId) => {
    const there = known.get(siteId);
    if (there && performance.now() - there.at < FRESH_MS) return there.pages;
    const pages = pagesElsewhere(store, { site: siteId, most: MOST }).then((rows) => ({
      stamp: (stamp += 1),
      pages: rows,
    }));
    known.set(siteId, { at: performance.now(), pages });
    // What could not be read is asked for again by the next reader.
    pages.catch(() => known.delete(siteId));
    return pages;
  };
}
