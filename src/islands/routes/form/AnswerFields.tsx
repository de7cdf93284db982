import { useFormContext, useWatch } from "react-hook-form";
import { ROUTE_STATUSES, STATUS_WORDS } from "../../../core/routes/route.ts";
import { FieldRow } from "../../../ui/fields/FieldRow.tsx";
import type { RouteFormValues } from "./form-values.ts";

const QUERY_WORDS = {
  drop: "left off",
  forward: "handed on",
  merge: "handed on, the destination's own kept",
} as const;

/** How a route answers: its status, its notice, and what becomes of the query. */
export function AnswerFields() {
  const { register, control, formState } = useFormContext<RouteFormValues>();
  const [status, query] = useWatch({ control, name: ["status", "query"] });
  const { errors } = formState;
  return (
    <>
      <FieldRow label="Answers with" error={errors.status?.message}>
        {(attributes) => (
          <select {...attributes} {...register("status")} className="field">
            {ROUTE_STATUSES.filter((one) => one !== 410).map((one) => (
              <option key={one} value={one}>
                {one === 200 ? "" : `${one}, `}
                {STATUS_WORDS[one]}
              </option>
            ))}
          </select>
        )}
      </FieldRow>
      {status === "200" ? (
        <div className="grid grid-cols-[6rem_minmax(0,1fr)] gap-2">
          <FieldRow label="Seconds" error={errors.noticeSeconds?.message}>
            {(attributes) => (
              <input
                {...attributes}
                {...register("noticeSeconds")}
                type="number"
                min={1}
                max={60}
                className="field"
              />
            )}
          </FieldRow>
          <FieldRow label="What the notice says" error={errors.noticeText?.message}>
            {(attributes) => (
              <input
                {...attributes}
                {...register("noticeText")}
                className="field"
                placeholder="You are leaving us for a partner's shop."
              />
            )}
          </FieldRow>
        </div>
      ) : null}
      <div className="grid grid-cols-2 gap-2">
        <FieldRow
          label="What stands behind ? is"
          hint={query === "drop" ? undefined : "Campaign and tracking parameters arrive."}
        >
          {(attributes) => (
            <select {...attributes} {...register("query")} className="field">
              {Object.entries(QUERY_WORDS).map(([mode, word]) => (
                <option key={mode} value={mode}>
                  {word}
                </option>
              ))}
            </select>
          )}
        </FieldRow>
        <FieldRow label="Always added" error={errors.parameters?.message}>
          {(attributes) => (
            <input
              {...attributes}
              {...register("parameters")}
              className="field font-mono text-sm"
              placeholder="from=booklet"
            />
          )}
        </FieldRow>
      </div>
    </>
  );
}
