import type { Swap } from "./swap.ts";

/** A swap as a sentence. */
export function swapSentence(swap: Swap): string {
  switch (swap.what) {
    case "address":
      return `Links to ${swap.find} lead to ${swap.replace}.`;
    case "host":
      return `Links to ${swap.find} lead to the same place on ${swap.replace}.`;
    case "parameter": {
      const where = swap.domains.length === 0 ? "" : ` of links to ${swap.domains.join(", ")}`;
      const what = swap.find === null ? `“${swap.name}”` : `“${swap.name}”, where it says “${swap.find}”,`;
      return swap.replace === null
        ? `The parameter ${what}${where} is left out.`
        : `The parameter ${what}${where} says “${swap.replace}”.`;
    }
  }
}
