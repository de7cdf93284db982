import { useMutation, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import type { Site } from "../../../core/sites/site.ts";
import { copyText } from "../../../ui/keys/copy.ts";
import { notify } from "../../../ui/notices/notices.ts";
import { useDebounced } from "../../../ui/keys/use-debounced.ts";
import { shortHome } from "../form/use-route-check.ts";
import { refreshRoutes } from "../use-routes.ts";
import { asking } from "../../../ui/client/queries.ts";
import { api, messageOf } from "../../../ui/client/api.ts";

/** A pasted list of addresses, a short link for each: seen before any is made. */
export function ShortenMany({ site }: { site: Site }) {
  const [text, setText] = useState("");
  const home = shortHome(site);
  const host = home.host ?? site.hosts.find(({ role }) => role === "primary")!.name;
  const settled = useDebounced(text, 300);
  const plan = useQuery({
    ...asking("POST /sites/:site/routes/shorten", {
      site: site.id,
      body: { text: settled, host, dryRun: true },
    }),
    enabled: settled.trim() !== "",
    placeholderData: (previous) => previous,
    retry: false,
  });
  const make = useMutation({
    mutationFn: () => api("POST /sites/:site/routes/shorten", { site: site.id, body: { text, host } }),
    onSuccess: ({ lines }) => {
      refreshRoutes();
      const made = lines.flatMap(({ state, route }) => (state === "new" && route ? [route] : []));
      notify(`Made ${made.length} short links`);
    },
  });
  const answer = make.data ?? (text.trim() === "" ? undefined : plan.data);
  const fresh = answer?.lines.filter(({ state }) => state === "new") ?? [];
  return (
    <section aria-labelledby="shorten">
      <h2 id="shorten" className="mb-1 font-semibold">
        Shorten a list
      </h2>
      <form
        className="grid gap-2"
        onSubmit={(event) => {
          event.preventDefault();
          make.mutate();
        }}
      >
        <label htmlFor="shorten-list" className="text-sm text-quiet">
          One address a line; behind it, if you like, the slug and a title
        </label>
        <textarea
          id="shorten-list"
          className="field font-mono text-sm"
          rows={5}
          value={text}
          onChange={(event) => {
            setText(event.target.value);
            make.reset();
          }}
        />
        {plan.isError ? <p className="text-bad">{messageOf(plan.error)}</p> : null}
        {make.isError ? <p className="text-bad">{messageOf(make.error)}</p> : null}
        {make.data ? (
          <button
            type="button"
            className="action justify-self-start"
            onClick={() =>
              void copyText((make.data?.lines ?? []).flatMap(({ route }) => route?.url ?? []).join("\n"))
            }
          >
            Copy all of them
          </button>
        ) : (
          <button
            className="action action-main justify-self-start"
            disabled={fresh.length === 0 || make.isPending}
          >
            Make {fresh.length > 0 ? fresh.length : ""} short {fresh.length === 1 ? "link" : "links"}
          </button>
        )}
      </form>
      {answer ? (
        <table className="mt-3 w-full text-left text-sm">
          <thead className="text-quiet">
            <tr className="border-b border-line">
              {["Line", "Short address", "Leads to", ""].map((word) => (
                <th key={word} scope="col" className="py-1 pr-3 font-medium">
                  {word}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {answer.lines.map((one) => (
              <tr key={one.line} className="border-b border-line/60 align-top">
                <td className="py-1 pr-3 tabular-nums">{one.line}</td>
                <td className="pr-3 font-mono font-semibold whitespace-nowrap">{one.address ?? "—"}</td>
                <td className="pr-3 font-mono break-all">{one.destination ?? one.pasted}</td>
                <td
                  className={
                    one.state === "refused"
                      ? "text-bad"
                      : one.state === "existing"
                        ? "text-warn"
                        : "text-good"
                  }
                >
                  {one.message}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      ) : null}
    </section>
  );
}
