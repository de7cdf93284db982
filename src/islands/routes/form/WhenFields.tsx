import { useFormContext, useWatch } from "react-hook-form";
import type { RouteKind } from "../../../core/routes/route.ts";
import { FieldRow } from "../../../ui/fields/FieldRow.tsx";
import type { RouteFormValues } from "./form-values.ts";

const AFTER_WORDS = {
  nothing: "as if it were not there",
  gone: "gone (410)",
  destination: "another destination",
} as const;

/** From when until when a route answers, and what follows. */
export function WhenFields({ kind }: { kind: RouteKind }) {
  const { register, control, formState } = useFormContext<RouteFormValues>();
  const { validFrom, validUntil, afterEnd } = useWatch({ control }) as RouteFormValues;
  const { errors, dirtyFields } = formState;
  const open = Boolean(validFrom || validUntil || dirtyFields.validFrom || dirtyFields.validUntil);
  return (
    <details className="text-sm" open={open}>
      <summary className="text-quiet">From when, until when</summary>
      <div className="mt-2 grid gap-3">
        <div className="grid grid-cols-2 gap-2">
          <FieldRow label="From" error={errors.validFrom?.message}>
            {(attributes) => (
              <input {...attributes} {...register("validFrom")} type="datetime-local" className="field" />
            )}
          </FieldRow>
          <FieldRow label="Until" error={errors.validUntil?.message}>
            {(attributes) => (
              <input {...attributes} {...register("validUntil")} type="datetime-local" className="field" />
            )}
          </FieldRow>
        </div>
        {validUntil && kind !== "gone" ? (
          <FieldRow label="Afterwards it is">
            {(attributes) => (
              <select {...attributes} {...register("afterEnd")} className="field">
                {Object.entries(AFTER_WORDS).map(([value, word]) => (
                  <option key={value} value={value}>
                    {word}
                  </option>
                ))}
              </select>
            )}
          </FieldRow>
        ) : null}
        {validUntil && afterEnd === "destination" ? (
          <FieldRow label="Then it leads to" error={errors.endDestination?.message}>
            {(attributes) => (
              <input {...attributes} {...register("endDestination")} className="field font-mono text-sm" />
            )}
          </FieldRow>
        ) : null}
      </div>
    </details>
  );
}
