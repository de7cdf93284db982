import { useQuery } from "@tanstack/react-query";
import type { RouteKind } from "../../../core/routes/choices.ts";
import type { Site } from "../../../core/sites/site.ts";
import { entriesOf } from "../../../ui/choose/options.ts";
import { AreaField } from "../../../ui/form/fields.tsx";
import { LiveForm } from "../../../ui/form/LiveForm.tsx";
import { useLiveForm } from "../../../ui/form/use-live-form.ts";
import { useDebounced } from "../../../ui/keys/use-debounced.ts";
import { EVERY_HOST, type RouteFormValues } from "./form-values.ts";
import { asking } from "../../../ui/client/queries.ts";
import { messageOf, ApiProblem } from "../../../ui/client/api.ts";
import * as say from "../words.ts";

/** A list of addresses, and where each would end if the route were saved as it stands in the form. */
export function RouteBench(props: { site: Site; kind: RouteKind; id?: string; values: RouteFormValues }) {
  const { site, kind, id, values } = props;
  // In a form of its own: what is tried is no part of the route.
  const form = useLiveForm({ values: { tries: "" } });
  const text = form.watch("tries");
  const question = useDebounced(
    JSON.stringify({
      id,
      kind,
      match: values.match,
      address: values.address,
      host: values.host === EVERY_HOST ? null : values.host,
      destination: values.destination,
      status: Number(values.status),
      query: values.query,
      parameters: values.parameters,
      tries: entriesOf(text, /\n/),
    }),
    250,
  );
  const tried = useQuery({
    ...asking("POST /sites/:site/routes/try", { site: site.id, body: JSON.parse(question) }),
    enabled: text.trim() !== "" && values.address.trim().length > 0,
    placeholderData: (previous) => previous,
    retry: false,
  });
  return (
    <div className="rounded border border-line bg-paper p-2">
      <LiveForm of={form}>
        <AreaField
          name="tries"
          label={say.tryItBeforeItIsSaved}
          mono
          rows={3}
          placeholder={say.blog2019EyepiecesBlogFirstNightFrom}
          error={tried.isError ? benchFault(tried.error) : undefined}
        />
      </LiveForm>
      {text.trim() !== "" && tried.data ? (
        <ul aria-label={say.whereTheyWouldEnd} className="mt-1 grid gap-1 text-sm">
          {tried.data.results.map((one) => (
            <li key={one.address} className="grid grid-cols-[1.4rem_minmax(0,1fr)]">
              <span aria-hidden className={one.answered ? "text-good" : "text-quiet"}>
                {one.answered ? "●" : "○"}
              </span>
              <span className="min-w-0">
                <span className="font-mono wrap-anywhere">{one.address}</span>{" "}
                <span className="text-quiet">
                  {one.answered ? say.byThisRoute : say.notByThisRoute(one.by)}
                </span>
                <br />
                <span className={one.end === null || one.note === "nothing answers it" ? "text-bad" : ""}>
                  → <span className="font-mono wrap-anywhere">{one.end ?? "nowhere"}</span>
                  <span className="text-quiet">
                    {one.hops > 1 ? say.hops(one.hops) : ""}, {one.note}
                  </span>
                </span>
              </span>
            </li>
          ))}
        </ul>
      ) : null}
    </div>
  );
}

// What is wrong with the route itself is said at its field.
function benchFault(error: unknown): string {
  const isOfTheForm =
    error instanceof ApiProblem &&
    error.errors.length > 0 &&
    error.errors.every(({ path }) => !path.startsWith("tries"));
  return isOfTheForm ? say.nothingCanBeTriedUntilTheForm : messageOf(error);
}
