import { useCallback, useEffect, useState } from "react";
import type { FieldValues, Path, PathValue, UseFormReturn } from "react-hook-form";
import { dropKept, hasShapeOf, readKept, writeKept } from "./kept-typing.ts";
import { notify } from "../notices/notices.ts";
import * as say from "../words.ts";

/**
 * State of a form that outlives its tab: what is typed is in this browser's own store at once, until it is saved or
 * given up. It is brought back on what it was typed on (`base`, such as the version); where somebody has saved since, it
 * is offered. `forget` is for when it is saved.
 */
export function useKeptState<T>(
  key: string,
  base: string,
  initial: () => T,
): [T, (next: T | ((before: T) => T)) => void, () => void] {
  const [kept] = useState(() => keptFor<T>(key, base, initial()));
  const [state, setState] = useState<{ value: T; isTyped: boolean }>(() =>
    kept?.isSameBase ? { value: kept.value, isTyped: true } : { value: initial(), isTyped: false },
  );
  useEffect(() => {
    if (!kept) return;
    tellKept(key, kept.isSameBase, (isWanted) =>
      setState(isWanted ? { value: kept.value, isTyped: true } : { value: initial(), isTyped: false }),
    );
    // Told once, when the form opens.
  }, [key, kept]);
  useEffect(() => {
    if (state.isTyped) writeKept(key, base, state.value);
  }, [state, key, base]);
  const set = useCallback((next: T | ((before: T) => T)): void => {
    setState((before) => ({
      value: typeof next === "function" ? (next as (before: T) => T)(before.value) : next,
      isTyped: true,
    }));
  }, []);
  const forget = useCallback((): void => {
    dropKept(key);
    setState((before) => ({ ...before, isTyped: false }));
  }, [key]);
  return [state.value, set, forget];
}

/** The same for a form whose fields keep themselves, where `isKept`. Answers what forgets it. */
export function useKeptForm<T extends FieldValues>(
  form: UseFormReturn<T>,
  key: string,
  base: string,
  isKept = true,
): () => void {
  const { isDirty } = form.formState;
  useEffect(() => {
    if (!isKept) return;
    const fresh = form.getValues();
    const kept = keptFor<T>(key, base, fresh);
    const show = (values: T): void => {
      for (const name of Object.keys(fresh) as Path<T>[])
        if (JSON.stringify(values[name]) !== JSON.stringify(form.getValues(name)))
          form.setValue(name, values[name] as PathValue<T, Path<T>>, { shouldDirty: true });
    };
    if (!kept) return;
    if (kept.isSameBase) show(kept.value);
    tellKept(key, kept.isSameBase, (isWanted) => show(isWanted ? kept.value : fresh));
  }, [form, key, base, isKept]);
  useEffect(() => {
    if (!isDirty || !isKept) return;
    writeKept(key, base, form.getValues());
    const { unsubscribe } = form.watch((values) => writeKept(key, base, values));
    return unsubscribe;
  }, [form, key, base, isDirty, isKept]);
  return useCallback(() => dropKept(key), [key]);
}

function keptFor<T>(key: string, base: string, form: T): { value: T; isSameBase: boolean } | undefined {
  const kept = readKept(key);
  if (!kept || !hasShapeOf(kept.value, form)) return undefined;
  return { value: kept.value as T, isSameBase: kept.base === base };
}

function tellKept(key: string, isShown: boolean, show: (isWanted: boolean) => void): void {
  if (isShown)
    notify(say.restoredWhatWasTypedHereAndNot, {
      undo: () => {
        show(false);
        dropKept(key);
      },
    });
  else
    notify(say.thisWasChangedSinceYouTypedHere, {
      undo: () => show(true),
      undoWord: say.showMine,
    });
}
