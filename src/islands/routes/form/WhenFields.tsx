import { useFormContext, useWatch } from "react-hook-form";
import type { RouteKind } from "../../../core/routes/choices.ts";
import { SelectField, TextField } from "../../../ui/form/fields.tsx";
import type { RouteFormValues } from "./form-values.ts";

const AFTER_WORDS = {
  nothing: "what the site has at that address",
  gone: "gone (410)",
  destination: "another destination",
} as const;

/** From when until when a route answers, and what follows. */
export function WhenFields({ kind }: { kind: RouteKind }) {
  const { control, formState } = useFormContext<RouteFormValues>();
  const { validFrom, validUntil, afterEnd } = useWatch({ control }) as RouteFormValues;
  const { dirtyFields } = formState;
  const open = Boolean(validFrom || validUntil || dirtyFields.validFrom || dirtyFields.validUntil);
  return (
    <details className="text-sm" open={open}>
      <summary className="text-quiet">From when, until when</summary>
      <div className="mt-2 grid gap-3">
        <div className="grid grid-cols-2 gap-2">
          <TextField name="validFrom" label="From" type="datetime-local" />
          <TextField name="validUntil" label="Until" type="datetime-local" />
        </div>
        {validUntil && kind !== "gone" ? (
          <SelectField name="afterEnd" label="When it ends" options={Object.entries(AFTER_WORDS)} />
        ) : null}
        {validUntil && afterEnd === "destination" ? (
          <TextField name="endDestination" label="Then it leads to" mono />
        ) : null}
      </div>
    </details>
  );
}
