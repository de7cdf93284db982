import type { QueryMode } from "../../../core/routes/choices.ts";

/** What becomes of the query that readers bring along, in words. */
export const QUERY_WORDS: Readonly<Record<QueryMode, string>> = {
  drop: "dropped",
  forward: "passed on",
  merge: "passed on; the destination's own values win",
};
