export const ROUTE_KINDS = ["short", "redirect", "gone"] as const;

export type RouteKind = (typeof ROUTE_KINDS)[number];

/**
 * Statuses that a route may answer with (RFC 9110 section 15.4 and 15.5.11). 200 is the notice page, which
 * shows itself for some seconds and then goes on.
 */
export const ROUTE_STATUSES = [301, 302, 303, 307, 308, 200, 410] as const;

export type RouteStatus = (typeof ROUTE_STATUSES)[number];

/** What each status means to the person who chooses it. */
export const STATUS_WORDS: Readonly<Record<RouteStatus, string>> = {
  301: "moved for good",
  302: "for now, counted each time",
  303: "for now, fetched again with GET",
  307: "for now, method kept",
  308: "moved for good, method kept",
  200: "a notice page, then onwards",
  410: "gone, nothing in its place",
};

export const QUERY_MODES = ["drop", "forward", "merge"] as const;

export type QueryMode = (typeof QUERY_MODES)[number];

/** What a route answers after its last day: as if it were not there, gone (410), or another destination. */
export const AFTER_END = ["nothing", "gone", "destination"] as const;

export type AfterEnd = (typeof AFTER_END)[number];

/** On which pages links to the raw destination are delivered as links to the route. */
export const IN_CONTENT = ["nowhere", "everywhere", "pages"] as const;

export type InContent = (typeof IN_CONTENT)[number];

/** How long a notice shows itself that does not say: time enough for everybody to ask it to stay (WCAG 2.2.1). */
export const NOTICE_SECONDS = 20;

export const HEALTH_VERDICTS = ["fine", "slow", "chain", "loop", "dead", "failing", "unreachable"] as const;

export type HealthVerdict = (typeof HEALTH_VERDICTS)[number];

/** Verdicts with which readers arrive; the others are to be looked at. */
const ARRIVING: readonly HealthVerdict[] = ["fine", "slow", "chain"];

export const BAD_HEALTH = HEALTH_VERDICTS.filter((verdict) => !ARRIVING.includes(verdict));

/** True when readers do not arrive. */
export function isBadHealth(verdict: HealthVerdict): boolean {
  return BAD_HEALTH.includes(verdict);
}
