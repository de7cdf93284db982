import { useId, type ReactNode } from "react";

/** A labelled field with its message below; gives the control its id and the ids that describe it. */
export function FieldRow(props: {
  label: string;
  isLabelHidden?: boolean | undefined;
  error?: string;
  hint?: ReactNode;
  children: (attributes: { id: string; "aria-describedby"?: string; "aria-invalid"?: true }) => ReactNode;
}) {
  const id = useId();
  const describes = props.error || props.hint ? `${id}-note` : undefined;
  return (
    <div>
      <label htmlFor={id} className={props.isLabelHidden ? "sr-only" : "mb-0.5 block text-sm font-medium"}>
        {props.label}
      </label>
      {props.children({
        id,
        "aria-describedby": describes,
        ...(props.error ? { "aria-invalid": true as const } : {}),
      })}
      {describes ? (
        <div id={describes} className={`mt-1 text-sm ${props.error ? "text-bad" : "text-quiet"}`}>
          {props.error ?? props.hint}
        </div>
      ) : null}
    </div>
  );
}
