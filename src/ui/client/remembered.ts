import { useCallback, useSyncExternalStore } from "react";
import { readCookie, writeCookie } from "./cookies.ts";

const listeners = new Set<() => void>();

function subscribe(changed: () => void): () => void {
  listeners.add(changed);
  return () => listeners.delete(changed);
}

/** A choice of how something is looked at that this browser remembers, by its name; empty: none was made. */
export function useRemembered(name: string): [string, (value: string) => void] {
  const read = useCallback(() => readCookie(name), [name]);
  const value = useSyncExternalStore(subscribe, read, read);
  const set = useCallback(
    (next: string): void => {
      writeCookie(name, next);
      for (const changed of listeners) changed();
    },
    [name],
  );
  return [value, set];
}
