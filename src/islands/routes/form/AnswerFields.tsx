import { useWatch } from "react-hook-form";
import { NOTICE_SECONDS, ROUTE_STATUSES, STATUS_WORDS } from "../../../core/routes/choices.ts";
import { SelectField, TextField } from "../../../ui/form/fields.tsx";
import type { RouteFormValues } from "./form-values.ts";
import { QUERY_WORDS } from "./query-words.ts";
import * as say from "../words.ts";

/** How a route answers: its status, its notice, and what becomes of the query. */
export function AnswerFields() {
  const [status, query, seconds] = useWatch<RouteFormValues, ["status", "query", "noticeSeconds"]>({
    name: ["status", "query", "noticeSeconds"],
  });
  return (
    <>
      <SelectField
        name="status"
        label={say.status}
        options={ROUTE_STATUSES.filter((one) => one !== 410).map((one) => [
          String(one),
          `${one === 200 ? "" : `${one}, `}${STATUS_WORDS[one]}`,
        ])}
      />
      {status === "200" ? (
        <div className="grid grid-cols-[6rem_minmax(0,1fr)] gap-2">
          <TextField name="noticeSeconds" label={say.seconds} inputMode="numeric" />
          <TextField
            name="noticeText"
            label={say.whatTheNoticeSays}
            hint={
              Number(seconds) < NOTICE_SECONDS
                ? say.inLessThanSecondsNotEverybodyCan(NOTICE_SECONDS)
                : undefined
            }
            placeholder={say.youAreLeavingUsForAPartners}
          />
        </div>
      ) : null}
      <div className="grid grid-cols-2 gap-2">
        <SelectField
          name="query"
          label={say.queryOfTheRequest}
          hint={query === "drop" ? undefined : say.campaignAndTrackingParametersArrive}
          options={Object.entries(QUERY_WORDS)}
        />
        <TextField name="parameters" label={say.parametersAdded} mono placeholder={say.fromBooklet} />
      </div>
    </>
  );
}
