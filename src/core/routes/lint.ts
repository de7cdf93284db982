import { whatAnswers, type StandingAt } from "./chain/what-answers.ts";
import { from } from "../text/cut.ts";
import { ownPlace } from "../address/classify.ts";
import { compareKey } from "../address/compare.ts";
import { caseFoldedKey } from "../address/path-key.ts";
import { circleFindings } from "./lint-circles.ts";
import { readRouteKey } from "./match/address-form.ts";
import { highestCapture } from "./match/captures.ts";
import { PatternTable } from "./match/pattern-table.ts";
import { samplesOf } from "./match/samples.ts";
import { RouteTable } from "./match/table.ts";
import type { LintedRoute, LintedSite, LintFinding } from "./linted.ts";

/** Where a route's destination leads within the site. */
type Next = { route: number } | "outside" | "page" | "miss" | "gone" | "unknown";

/**
 * Looks through the whole table of switched-on routes. Each destination is looked up once and each way is walked
 * once, so the time grows with the number of routes (measured by `npm run bench -- lint`).
 */
export function lintRoutes(routes: readonly LintedRoute[], site: LintedSite): LintFinding[] {
  const table = new RouteTable<number>();
  const patterns = new PatternTable<number>();
  routes.forEach((route, index) => {
    const caseInsensitive = route.kind === "short";
    for (const stored of route.keys) {
      const { match, key } = readRouteKey(stored);
      if (match === "exact") table.set({ host: route.host, key, caseInsensitive }, index);
      else patterns.add({ match, host: route.host, key, caseInsensitive }, index, index);
    }
  });
  const standing: StandingAt<{ index: number; isExact: boolean }, string> = {
    routeAt: (host, key) => indexed(table.find(host, key), true),
    pageAt: (_host, key) => site.pageAt(key),
    fileAt: (key) => (site.hasFile(key) ? key : undefined),
    patternAt: (host, key) => indexed(patterns.find(host, key)[0]?.entry, false),
  };
  const next = routes.map((route) => nextOf(route, routes, site, standing));
  return [
    ...chainFindings(routes, next, site),
    ...circleFindings(routes, site, table, patterns),
    ...shadowFindings(routes, site, table, patterns),
    ...nearFindings(routes),
    ...sameDestination(routes),
    ...routes.flatMap((route, index): LintFinding[] =>
      route.answersBadly && next[index] === "outside"
        ? [
            {
              code: "answers-badly",
              severity: "warning",
              routes: [route.id],
              message: `${route.address}: its destination ${route.answersBadly}`,
            },
          ]
        : [],
    ),
  ];
}

function indexed(
  index: number | undefined,
  isExact: boolean,
): { index: number; isExact: boolean } | undefined {
  return index === undefined ? undefined : { index, isExact };
}

function nextOf(
  route: LintedRoute,
  routes: readonly LintedRoute[],
  site: LintedSite,
  standing: StandingAt<{ index: number; isExact: boolean }, string>,
): Next {
  if (route.destination === null) return "gone";
  if (highestCapture(route.destination) > 0) return "unknown";
  const place = ownPlace(route.destination, site.hosts);
  if (!place) return "outside";
  const host = place.host ?? site.primary;
  const there = whatAnswers(standing, host, place.key);
  if (!there) return "miss";
  if (there.by !== "route") return "page";
  const { index, isExact } = there.route;
  return !isExact && highestCapture(routes[index]!.destination ?? "") > 0 ? "unknown" : { route: index };
}

function chainFindings(
  routes: readonly LintedRoute[],
  next: readonly Next[],
  site: LintedSite,
): LintFinding[] {
  const findings: LintFinding[] = [];
  const looping = new Set<number>();
  const ends = endsOf(next, (cycle) => {
    for (const index of cycle) looping.add(index);
    findings.push({
      code: "loop",
      severity: "error",
      routes: cycle.map((index) => routes[index]!.id),
      message:
        cycle.length === 1
          ? `${routes[cycle[0]!]!.address} leads to itself.`
          : `${cycle.map((index) => routes[index]!.address).join(", then ")} lead round in a circle.`,
    });
  });
  routes.forEach((route, index) => {
    const step = next[index]!;
    if (step === "miss") findings.push(deadEnd(route, site));
    if (typeof step === "string" || looping.has(index)) return;
    const end = ends[index]!;
    if (end === -1) {
      findings.push({
        code: "loop",
        severity: "error",
        routes: [route.id],
        message: `${route.address} leads into a circle of other routes.`,
      });
      return;
    }
    const last = routes[end]!;
    findings.push(
      last.destination === null
        ? {
            code: "dead-end",
            severity: "warning",
            routes: [route.id, last.id],
            message: `${route.address} leads to ${last.address}, which is answered as gone.`,
          }
        : {
            code: "chain",
            severity: "warning",
            routes: [route.id, routes[step.route]!.id],
            message: `${route.address} leads only to ${routes[step.route]!.address}, which leads on to ${last.destination}.`,
            fix: {
              route: route.id,
              destination: last.destination,
              label: `Point straight at ${last.destination}`,
            },
          },
    );
  });
  return findings;
}

// For each route the last one on its way, -1 for those that end in a circle. Each way is walked once.
function endsOf(next: readonly Next[], onCycle: (cycle: number[]) => void): number[] {
  const ends = new Array<number | undefined>(next.length);
  for (let start = 0; start < next.length; start += 1) {
    const chain: number[] = [];
    const on = new Map<number, number>();
    let at = start;
    let end: number;
    for (;;) {
      const known = ends[at];
      if (known !== undefined) {
        end = known;
        break;
      }
      const before = on.get(at);
      if (before !== undefined) {
        onCycle(chain.slice(before));
        end = -1;
        break;
      }
      on.set(at, chain.length);
      chain.push(at);
      const step = next[at]!;
      if (typeof step === "string") {
        end = at;
        break;
      }
      at = step.route;
    }
    for (const index of chain) ends[index] = end;
  }
  return ends as number[];
}

function deadEnd(route: LintedRoute, site: LintedSite): LintFinding {
  const place = ownPlace(route.destination!, site.hosts)!;
  const closest = site.closest?.(place.key);
  return {
    code: "dead-end",
    severity: "warning",
    routes: [route.id],
    message: `${route.address} leads to ${route.destination}, which nothing answers.`,
    fix: closest
      ? { route: route.id, destination: closest, label: `Point to ${closest}` }
      : { route: route.id, delete: true, label: "Delete it" },
  };
}

function shadowFindings(
  routes: readonly LintedRoute[],
  site: LintedSite,
  table: RouteTable<number>,
  patterns: PatternTable<number>,
): LintFinding[] {
  return routes.flatMap((route, index): LintFinding[] => {
    if (route.match === "exact") return exactShadows(route, index, site, table);
    const hosts = route.host === null ? site.hosts : [route.host];
    const samples = samplesOf(route.address, route.match);
    const firsts = hosts.flatMap((host) =>
      samples.flatMap((sample) => {
        const hits = patterns.find(host, sample);
        return hits.some(({ entry }) => entry === index) ? [hits[0]!.entry] : [];
      }),
    );
    const first = firsts[0];
    if (first === undefined || first === index || firsts.some((one) => one !== first)) return [];
    const other = routes[first]!;
    return [
      {
        code: "shadowed",
        severity: "warning",
        routes: [route.id, other.id],
        message: `${route.address} is never reached: ${other.address} stands before it and answers the same.`,
        fix: { route: route.id, delete: true, label: `Delete ${route.address}` },
      },
    ];
  });
}

function exactShadows(
  route: LintedRoute,
  index: number,
  site: LintedSite,
  table: RouteTable<number>,
): LintFinding[] {
  const findings: LintFinding[] = [];
  for (const key of route.keys) {
    const page = site.pageAt(key);
    if (page !== undefined && (route.host === null || route.host === site.primary)) {
      findings.push({
        code: "page",
        severity: "warning",
        routes: [route.id],
        message: `The page “${page}” is published at ${key}, and readers get this route instead.`,
      });
    }
    if (route.host !== null) continue;
    const first = site.hosts.map((host) => table.find(host, key));
    const other = first[0];
    if (other === undefined || first.some((one) => one === undefined || one === index)) continue;
    findings.push({
      code: "shadowed",
      severity: "warning",
      routes: [route.id],
      message: `${route.address} for every host is never reached: each host has its own.`,
      fix: { route: route.id, delete: true, label: `Delete ${route.address} for every host` },
    });
  }
  return findings;
}

function nearFindings(routes: readonly LintedRoute[]): LintFinding[] {
  const groups = new Map<string, LintedRoute[]>();
  for (const route of routes) {
    if (route.match !== "exact") continue;
    for (const key of route.keys) {
      const place = `${route.host ?? "*"} ${caseFoldedKey(key)}`;
      const there = groups.get(place);
      if (!there) groups.set(place, [route]);
      else if (!there.includes(route)) there.push(route);
    }
  }
  return [...groups.values()]
    .filter((group) => group.length > 1)
    .map((group) => ({
      code: "near",
      severity: "hint",
      routes: group.map(({ id }) => id),
      message: `${group.map(({ address }) => address).join(" and ")} differ only in letter case.`,
    }));
}

function sameDestination(routes: readonly LintedRoute[]): LintFinding[] {
  const groups = new Map<string, LintedRoute[]>();
  for (const route of routes) {
    if (route.kind !== "short" || route.destination === null) continue;
    const key = compareKey(route.destination) + from(route.destination, "#");
    const there = groups.get(key);
    if (there) there.push(route);
    else groups.set(key, [route]);
  }
  return [...groups.values()]
    .filter((group) => group.length > 1)
    .map((group) => ({
      code: "same-destination",
      severity: "hint",
      routes: group.map(({ id }) => id),
      message: `${group.map(({ address }) => address).join(", ")} lead to the same destination; one with aliases would count together.`,
    }));
}
