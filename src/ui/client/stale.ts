import { useSyncExternalStore } from "react";
import type { QueryClient } from "@tanstack/react-query";

/** Whether an answer, or a portion of a list, was made before the ledger had what was changed last. */
export function isStale(data: unknown): boolean {
  if (typeof data !== "object" || data === null) return false;
  if ("current" in data) return data.current === false;
  return "pages" in data && Array.isArray(data.pages) && data.pages.some(isStale);
}

/** Whether something on the screen is behind what was changed last. */
export function useStale(queries: QueryClient): boolean {
  const cache = queries.getQueryCache();
  return useSyncExternalStore(
    (changed) => cache.subscribe(changed),
    () => cache.getAll().some((query) => query.isActive() && isStale(query.state.data)),
    () => false,
  );
}
