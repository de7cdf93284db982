import { ownPlace } from "../../address/classify.ts";
import { MAX_HOPS } from "../../address/max-hops.ts";

/** What becomes of a request: it is sent on, or its route stands aside since it would lead back; undefined: it ends here. */
export type Step = { to: string } | "stands aside" | undefined;

/** A way that does not arrive as its author meant. */
export interface Circle {
  /** Whether it goes round for good, or one route would lead to the very address that was asked for. */
  kind: "round" | "stands aside";
  /** Path keys, from the one that shows it. */
  chain: string[];
}

/** Follows a place of a site; undefined when its way ends well. */
export function circleFrom(
  start: { host: string | null; key: string },
  hosts: readonly string[],
  step: (host: string | null, key: string) => Step,
): Circle | undefined {
  const chain: string[] = [];
  const seen = new Set<string>();
  let place: { host: string | null; key: string } | undefined = start;
  while (place) {
    chain.push(place.key);
    const name = `${place.host ?? ""} ${place.key}`;
    if (seen.has(name) || chain.length > MAX_HOPS) return { kind: "round", chain };
    seen.add(name);
    const next = step(place.host, place.key);
    if (next === "stands aside") return { kind: "stands aside", chain: [place.key] };
    place = next && ownPlace(next.to, hosts);
  }
  return undefined;
}

/** Of several, the first that goes round and the first that stands aside. */
export function firstOfEach(circles: readonly Circle[]): { round?: Circle; aside?: Circle } {
  return {
    round: circles.find(({ kind }) => kind === "round"),
    aside: circles.find(({ kind }) => kind === "stands aside"),
  };
}

/** The way in words, its first stations. */
export function chainInWords(chain: readonly string[]): string {
  return chain.slice(0, 3).join(", then ");
}
