import { useEffect, useRef, type SyntheticEvent } from "react";
import {
  useForm,
  type DefaultValues,
  type FieldValues,
  type Path,
  type Resolver,
  type UseFormReturn,
} from "react-hook-form";
import { ApiProblem, messageOf } from "../client/api.ts";
import { useKeptForm } from "../client/kept-state.ts";
import { fieldNames, placeErrors } from "./place-errors.ts";
import * as say from "../words.ts";

/** A form and how it is saved. */
export interface SavedForm<V extends FieldValues> extends UseFormReturn<V> {
  submit(event?: SyntheticEvent): void;
  isSaving: boolean;
  /** What is said of none of its fields. */
  fault: string | undefined;
}

/**
 * A form that saves by a call of the API. What the call's schema refuses stands at its field, the first of them has the
 * focus, and nothing typed is lost. With `kept`, what is typed outlives the tab until it is saved.
 */
export function useSavedForm<V extends FieldValues, R>(options: {
  values: V;
  save: (values: V) => Promise<R>;
  onSaved?: (answer: R, form: UseFormReturn<V>) => void;
  onRefused?: (error: unknown) => void;
  /** Where the form keeps what the API names by a path of its own. */
  fieldOf?: (path: string) => string;
  /** What the form says of itself before it asks. */
  resolver?: Resolver<V>;
  /** It says so while one types, not only when it is to be saved. */
  isLive?: boolean;
  kept?: { key: string; base: string };
}): SavedForm<V> {
  const { values, resolver, kept } = options;
  const form = useForm<V>({
    defaultValues: values as DefaultValues<V>,
    mode: options.isLive ? "onChange" : "onSubmit",
    ...(resolver ? { resolver } : {}),
  });
  const forget = useKeptForm(form, kept?.key ?? "", kept?.base ?? "", kept !== undefined);
  const { errors, isSubmitting } = form.formState;
  const latest = useRef(options);
  useEffect(() => {
    latest.current = options;
  });
  const save = form.handleSubmit(async (entered) => {
    const { save: send, onSaved, onRefused, fieldOf } = latest.current;
    try {
      const answer = await send(entered);
      if (kept) forget();
      onSaved?.(answer, form);
    } catch (error) {
      onRefused?.(error);
      const told = error instanceof ApiProblem ? error.errors : [];
      const { atFields, elsewhere } = placeErrors(told, fieldNames(form.getValues()), fieldOf);
      for (const [at, { name, message }] of atFields.entries())
        form.setError(name as Path<V>, { message }, { shouldFocus: at === 0 });
      const atEnd = atFields.length > 0 ? say.somethingAboveIsToBeCorrected : messageOf(error);
      form.setError("root", { message: elsewhere.join(" ") || atEnd });
    }
  });
  return Object.assign(form, {
    submit(event?: SyntheticEvent) {
      // What the server said of the last try is said anew, or is not so any more: also of what is no field of its own.
      form.clearErrors();
      void save(event);
    },
    isSaving: isSubmitting,
    fault: errors.root?.message,
  });
}
