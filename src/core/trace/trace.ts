import { decodedQuery } from "../text/decoded.ts";
import { compareKey } from "../address/compare.ts";

/** Who answered one hop of a trace. */
export type HopBy = "route" | "page" | "file" | "spelling" | "miss" | "elsewhere" | "outside";

/** One hop: what was asked for, and what came back. */
export interface TraceHop {
  address: string;
  /** Null when nothing came back. */
  status: number | null;
  by: HopBy;
  /** The route or page of ours that answered. */
  id?: string;
  /** In words: the rule of the miss policy, the page's title, or why nothing came. */
  note?: string;
  /** Milliseconds that the answer took; absent for our own, which is not asked over the network. */
  ms?: number;
}

export const TRACE_VERDICTS = [
  "fine",
  "chain",
  "loop",
  "too-long",
  "not-found",
  "gone",
  "failing",
  "unreachable",
  "lost-tracking",
  "not-asked",
  "refused",
] as const;
export type TraceVerdict = (typeof TRACE_VERDICTS)[number];

/** A parameter on its way to the end. */
export interface TrackedParameter {
  name: string;
  value: string;
  arrived: boolean;
  /** The address at which it was last seen, when it did not arrive. */
  lastSeen?: string;
}

/** The whole way of one address. */
export interface Trace {
  address: string;
  hops: TraceHop[];
  /** Where it ends; null when it does not. */
  end: string | null;
  verdict: TraceVerdict;
  /** The verdict as a sentence. */
  note: string;
  tracking: TrackedParameter[];
}

/** How a way ended that nobody's answer ended. */
export type Endless = "loop" | "too-long" | "not-asked" | undefined;

const SENTENCES: Readonly<Record<TraceVerdict, string>> = {
  fine: "Arrives.",
  chain: "Arrives, but one of our routes leads only to another; point the first straight at the end.",
  loop: "Goes round in a circle and never arrives.",
  "too-long": "More hops than a browser follows.",
  "not-found": "Ends at “not found”.",
  gone: "Ends at “gone”.",
  failing: "Ends at a failure.",
  unreachable: "The last host does not answer.",
  "lost-tracking": "Arrives, but loses parameters on the way.",
  "not-asked": "Leaves the site; the outside was not asked.",
  refused: "Is no address that could be followed.",
};

/**
 * Judges a way. `watched` are further values that must arrive, such as an account that stands in a path; the
 * parameters of the address itself, of our own hops and of the first outside address are watched in any case.
 */
export function judge(
  address: string,
  hops: readonly TraceHop[],
  endless: Endless,
  watched: readonly string[] = [],
): Trace {
  const last = hops.at(-1);
  const tracking = trackingOf(hops, watched);
  const verdict = verdictOf(hops, endless, tracking);
  const lost = tracking.filter(({ arrived }) => !arrived).map(({ name }) => name);
  return {
    address,
    hops: [...hops],
    end: endless === "loop" || endless === "too-long" ? null : (last?.address ?? null),
    verdict,
    note:
      verdict === "lost-tracking"
        ? `Arrives, but ${lost.join(", ")} ${lost.length === 1 ? "does" : "do"} not.`
        : last?.note && verdict !== "fine" && verdict !== "chain"
          ? `${SENTENCES[verdict]} ${last.note}`
          : SENTENCES[verdict],
    tracking,
  };
}

// Shorter values stand in other words by chance.
const LONG_ENOUGH = 6;

function verdictOf(
  hops: readonly TraceHop[],
  endless: Endless,
  tracking: readonly TrackedParameter[],
): TraceVerdict {
  if (endless) return endless;
  const last = hops.at(-1);
  if (!last) return "refused";
  if (last.status === null) return "unreachable";
  if (last.status === 410) return "gone";
  if (last.status === 404 || (last.by === "outside" && last.note?.startsWith("says"))) return "not-found";
  if (last.status >= 400) return "failing";
  if (tracking.some(({ arrived }) => !arrived)) return "lost-tracking";
  const routes = hops.filter(({ by }) => by === "route").length;
  return routes > 1 ? "chain" : "fine";
}

function trackingOf(hops: readonly TraceHop[], watched: readonly string[]): TrackedParameter[] {
  const answered = hops.filter(({ status }) => status !== null).map(({ address }) => address);
  if (answered.length < 2) return [];
  // What our own hops carry must arrive, and what leaves us; what others add among themselves is theirs.
  const leaving = hops.findIndex(({ by }) => by === "outside");
  const ours = answered.slice(0, leaving === -1 ? undefined : leaving + 1);
  const parameters = ours.flatMap(parametersOf);
  const wanted = [
    ...parameters,
    ...watched
      .filter((value) => value.length > 2 && ours.some((address) => holds(address, value)))
      .filter((value) => !parameters.some(([, own]) => own === value))
      .map((value): [string, string] => [value, value]),
  ];
  const seen = new Set<string>();
  return wanted
    .filter(([name, value]) => value !== "" && !seen.has(`${name}=${value}`) && seen.add(`${name}=${value}`))
    .map(([name, value]) => {
      const holding = answered.filter((address) => holds(address, value));
      const arrived = holds(answered.at(-1)!, value);
      return { name, value, arrived, ...(arrived ? {} : { lastSeen: holding.at(-1)! }) };
    });
}

function parametersOf(address: string): [string, string][] {
  return URL.canParse(address) ? [...new URL(address).searchParams] : [];
}

// A value has arrived as a parameter, whatever its name there, or as a part of the path; a long one anywhere.
function holds(address: string, value: string): boolean {
  if (!URL.canParse(address)) return false;
  const { searchParams, pathname } = new URL(address);
  const parts = [...searchParams.values(), ...pathname.split("/").map(decodedQuery), decodedQuery(pathname)];
  return parts.includes(value) || (value.length >= LONG_ENOUGH && decodedQuery(address).includes(value));
}

/** True when an address was met before on the way, fragments aside. */
export function cameBack(hops: readonly TraceHop[], address: string): boolean {
  const key = compareKey(address);
  return hops.some((hop) => compareKey(hop.address) === key);
}
