import { useEffect, useRef } from "react";
import {
  useForm,
  type DefaultValues,
  type FieldValues,
  type Resolver,
  type UseFormReturn,
} from "react-hook-form";

/**
 * A form without a button: what is typed is told at once, and what its owner makes of it, or somebody else, is shown.
 * With a resolver, what is wrong stands at its field as one types.
 */
export function useLiveForm<V extends FieldValues>(options: {
  values: V;
  /** Told all that stands in the fields, and which of them it is that changed. */
  onChange?: (values: V, changed: Partial<V>) => void;
  resolver?: Resolver<V>;
}): UseFormReturn<V> {
  const { values, onChange, resolver } = options;
  const form = useForm<V>({
    defaultValues: values as DefaultValues<V>,
    mode: "onChange",
    ...(resolver ? { resolver } : {}),
  });
  const shown = useRef(values);
  const tell = useRef(onChange);
  useEffect(() => {
    tell.current = onChange;
  });
  useEffect(() => {
    const { unsubscribe } = form.watch(() => {
      const typed = structuredClone(form.getValues());
      const before = shown.current;
      if (!isChanged(before, typed)) return;
      shown.current = typed;
      tell.current?.(typed, changedIn(before, typed));
    });
    return unsubscribe;
  }, [form]);
  const given = useRef(values);
  useEffect(() => {
    if (!isChanged(given.current, values)) return;
    given.current = values;
    if (!isChanged(shown.current, values)) return;
    shown.current = values;
    form.reset(values);
  });
  return form;
}

/** What of some fields is another in `after`, as it is there; a form's fields are the same from beginning to end. */
export function changedIn<V extends FieldValues>(before: V, after: V): Partial<V> {
  const names = Object.keys(before).filter(
    (name) => JSON.stringify(before[name]) !== JSON.stringify(after[name]),
  );
  return Object.fromEntries(names.map((name) => [name, after[name] as unknown])) as Partial<V>;
}

const isChanged = <V extends FieldValues>(before: V, after: V): boolean =>
  Object.keys(changedIn(before, after)).length > 0;
