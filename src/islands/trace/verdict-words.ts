import type { TraceVerdict } from "../../core/trace/trace.ts";

/** What each verdict is called on screen. */
export const VERDICT_WORDS: Readonly<Record<TraceVerdict, string>> = {
  fine: "arrives",
  chain: "a chain",
  loop: "a circle",
  "too-long": "too long",
  "not-found": "not found",
  gone: "gone",
  failing: "failing",
  unreachable: "unreachable",
  "lost-tracking": "tracking lost",
  "not-asked": "leaves the site",
  refused: "no address",
};

/** True for ways that nobody has to mend. */
export function isGood(verdict: TraceVerdict): boolean {
  return verdict === "fine" || verdict === "not-asked";
}
