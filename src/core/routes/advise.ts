import { withPath } from "../address/with-path.ts";
import { respelled } from "./chain/own-site.ts";
import { before } from "../text/cut.ts";
import { ownPlace } from "../address/classify.ts";
import { caseFoldedKey, pathKey } from "../address/path-key.ts";
import type { Advice } from "./route.ts";
import { addressFault, captureCount, routeKey } from "./match/address-form.ts";
import { captureFault, capturesHost, highestCapture, withCaptures } from "./match/captures.ts";
import type { MatchKind } from "./match/match-kind.ts";
import { reservedPath } from "./reserved.ts";
import { circleFrom, firstOfEach, chainInWords, type Step } from "./chain/circle.ts";
import { MAX_HOPS } from "../address/max-hops.ts";
import { leadsBack } from "./chain/leads-back.ts";
import type { OwnSite } from "./chain/own-site.ts";
import { patternGroups } from "./match/pattern.ts";
import { draftTable } from "./match/draft-table.ts";
import { literalOf } from "./match/pattern-table.ts";
import { samplesOf } from "./match/samples.ts";
import { suspects } from "./match/suspects.ts";

/** Another route, as far as the linter names it. */
export interface OtherRoute {
  id: string;
  address: string;
  destination: string | null;
}

/** What the linter needs to know of the site around a route, the one that is being saved left out. */
export interface RouteSurroundings extends OwnSite {
  /** The route that claims this stored key on this host (null: on any host), switched on or off. */
  claimAt(host: string | null, storedKey: string): OtherRoute | undefined;
  /** The published page at this path key of a host (null: any); hosts that are kept for short links have none. */
  pageAt(host: string | null, key: string): { title: string } | undefined;
  /** The prefix, wildcard or pattern route that answers this path first, and how many literal characters it has. */
  patternAt?(host: string | null, key: string): (OtherRoute & { literal: number }) | undefined;
  /** Routes whose address differs from the path key only in letter case. */
  nearTo?(host: string | null, key: string): OtherRoute | undefined;
  /** What is known of how an outside destination answers, in words; undefined when it answers well or is not known. */
  answersBadly?(destination: string): string | undefined;
}

/** A route as far as the linter looks at it. */
export interface RouteDraft {
  host: string | null;
  match: MatchKind;
  addresses: readonly string[];
  caseInsensitive: boolean;
  destination: string | null;
  replacesPage: boolean;
}

/** What is to be said of a route before it is saved. Findings of severity "error" refuse it. */
export function adviseRoute(draft: RouteDraft, around: RouteSurroundings): Advice[] {
  const advice = draft.addresses.flatMap((address, index) => adviseAddress(address, index, draft, around));
  if (advice.every(({ severity }) => severity !== "error")) advice.push(...adviseOrder(draft, around));
  if (draft.destination === null) return advice;
  const own = advice.some(({ code, severity }) => code === "pattern" && severity === "error");
  return own ? advice : [...advice, ...adviseDestination(draft, draft.destination, around)];
}

function adviseAddress(
  address: string,
  index: number,
  draft: RouteDraft,
  around: RouteSurroundings,
): Advice[] {
  const field = index === 0 ? "address" : `aliases.${index - 1}`;
  const error = (code: Advice["code"], message: string): Advice[] => [
    { code, severity: "error", field, message },
  ];
  const fault = addressFault(address, draft.match);
  if (fault) return error(draft.match === "pattern" ? "pattern" : "warning", fault);
  const key = routeKey(address, draft.caseInsensitive, draft.match);
  const twice = draft.addresses
    .slice(0, index)
    .some((earlier) => routeKey(earlier, draft.caseInsensitive, draft.match) === key);
  if (twice) return error("taken", `${address} stands in this route twice.`);
  const exact = draft.match === "exact";
  const other =
    around.claimAt(draft.host, key) ?? (exact ? around.claimAt(draft.host, pathKey(address)) : undefined);
  if (other) {
    const leads = other.destination ? `leads to ${other.destination}` : "is answered as gone";
    return error("taken", `${address} is taken: it ${leads}. Choose another, or change that route.`);
  }
  if (!exact) return [];
  const page = around.pageAt(draft.host, pathKey(address));
  if (page && !draft.replacesPage) {
    return error(
      "page",
      `The page “${page.title}” is published at ${address}. Choose another address, or say that the route replaces the page.`,
    );
  }
  const reserved = reservedPath(pathKey(address));
  if (reserved?.severity === "error") return error("page", reserved.message);
  const near = draft.caseInsensitive ? undefined : around.nearTo?.(draft.host, pathKey(address));
  return [
    ...(reserved ? [{ code: "page" as const, field, ...reserved }] : []),
    ...(page
      ? [
          {
            code: "page" as const,
            severity: "warning" as const,
            field,
            message: `This route replaces the published page “${page.title}”: readers no longer get it.`,
          },
        ]
      : []),
    ...(near
      ? [
          {
            code: "near" as const,
            severity: "hint" as const,
            field,
            message: `${address} differs from ${near.address} only in letter case; a short link would answer both.`,
          },
        ]
      : []),
  ];
}

function adviseDestination(draft: RouteDraft, destination: string, around: RouteSurroundings): Advice[] {
  const error = (code: Advice["code"], message: string): Advice[] => [
    { code, severity: "error", field: "destination", message },
  ];
  const available = captureCount(draft.addresses[0] ?? "", draft.match, patternGroups);
  const fault = captureFault(destination, available);
  if (fault) return error("open-host", fault);
  const hint: Advice[] = capturesHost(destination)
    ? [
        {
          code: "open-host",
          severity: "warning",
          field: "destination",
          message: "What a reader types chooses part of the host that this leads to.",
        },
      ]
    : [];
  if (highestCapture(destination) === 0)
    return [...followDraft(draft, destination, around), ...adviseOneForAll(draft, destination)];
  return [...adviseCircles(draft, destination, around), ...hint];
}

// A prefix or wildcard without a capture: meant at times, and a slip at others.
function adviseOneForAll({ match }: RouteDraft, destination: string): Advice[] {
  if (match !== "prefix" && match !== "wildcard") return [];
  const all = match === "prefix" ? "Everything below this address" : "Whatever the * stands for, it";
  return [
    {
      code: "one-for-all",
      severity: "hint",
      field: "destination",
      message: `${all} leads to this one address. Where the rest of the path is to go along, write $1 for it, such as ${pathOf(destination)}.`,
    },
  ];
}

// The destination with the rest of a path behind its own.
function pathOf(destination: string): string {
  const path = before(before(destination, "#"), "?");
  return `${path}${path.endsWith("/") ? "" : "/"}$1`;
}

// Whether the way of some address comes round, looked for among those that are likeliest to.
function adviseCircles(draft: RouteDraft, destination: string, around: RouteSurroundings): Advice[] {
  const table = draftTable(draft.addresses, draft.match, draft.caseInsensitive);
  const isOwn = answersItself(draft, around);
  const step = (host: string | null, key: string): Step => {
    const captures = isOwn(host, key) ? table.find("", key)[0]?.captures : undefined;
    const filled = captures && withCaptures(destination, captures);
    if (filled !== undefined)
      return leadsBack(filled, host, key, around.primary) ? "stands aside" : { to: filled };
    const answer = around.answerAt(host, key);
    return answer.by === "route" && answer.destination !== null ? { to: answer.destination } : undefined;
  };
  const asked = draft.addresses
    .flatMap((address) => suspects(address, draft.match, destination))
    .filter((key) => isOwn(draft.host, key));
  const circles = asked.flatMap((key) => circleFrom({ host: draft.host, key }, around.hosts, step) ?? []);
  const { round, aside } = firstOfEach(circles);
  const said = (severity: Advice["severity"], message: string): Advice[] => [
    { code: "loop", severity, field: "destination", message },
  ];
  if (round)
    return said(
      "error",
      `Some addresses would go round in a circle: ${chainInWords(round.chain)}, and on. Choose another destination.`,
    );
  if (aside && circles.length === asked.length)
    return said(
      "error",
      "This would go round in a circle: every address that it answers leads back to itself. Choose another destination.",
    );
  return aside
    ? said(
        "warning",
        `Some addresses would lead back to themselves, such as ${aside.chain[0]}: there the route stands aside, and readers get what they would without it.`,
      )
    : [];
}

// Follows the destination through the site as it would be with this route in it.
function followDraft(draft: RouteDraft, destination: string, around: RouteSurroundings): Advice[] {
  const isOwn = answersItself(draft, around);
  const visited: string[] = [];
  let current = destination;
  const at = (code: Advice["code"], severity: Advice["severity"], message: string): Advice => ({
    code,
    severity,
    field: "destination",
    message,
  });
  for (let hops = 0; hops <= MAX_HOPS; hops += 1) {
    const place = ownPlace(current, around.hosts);
    if (!place) {
      const badly = around.answersBadly?.(current);
      return [
        ...chainAdvice(visited, current),
        ...(badly ? [at("answers-badly", "warning", `${current} ${badly}`)] : []),
      ];
    }
    if (isOwn(place.host, place.key)) {
      const way = [...visited, current].join(", then ");
      return [
        at(
          "loop",
          "error",
          `This would go round in a circle: ${way} leads back to this route. Choose another destination.`,
        ),
      ];
    }
    const answer = around.answerAt(place.host, place.key);
    if (answer.by === "page" || answer.by === "file") {
      const spelled = respelled(current, answer);
      return spelled === undefined
        ? chainAdvice(visited, current)
        : chainAdvice([...visited, current], withPath(current, spelled));
    }
    if (answer.by === "elsewhere" && answer.destination === null) return chainAdvice(visited, current);
    if (answer.by === "miss") {
      return [
        ...chainAdvice(visited, current),
        at("dead-end", "warning", `Nothing on this site answers ${current}; readers would get “not found”.`),
      ];
    }
    if (answer.destination === null)
      return [at("dead-end", "warning", `${current} is answered as gone (410).`)];
    visited.push(current);
    current = answer.destination;
    if (visited.includes(current)) {
      return [at("loop", "error", `${destination} leads into a circle of other routes. Fix those first.`)];
    }
  }
  return [at("long-way", "error", `${destination} takes more than ${MAX_HOPS} hops on this site.`)];
}

// Whether the route that is being saved would answer a place itself.
function answersItself(
  draft: RouteDraft,
  around: RouteSurroundings,
): (host: string | null, key: string) => boolean {
  const onHost = (host: string | null): boolean =>
    draft.host === null || (host ?? around.primary) === draft.host;
  if (draft.match === "exact") {
    const own = new Set(draft.addresses.map((address) => routeKey(address, draft.caseInsensitive)));
    return (host, key) =>
      (own.has(key) || (draft.caseInsensitive && own.has(caseFoldedKey(key)))) && onHost(host);
  }
  const table = draftTable(draft.addresses, draft.match, draft.caseInsensitive);
  return (host, key) => {
    if (!onHost(host) || table.find("", key).length === 0) return false;
    const { by } = around.answerAt(host, key);
    // A page or a file goes before it; so may another route, which is then followed instead.
    return by === "miss";
  };
}

// What stands before a prefix, wildcard or pattern and takes everything from it, or what it leaves alone.
function adviseOrder(draft: RouteDraft, around: RouteSurroundings): Advice[] {
  if (draft.match === "exact") return [];
  const table = draftTable(draft.addresses, draft.match, draft.caseInsensitive);
  const literal = literalOf({ match: draft.match, key: draft.addresses[0] ?? "" });
  const samples = draft.addresses
    .flatMap((address) => samplesOf(address, draft.match))
    .filter((sample) => table.find("", sample).length > 0);
  const first = samples.map((sample) => around.patternAt?.(draft.host, sample));
  const other = first[0];
  if (!other || other.literal < literal || first.some((one) => one?.id !== other.id)) return [];
  return [
    {
      code: "shadowed",
      severity: "warning",
      field: "address",
      message: `${other.address} stands before it and seems to answer all that this would; the longer literal part goes first, then the older route.`,
    },
  ];
}

function chainAdvice(visited: readonly string[], end: string): Advice[] {
  if (visited.length === 0) return [];
  return [
    {
      code: "chain",
      severity: "warning",
      field: "destination",
      message: `${visited[0]} only redirects on to ${end}. Point straight at the end, so that readers save a hop.`,
      fix: end,
    },
  ];
}
