import type { InputHTMLAttributes, ReactNode, TextareaHTMLAttributes } from "react";
import { useController, useFormContext } from "react-hook-form";
import { Choice } from "../fields/Choice.tsx";
import { DayInput } from "../fields/DayInput.tsx";
import { MomentInput } from "../fields/MomentInput.tsx";
import { Select } from "../fields/Select.tsx";
import { localeOf } from "../format/format.ts";
import { frameData } from "../frame/frame.ts";
import { useTakenOver } from "../frame/later.tsx";
import { Toggle } from "../fields/Toggle.tsx";
import * as say from "../words.ts";
import { Row, type FieldProps } from "./Row.tsx";

/** One line of text; `mono` for addresses and the like. */
export function TextField({
  name,
  label,
  isLabelHidden,
  hint,
  error,
  mono,
  className,
  onBlur,
  ...more
}: FieldProps & { mono?: boolean } & InputHTMLAttributes<HTMLInputElement>) {
  const { register } = useFormContext();
  const isTakenOver = useTakenOver();
  return (
    <Row {...{ name, label, isLabelHidden, hint, error }}>
      {(attributes) => (
        <input
          {...attributes}
          {...more}
          readOnly={more.readOnly || !isTakenOver}
          {...register(name, {
            ...(more.type === "number" ? { valueAsNumber: true } : {}),
            ...(onBlur ? { onBlur } : {}),
          })}
          className={`field ${mono ? "font-mono text-sm" : ""} ${className ?? ""}`}
        />
      )}
    </Row>
  );
}

/** A day. */
export function DayField({ name, label, hint, error, className }: FieldProps) {
  const { field } = useController({ name });
  return (
    <Row name={name} label={label} hint={hint} error={error}>
      {(attributes) => (
        <DayInput
          ref={field.ref}
          attributes={attributes}
          label={label}
          className={className ?? "w-full"}
          value={field.value ?? ""}
          onChange={field.onChange}
        />
      )}
    </Row>
  );
}

/** A day and a time on it, by the site's clocks. */
export function MomentField({ name, label, hint, error, className }: FieldProps) {
  const { field } = useController({ name });
  const { timeZone } = localeOf(frameData());
  return (
    <Row name={name} label={label} hint={hint ?? (timeZone && say.byTheClocksOf(timeZone))} error={error}>
      {(attributes) => (
        <MomentInput
          ref={field.ref}
          attributes={attributes}
          label={label}
          className={className}
          value={field.value ?? ""}
          onChange={field.onChange}
        />
      )}
    </Row>
  );
}

/** Several lines of text. */
export function AreaField({
  name,
  label,
  hint,
  error,
  mono,
  className,
  ...more
}: FieldProps & { mono?: boolean } & TextareaHTMLAttributes<HTMLTextAreaElement>) {
  const { register } = useFormContext();
  const isTakenOver = useTakenOver();
  return (
    <Row name={name} label={label} hint={hint} error={error}>
      {(attributes) => (
        <textarea
          {...attributes}
          {...more}
          readOnly={more.readOnly || !isTakenOver}
          {...register(name)}
          className={`field ${mono ? "font-mono text-sm" : ""} ${className ?? ""}`}
        />
      )}
    </Row>
  );
}

/** One of a list that is short enough to be looked through. */
export function SelectField({
  name,
  label,
  hint,
  error,
  className,
  options,
}: FieldProps & { options: readonly (readonly [value: string, word: string])[] }) {
  const { register } = useFormContext();
  return (
    <Row name={name} label={label} hint={hint} error={error}>
      {(attributes) => <Select {...attributes} {...register(name)} className={className} options={options} />}
    </Row>
  );
}

/** Something that is so or not. */
export function CheckField({ name, children }: { name: string; children: ReactNode }) {
  const { register } = useFormContext();
  return (
    <label className="flex items-center gap-1.5 text-sm">
      <input type="checkbox" {...register(name)} /> {children}
    </label>
  );
}

/** Something that is on or off, with a sentence beside it. */
export function ToggleField({ name, label, children }: { name: string; label: string; children: ReactNode }) {
  const { field } = useController({ name });
  return (
    <p className="flex items-center gap-2 text-sm">
      <Toggle label={label} on={field.value === true} disabled={false} onChange={field.onChange} />
      {children}
    </p>
  );
}

/** One of a few, each with a line of what it means. */
export function RadioField(props: {
  name: string;
  legend: string;
  options: readonly { value: string; word: string; what: string }[];
}) {
  const { register } = useFormContext();
  return (
    <fieldset className="grid gap-2">
      <legend className="mb-1 font-semibold">{props.legend}</legend>
      {props.options.map(({ value, word, what }) => (
        <label key={value} className="grid grid-cols-[1.7rem_minmax(0,1fr)]">
          <input
            type="radio"
            value={value}
            className="mt-1 size-4 justify-self-start"
            {...register(props.name)}
          />
          <span>
            {word} <span className="block text-sm text-quiet">{what}</span>
          </span>
        </label>
      ))}
    </fieldset>
  );
}

/** One of a few words side by side. */
export function ChoiceField<T extends string>(props: {
  name: string;
  label: string;
  options: readonly { value: T; word: string }[];
}) {
  const { field } = useController({ name: props.name });
  return (
    <Choice label={props.label} value={field.value as T} options={props.options} onChange={field.onChange} />
  );
}
