import { useSyncExternalStore } from "react";

/** The width below which the rows of a table are read downwards (tokens.css, “stacking”). */
const NARROW = "(width < 40rem)";

function subscribe(changed: () => void): () => void {
  const query = matchMedia(NARROW);
  query.addEventListener("change", changed);
  return () => query.removeEventListener("change", changed);
}

/** Whether the window is so narrow, followed as it changes. */
export function useNarrow(): boolean {
  return useSyncExternalStore(
    subscribe,
    () => matchMedia(NARROW).matches,
    () => false,
  );
}
