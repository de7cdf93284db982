import { LRUCache } from "lru-cache";
import { beginsAsOne, spelledStart } from "../../core/address/path-start.ts";
import { pagesElsewhere, paidElsewhere } from "../../store/origin/read-pages.ts";
import type { Store } from "../../store/ground/store.ts";
import type { PagesElsewhere } from "../pages/rendered-pages.ts";

const FRESH_MS = 60_000;
/** Of each site so many are compared with what was asked for. */
const MOST = 20_000;
/** So long, and of so many addresses, it is remembered that their system has nothing there: the next reading knows it, too. */
const GONE_MS = 600_000;
const MOST_GONE = 20_000;
const MOST_SITES = 1_000;

/** A site, and what of it is written here alone. */
interface SiteElsewhere {
  id: string;
  origin: { here?: readonly string[] } | null;
}

/** What is known of pages that stand elsewhere when somebody misses one. */
export interface KnownElsewhere {
  /** The pages of a site, read when they are first wanted and kept for a minute; without those that are written here alone. */
  of(site: SiteElsewhere): Promise<PagesElsewhere>;
  /** Their system has just said that it has nothing at this path and query: nobody is led there, or round in a circle. */
  noteGone(siteId: string, target: string): void;
}

/** Makes what is known of pages elsewhere. */
export function createPagesElsewhere(store: Store): KnownElsewhere {
  const gone = new LRUCache<string, true>({ max: MOST_GONE, ttl: GONE_MS });
  const goneKey = (siteId: string, target: string): string => `${siteId} ${spelledStart(target)}`;
  let stamp = 0;
  const read = keptAWhile(async (site: SiteElsewhere): Promise<PagesElsewhere> => {
    const here = site.origin?.here ?? [];
    const pages = await pagesElsewhere(store, { site: site.id, most: MOST });
    return {
      stamp: (stamp += 1),
      pages: pages.filter(({ address }) => !beginsAsOne(address, here)),
      isGone: (address) => gone.has(goneKey(site.id, address)),
    };
  }, keyOf);
  return { of: read, noteGone: (siteId, target) => void gone.set(goneKey(siteId, target), true) };
}

function keyOf({ id, origin }: SiteElsewhere): string {
  return JSON.stringify([id, origin?.here]);
}

/** The keys of pages elsewhere whose readers are to be told of paid links, read and kept alike. */
export function createPaidElsewhere(store: Store): (siteId: string) => Promise<ReadonlySet<string>> {
  return keptAWhile(
    async (site: string) => new Set(await paidElsewhere(store, { site })),
    (site) => site,
  );
}

function keptAWhile<S, T>(
  read: (site: S) => Promise<T>,
  keyOfSite: (site: S) => string,
): (site: S) => Promise<T> {
  const known = new LRUCache<string, Promise<T>>({ max: MOST_SITES, ttl: FRESH_MS });
  return (site) => {
    const key = keyOfSite(site);
    const held = known.get(key);
    if (held) return held;
    const there = read(site);
    known.set(key, there);
    // What could not be read is asked for again by the next reader.
    there.catch(() => known.delete(key));
    return there;
  };
}
