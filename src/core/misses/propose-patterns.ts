import { pathKey } from "../address/path-key.ts";
import { literal } from "../text/literal.ts";
import { isProbe } from "./probe.ts";

/** A route that would answer many misses at once. */
export interface PatternProposal {
  host: string;
  address: string;
  match: "wildcard" | "pattern";
  destination: string;
  /** The missed addresses that it would answer. */
  answers: string[];
  /** How often they were asked for together. */
  times: number;
  reason: string;
}

interface Missed {
  host: string;
  address: string;
  times: number;
}

const FEWEST = 3;

/**
 * Proposes routes where many misses share a shape: the same parent, or the same path but for its numbers. The
 * destination is where most of them stand now, when the same last parts exist below another parent; else the
 * parent itself.
 */
export function proposePatterns(misses: readonly Missed[], known: Iterable<string>): PatternProposal[] {
  const people = misses.filter(({ address }) => !isProbe(address) && address !== "/");
  const paths = [...known];
  const byLast = new Map<string, string[]>();
  for (const path of paths) {
    const last = lastPart(path);
    byLast.set(last, [...(byLast.get(last) ?? []), parentOf(path)]);
  }
  const existing = new Set(paths.map(pathKey));
  const parents = [...grouped(people, ({ address }) => parentOf(address))]
    .filter(([, group]) => group.length >= FEWEST)
    .flatMap(([, group]) => fromParent(group, byLast, existing));
  const taken = new Set(parents.flatMap(({ host, answers }) => answers.map((address) => host + address)));
  const numbers = [...grouped(people, ({ address }) => address.replace(/\d+/g, "#"))]
    .filter(([shape]) => shape.includes("#"))
    .map(([, group]) => group.filter(({ host, address }) => !taken.has(host + address)))
    .filter((group) => group.length >= FEWEST)
    .flatMap((group) => fromNumbers(group, existing));
  return [...parents, ...numbers].sort((a, b) => b.times - a.times);
}

function fromParent(
  group: readonly Missed[],
  byLast: ReadonlyMap<string, readonly string[]>,
  existing: ReadonlySet<string>,
): PatternProposal[] {
  const parent = parentOf(group[0]!.address);
  const homes = new Map<string, number>();
  for (const { address } of group)
    for (const home of new Set(byLast.get(lastPart(address)) ?? []))
      homes.set(home, (homes.get(home) ?? 0) + 1);
  const [home, number] = [...homes].sort((a, b) => b[1] - a[1])[0] ?? ["", 0];
  if (number * 2 >= group.length && number > 1 && home !== parent) {
    return [
      proposal(
        group,
        "wildcard",
        `${slashed(parent)}*`,
        `${slashed(home)}$1`,
        `${number} of ${group.length} stand below ${home || "/"} now`,
      ),
    ];
  }
  if (parent === "" || !existing.has(parent)) return [];
  return [proposal(group, "wildcard", `${parent}/*`, parent, `all of them were asked for below ${parent}`)];
}

function fromNumbers(group: readonly Missed[], existing: ReadonlySet<string>): PatternProposal[] {
  const shape = group[0]!.address;
  const source = shape
    .split(/(\d+)/)
    .map((part, index) => (index % 2 === 1 ? "(\\d+)" : literal(part)))
    .join("");
  let parent = shape.slice(0, shape.search(/\d/));
  parent = parent.slice(0, parent.lastIndexOf("/"));
  while (parent !== "" && !existing.has(parent)) parent = parentOf(parent);
  return [proposal(group, "pattern", source, parent || "/", "they differ only in their numbers")];
}

function proposal(
  group: readonly Missed[],
  match: PatternProposal["match"],
  address: string,
  destination: string,
  reason: string,
): PatternProposal {
  return {
    host: group[0]!.host,
    match,
    address,
    destination,
    answers: group.map((miss) => miss.address),
    times: group.reduce((sum, { times }) => sum + times, 0),
    reason,
  };
}

function* grouped(misses: readonly Missed[], shape: (miss: Missed) => string): Generator<[string, Missed[]]> {
  const groups = new Map<string, Missed[]>();
  for (const miss of misses) {
    const key = `${miss.host}\n${shape(miss)}`;
    groups.set(key, [...(groups.get(key) ?? []), miss]);
  }
  for (const [key, group] of groups) yield [key.slice(key.indexOf("\n") + 1), group];
}

function parentOf(path: string): string {
  return path.slice(0, path.lastIndexOf("/"));
}

function lastPart(path: string): string {
  return path.slice(path.lastIndexOf("/") + 1).toLowerCase();
}

function slashed(parent: string): string {
  return `${parent}/`;
}
