import { useCallback, useEffect, useState } from "react";
import { tell } from "./notices.ts";

/**
 * State of a form that outlives its tab: what is typed is in this browser's own store at once, until it is saved or
 * given up, and is brought back on what it was typed on (`base`, such as the version). `forget` is for when it is saved.
 */
export function useKeptState<T>(
  key: string,
  base: string,
  initial: () => T,
): [T, (next: T | ((before: T) => T)) => void, () => void] {
  const storageKey = `maprope:typed:${key}`;
  const [state, setState] = useState<{ value: T; isTyped: boolean }>(() => {
    const kept = readKept<T>(storageKey, base);
    return kept === undefined ? { value: initial(), isTyped: false } : { value: kept, isTyped: true };
  });
  const [broughtBack] = useState(state.isTyped);
  useEffect(() => {
    if (!broughtBack) return;
    tell("Brought back what was typed here and not saved.", {
      undo: () => {
        dropKept(storageKey);
        setState({ value: initial(), isTyped: false });
      },
    });
    // Told once, when the form opens.
  }, [broughtBack, storageKey]);
  useEffect(() => {
    if (state.isTyped) writeKept(storageKey, base, state.value);
  }, [state, storageKey, base]);
  const set = useCallback((next: T | ((before: T) => T)): void => {
    setState((before) => ({
      value: typeof next === "function" ? (next as (before: T) => T)(before.value) : next,
      isTyped: true,
    }));
  }, []);
  const forget = useCallback((): void => {
    dropKept(storageKey);
    setState((before) => ({ ...before, isTyped: false }));
  }, [storageKey]);
  return [state.value, set, forget];
}

function readKept<T>(key: string, base: string): T | undefined {
  try {
    const kept = JSON.parse(localStorage.getItem(key) ?? "null") as { base: string; value: T } | null;
    return kept?.base === base ? kept.value : undefined;
  } catch {
    return undefined; // private windows of some browsers have no storage
  }
}

function writeKept(key: string, base: string, value: unknown): void {
  try {
    localStorage.setItem(key, JSON.stringify({ base, value }));
  } catch {
    // The form still holds it, for as long as it is open.
  }
}

function dropKept(key: string): void {
  try {
    localStorage.removeItem(key);
  } catch {
    // What could not be kept need not be dropped.
  }
}
