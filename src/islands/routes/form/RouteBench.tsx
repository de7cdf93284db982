import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import type { RouteKind } from "../../../core/routes/route.ts";
import type { Site } from "../../../core/sites/site.ts";
import { useDebounced } from "../../../ui/keys/use-debounced.ts";
import { EVERY_HOST, type RouteFormValues } from "./form-values.ts";
import { asking } from "../../../ui/client/queries.ts";
import { messageOf, ApiProblem } from "../../../ui/client/api.ts";

/** A list of addresses, and where each would end if the route were saved as it stands in the form. */
export function RouteBench(props: { site: Site; kind: RouteKind; id?: string; values: RouteFormValues }) {
  const { site, kind, id, values } = props;
  const [text, setText] = useState("");
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
      tries: text
        .split(/\n/)
        .map((line) => line.trim())
        .filter(Boolean),
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
      <label htmlFor="bench-addresses" className="block text-sm font-medium">
        Try it before it is saved
      </label>
      <textarea
        id="bench-addresses"
        className="field mt-1 font-mono text-sm"
        rows={3}
        placeholder={"/blog/2019/eyepieces\n/blog/first-night?from=letter"}
        value={text}
        onChange={(event) => setText(event.target.value)}
      />
      {tried.isError ? <p className="text-sm text-bad">{benchFault(tried.error)}</p> : null}
      {text.trim() !== "" && tried.data ? (
        <ul aria-label="Where they would end" className="mt-1 grid gap-1 text-sm">
          {tried.data.results.map((one) => (
            <li key={one.address} className="grid grid-cols-[1.4rem_minmax(0,1fr)]">
              <span aria-hidden className={one.answered ? "text-good" : "text-quiet"}>
                {one.answered ? "●" : "○"}
              </span>
              <span className="min-w-0">
                <span className="font-mono break-all">{one.address}</span>{" "}
                <span className="text-quiet">
                  {one.answered ? "by this route" : `not by this route (${one.by})`}
                </span>
                <br />
                <span className={one.end === null || one.note === "nothing answers it" ? "text-bad" : ""}>
                  → <span className="font-mono break-all">{one.end ?? "nowhere"}</span>
                  <span className="text-quiet">
                    {one.hops > 1 ? `, ${one.hops} hops` : ""}, {one.note}
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
  return isOfTheForm ? "Nothing can be tried until the form is right." : messageOf(error);
}
