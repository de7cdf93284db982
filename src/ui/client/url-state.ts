import { useCallback, useSyncExternalStore } from "react";
import { screenAddress } from "../frame/frame.ts";

const CHANGED = "maprope:address";

/** One parameter of the screen's address, as state: a view can be shared, and Back works. Empty takes it out. */
export function useAddressState(name: string): [string, (value: string) => void] {
  const read = useCallback(() => new URLSearchParams(screenAddress().search).get(name) ?? "", [name]);
  const value = useSyncExternalStore(subscribe, read, read);
  const set = useCallback((next: string) => setAddressState({ [name]: next }), [name]);
  return [value, set];
}

/** Sets several parameters at once. */
export function setAddressState(values: Readonly<Record<string, string>>): void {
  const url = new URL(location.href);
  for (const [name, value] of Object.entries(values)) {
    if (value === "") url.searchParams.delete(name);
    else url.searchParams.set(name, value);
  }
  history.replaceState(null, "", url);
  dispatchEvent(new Event(CHANGED));
}

function subscribe(changed: () => void): () => void {
  addEventListener("popstate", changed);
  addEventListener(CHANGED, changed);
  return () => {
    removeEventListener("popstate", changed);
    removeEventListener(CHANGED, changed);
  };
}

const query = (): string => screenAddress().search;

/** The whole query of the screen's address, as state. */
export function useAddress(): string {
  return useSyncExternalStore(subscribe, query, query);
}
