import { useFormContext, useWatch } from "react-hook-form";
import type { RouteKind } from "../../../core/routes/choices.ts";
import { MomentField, SelectField, TextField } from "../../../ui/form/fields.tsx";
import type { RouteFormValues } from "./form-values.ts";
import * as say from "../words.ts";

const AFTER_WORDS = {
  nothing: say.whatTheSiteHasAtThatAddress,
  gone: "gone (410)",
  destination: say.anotherDestination,
} as const;

/** From when until when a route answers, and what follows. */
export function WhenFields({ kind }: { kind: RouteKind }) {
  const { control, formState } = useFormContext<RouteFormValues>();
  const { validFrom, validUntil, afterEnd } = useWatch({ control }) as RouteFormValues;
  const { dirtyFields } = formState;
  const open = Boolean(validFrom || validUntil || dirtyFields.validFrom || dirtyFields.validUntil);
  return (
    <details className="text-sm" open={open}>
      <summary className="text-quiet">{say.fromWhenUntilWhen}</summary>
      <div className="mt-2 grid gap-3">
        <div className="grid grid-cols-2 gap-2">
          <MomentField name="validFrom" label={say.from} />
          <MomentField name="validUntil" label={say.until} />
        </div>
        {validUntil && kind !== "gone" ? (
          <SelectField name="afterEnd" label={say.whenItEnds} options={Object.entries(AFTER_WORDS)} />
        ) : null}
        {validUntil && afterEnd === "destination" ? (
          <TextField name="endDestination" label={say.thenItLeadsTo} mono />
        ) : null}
      </div>
    </details>
  );
}
