import { CLICK_CLASSES, type ClickRecord } from "./record.ts";

/** Counts by class, in the order of CLICK_CLASSES. */
export type ByClass = number[];

/** What a site's clicks of one day are counted by. */
export interface DayFacets {
  device: Map<string, ByClass>;
  referrer: Map<string, ByClass>;
  page: Map<string, ByClass>;
  hour: Map<string, ByClass>;
}

/** What a run of clicks comes to. Days are whole UTC days since the epoch. */
export interface ClickTally {
  routes: Map<string, { days: Map<number, ByClass>; persons: number; last: number }>;
  /** By site, then day. */
  sites: Map<string, Map<number, DayFacets>>;
}

const DAY = 86_400_000;
const HOURS = Array.from({ length: 24 }, (_, hour) => String(hour).padStart(2, "0"));

/**
 * Counts a run of clicks by route, and by everything else for the site that `siteOf` says the route belongs to;
 * clicks of routes that belong to none are left out. One look into a map for each thing counted: this is the whole
 * cost of copying that is not PostgreSQL's (measured by `npm run bench -- clicks`).
 */
export function tallyClicks(
  clicks: readonly ClickRecord[],
  siteOf: (route: string) => string | undefined,
): ClickTally {
  const tally: ClickTally = { routes: new Map(), sites: new Map() };
  for (const { at, route, class: group, device, referrer, page } of clicks) {
    let counted = tally.routes.get(route);
    if (!counted) {
      if (siteOf(route) === undefined) continue;
      tally.routes.set(route, (counted = { days: new Map(), persons: 0, last: 0 }));
    }
    const day = Math.floor(at / DAY);
    const index = CLICK_CLASSES.indexOf(group);
    bump(counted.days, day, index);
    if (group === "person") {
      counted.persons += 1;
      if (at > counted.last) counted.last = at;
    }
    const facets = facetsOf(tally, siteOf(route)!, day);
    bump(facets.device, device, index);
    bump(facets.referrer, referrer, index);
    bump(facets.page, page, index);
    bump(facets.hour, HOURS[Math.floor((at - day * DAY) / 3_600_000)]!, index);
  }
  return tally;
}

function facetsOf(tally: ClickTally, site: string, day: number): DayFacets {
  let days = tally.sites.get(site);
  if (!days) tally.sites.set(site, (days = new Map()));
  let facets = days.get(day);
  if (!facets) {
    facets = { device: new Map(), referrer: new Map(), page: new Map(), hour: new Map() };
    days.set(day, facets);
  }
  return facets;
}

function bump<K>(map: Map<K, ByClass>, key: K, index: number): void {
  const there = map.get(key);
  if (there) there[index]! += 1;
  else {
    const counts = CLICK_CLASSES.map(() => 0);
    counts[index] = 1;
    map.set(key, counts);
  }
}
