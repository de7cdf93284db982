import { pagesElsewhere, paidElsewhere } from "../../store/origin/read-pages.ts";
import type { Store } from "../../store/ground/store.ts";
import type { PagesElsewhere } from "../pages/rendered-pages.ts";

const FRESH_MS = 60_000;
/** Of each site so many are compared with what was asked for. */
const MOST = 20_000;

/** The pages of sites that stand elsewhere, read when they are first wanted and kept for a minute. */
export function createPagesElsewhere(store: Store): (siteId: string) => Promise<PagesElsewhere> {
  let stamp = 0;
  return keptAWhile(async (site) => {
    const pages = await pagesElsewhere(store, { site, most: MOST });
    return { stamp: (stamp += 1), pages };
  });
}

/** The keys of pages elsewhere whose readers are to be told of paid links, read and kept alike. */
export function createPaidElsewhere(store: Store): (siteId: string) => Promise<ReadonlySet<string>> {
  return keptAWhile(async (site) => new Set(await paidElsewhere(store, { site })));
}

function keptAWhile<T>(read: (siteId: string) => Promise<T>): (siteId: string) => Promise<T> {
  const known = new Map<string, { at: number; there: Promise<T> }>();
  return (siteId) => {
    const held = known.get(siteId);
    if (held && performance.now() - held.at < FRESH_MS) return held.there;
    const there = read(siteId);
    known.set(siteId, { at: performance.now(), there });
    // What could not be read is asked for again by the next reader.
    there.catch(() => known.delete(siteId));
    return there;
  };
}
