import { before } from "../../text/cut.ts";
import { withPath } from "../../address/with-path.ts";
import { compareKey } from "../../address/compare.ts";
import { MAX_HOPS } from "../../address/max-hops.ts";
import { location } from "./location.ts";
import { answerOf, type OwnAnswer, type OwnSite, type SpellingAnswer } from "./own-site.ts";

/** One hop of a trace that our own site answered. */
export interface OwnHop {
  /** The full address that was asked for. */
  address: string;
  answer: OwnAnswer | SpellingAnswer;
}

/** The way of an address through our own site: `next` is where it leaves it, or null when it ends here. */
export interface OwnWay {
  hops: OwnHop[];
  next: string | null;
  /** Set when the way does not end: it came back to an address, or went on for too long. */
  endless: "loop" | "too-long" | undefined;
}

/** Follows an address hop by hop for as long as the site itself answers, as a reader's browser would. */
export function followOwn(address: string, site: OwnSite): OwnWay {
  const hops: OwnHop[] = [];
  const seen = new Set<string>();
  let current = address.startsWith("/") ? site.absolute(address) : address;
  for (;;) {
    const answer = answerOf(current, site);
    if (!answer) return { hops, next: current, endless: undefined };
    // Spellings of one path are one address, and lead to one of them at once.
    const here = `${answer.by === "spelling" ? "=" : ""}${compareKey(current)}`;
    if (seen.has(here)) return { hops, next: null, endless: "loop" };
    seen.add(here);
    hops.push({ address: current, answer });
    const next = nextOf(current, answer);
    if (next === null) return { hops, next: null, endless: undefined };
    if (hops.length > MAX_HOPS) return { hops, next: null, endless: "too-long" };
    current = next.startsWith("/") ? site.absolute(next) : next;
  }
}

function nextOf(address: string, answer: OwnHop["answer"]): string | null {
  if (answer.by === "miss" || answer.by === "elsewhere") return answer.destination;
  if (answer.by === "spelling") return withPath(address, answer.destination);
  if (answer.by !== "route" || answer.destination === null) return null;
  const mark = address.indexOf("?");
  const query = mark === -1 ? "" : before(address.slice(mark + 1), "#");
  return location(answer.destination, answer.query, query);
}
