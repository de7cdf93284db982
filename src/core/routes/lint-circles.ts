import { readRouteKey } from "./match/address-form.ts";
import { highestCapture, withCaptures } from "./match/captures.ts";
import type { PatternTable } from "./match/pattern-table.ts";
import { MAX_SUSPECTS, suspects } from "./match/suspects.ts";
import type { RouteTable } from "./match/table.ts";
import { circleFrom, firstOfEach, chainInWords, type Step } from "./chain/circle.ts";
import { leadsBack, mayLeadInside } from "./chain/leads-back.ts";
import type { LintedRoute, LintedSite, LintFinding } from "./linted.ts";

// All routes together try so many addresses; the more routes, the fewer each.
const MAX_TRIED = 50_000;

/** Ways that come round for some addresses: where captures are filled in each has its own, and those that may are followed. */
export function circleFindings(
  routes: readonly LintedRoute[],
  site: LintedSite,
  table: RouteTable<number>,
  patterns: PatternTable<number>,
): LintFinding[] {
  const step = (asked: string | null, key: string): Step => {
    const host = asked ?? site.primary;
    const exact = table.find(host, key);
    if (exact === undefined && (site.pageAt(key) !== undefined || site.hasFile(key))) return undefined;
    const hits = exact === undefined ? patterns.find(host, key) : [{ entry: exact, captures: [] }];
    for (const { entry, captures } of hits) {
      const { destination } = routes[entry]!;
      if (destination === null) return undefined;
      const to = withCaptures(destination, captures);
      if (to === undefined) continue;
      return leadsBack(to, asked, key, site.primary) ? "stands aside" : { to };
    }
    return undefined;
  };
  const filled = routes.filter(({ destination }) => destination !== null && highestCapture(destination) > 0);
  const most = Math.max(10, Math.min(MAX_SUSPECTS, Math.floor(MAX_TRIED / Math.max(1, filled.length))));
  return filled.flatMap((route): LintFinding[] => {
    if (!mayLeadInside(route.destination!, site.hosts)) return [];
    const circles = route.keys.flatMap((stored) => {
      const { match, key } = readRouteKey(stored);
      return suspects(key, match, route.destination!, most).flatMap(
        (start) => circleFrom({ host: route.host, key: start }, site.hosts, step) ?? [],
      );
    });
    const { round, aside } = firstOfEach(circles);
    const said = (severity: LintFinding["severity"], message: string): LintFinding[] => [
      { code: "loop", severity, routes: [route.id], message },
    ];
    if (round)
      return said(
        "error",
        `${route.address} goes round in a circle for some addresses: ${chainInWords(round.chain)}, and on.`,
      );
    if (aside)
      return said(
        "warning",
        `${route.address} would lead some addresses back to themselves, such as ${aside.chain[0]}: there it stands aside.`,
      );
    return [];
  });
}
