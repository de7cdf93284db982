import type { ReactNode } from "react";
import { FormProvider, type FieldValues } from "react-hook-form";
import type { Role } from "../../core/people/choices.ts";
import { mayHere } from "../client/rights.ts";
import type { SavedForm } from "./use-saved-form.ts";

/** A form of fields; what is wrong with it as a whole is told at its end. */
export function Form<V extends FieldValues>(props: {
  of: SavedForm<V>;
  /** What the form is for, for who hears it. */
  label?: string;
  className?: string;
  /** The least role that may send it: for others its fields only tell, and nothing saves. */
  needs?: Role;
  /** It is sent while a site rests, too. */
  evenAtRest?: boolean;
  children: ReactNode;
  /** What stands behind its fields and what is wrong: its buttons. */
  actions?: ReactNode;
}) {
  const { of: form, label, className = "grid gap-3", needs = "reader", evenAtRest = false } = props;
  const isLocked = !mayHere({ role: needs, evenAtRest });
  const parts = (
    <>
      {props.children}
      {form.fault ? (
        <p role="alert" className="basis-full text-bad">
          {form.fault}
        </p>
      ) : null}
      {props.actions}
    </>
  );
  return (
    <FormProvider {...form}>
      <form aria-label={label} className={className} noValidate onSubmit={form.submit}>
        {isLocked ? (
          <fieldset disabled data-locked className="contents">
            {parts}
          </fieldset>
        ) : (
          parts
        )}
      </form>
    </FormProvider>
  );
}

/** The button that saves a form; it waits while that is done. */
export function SaveButton(props: {
  of: { isSaving: boolean };
  /** It is one of several things to do, not the main one. */
  isPlain?: boolean;
  disabled?: boolean;
  className?: string;
  children: ReactNode;
}) {
  return (
    <button
      type="submit"
      className={`action ${props.isPlain ? "" : "action-main"} ${props.className ?? ""}`}
      disabled={props.of.isSaving || props.disabled}
    >
      {props.children}
    </button>
  );
}
