import type { ReactNode } from "react";
import { get, useFormContext } from "react-hook-form";
import { FieldRow } from "../fields/FieldRow.tsx";

/** What every field of a form has. */
export interface FieldProps {
  name: string;
  label: string;
  /** Where a form stands in one line, the label is there for those who hear it. */
  isLabelHidden?: boolean | undefined;
  hint?: ReactNode;
  /** What is wrong besides what the form says of it. */
  error?: string | undefined;
  className?: string;
}

/** The row of a field, with what the form says of it. */
export function Row({
  name,
  label,
  isLabelHidden,
  hint,
  error,
  children,
}: Omit<FieldProps, "className"> & Pick<Parameters<typeof FieldRow>[0], "children">) {
  const { errors } = useFormContext().formState;
  const said = messageIn(get(errors, name));
  return (
    <FieldRow label={label} isLabelHidden={isLabelHidden} hint={hint} error={said ?? error}>
      {children}
    </FieldRow>
  );
}

/** The message of an error as a form keeps it; what is wrong with one entry of a list stands at the list. */
export function messageIn(error: unknown): string | undefined {
  if (typeof error !== "object" || error === null) return undefined;
  const { message } = error as { message?: unknown };
  if (typeof message === "string") return message;
  return Array.isArray(error) ? error.map(messageIn).find((one) => one !== undefined) : undefined;
}
