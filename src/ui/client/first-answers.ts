import { takeWritten } from "../format/written.ts";
import { hydrate, type DehydratedState, type QueryClient } from "@tanstack/react-query";

/** The id of the element in which the first answers stand. */
export const FIRST_ANSWERS = "first-answers";

/** Takes up the answers that came with the screen, once; they count as asked for just now. */
export function takeFirstAnswers(queries: QueryClient): void {
  const element = document.getElementById(FIRST_ANSWERS);
  if (!element) return;
  element.remove();
  const { written, ...given } = JSON.parse(element.textContent) as DehydratedState & {
    written?: Record<string, string>;
  };
  takeWritten(written ?? {});
  // The server's clock may be another.
  const now = Date.now();
  for (const { state } of given.queries ?? []) state.dataUpdatedAt = now;
  hydrate(queries, given);
}
