import { withHost, withParameter } from "../../address/change-parts.ts";
import { compareKey } from "../../address/compare.ts";
import { hostOf } from "../../address/classify.ts";
import { decodedQuery } from "../../text/decoded.ts";
import { domainNames } from "../resolve/match.ts";
import type { Swap } from "./swap.ts";

/** An address after the swaps, and which of them changed it: their places in the set. */
export interface Swapped {
  address: string;
  by: number[];
}

/** Says what a link's address becomes; undefined where no swap is about it. */
export type SwapTable = (address: string) => Swapped | undefined;

/**
 * Makes a set of swaps ready. In their order, each acts on what the ones before it have left. Only web addresses and
 * paths of the site are looked at.
 */
export function swapTable(swaps: readonly Swap[]): SwapTable {
  const ready = swaps.flatMap((swap, at) => {
    const change = swap.enabled ? changeBy(swap) : undefined;
    return change ? [{ at, change }] : [];
  });
  return (address) => {
    if (ready.length === 0 || !/^(?:https?:)?\/\/|^\//i.test(address)) return undefined;
    let now: Taken = { address, key: undefined, host: undefined };
    const by: number[] = [];
    for (const { at, change } of ready) {
      const next = change(now);
      if (next === now.address) continue;
      by.push(at);
      now = { address: next, key: undefined, host: undefined };
    }
    return by.length === 0 || now.address === address ? undefined : { address: now.address, by };
  };
}

const tables = new WeakMap<readonly Swap[], SwapTable>();

/** The table of a set, made once for each. */
export function swapsOf(swaps: readonly Swap[]): SwapTable {
  const known = tables.get(swaps);
  if (known) return known;
  const made = swapTable(swaps);
  tables.set(swaps, made);
  return made;
}

/** An address with what has been found out of it: a page's links are asked about by a thousand swaps. */
interface Taken {
  address: string;
  key: string | undefined;
  host: string | undefined;
}

function keyOf(taken: Taken): string {
  return (taken.key ??= compareKey(taken.address));
}

function hostIn(taken: Taken): string {
  return (taken.host ??= /^(?:https?:)?\/\//i.test(taken.address) ? (hostOf(taken.address) ?? "") : "");
}

function changeBy(swap: Swap): (taken: Taken) => string {
  switch (swap.what) {
    case "address": {
      const sought = compareKey(swap.find);
      return (taken) => (keyOf(taken) === sought ? withHeading(swap.replace, taken.address) : taken.address);
    }
    case "host":
      return ({ address }) => withHost(address, swap.find, swap.replace);
    case "parameter": {
      const { name, find, replace, domains } = swap;
      const isThere = (taken: Taken): boolean =>
        domains.length === 0 || domainNames(hostIn(taken)).some((one) => domains.includes(one));
      return (taken) =>
        taken.address.includes("?") && isThere(taken) && says(taken.address, name, find)
          ? withParameter(taken.address, { name, value: replace, add: false })
          : taken.address;
    }
  }
}

// A link to a heading of the page leads to that heading of the page that stands in its place, unless it has one of its own.
function withHeading(to: string, address: string): string {
  const heading = address.indexOf("#");
  return heading === -1 || to.includes("#") ? to : to + address.slice(heading);
}

function says(address: string, name: string, value: string | null): boolean {
  const query = address.replace(/#.*/s, "").replace(/^[^?]*\??/s, "");
  return query.split("&").some((pair) => {
    const [written = "", ...rest] = pair.split("=");
    return decodedQuery(written) === name && (value === null || decodedQuery(rest.join("=")) === value);
  });
}
