import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import type { Site } from "../../../core/sites/site.ts";
import { useDebounced } from "../../../ui/keys/use-debounced.ts";
import { asking } from "../../../ui/client/queries.ts";
import { messageOf } from "../../../ui/client/api.ts";

/** Searches and replaces in the destinations of the marked routes; every change is shown before it is made. */
export function Retarget(props: {
  site: Site;
  select: object;
  busy: boolean;
  onRun: (find: string, replace: string) => void;
}) {
  const { site, select } = props;
  const [find, setFind] = useState("");
  const [replace, setReplace] = useState("");
  const question = useDebounced(
    JSON.stringify({ ...select, action: { do: "retarget", find, replace }, dryRun: true }),
    250,
  );
  const preview = useQuery({
    ...asking("POST /sites/:site/routes/bulk", { site: site.id, body: JSON.parse(question) }),
    enabled: find !== "",
    placeholderData: (previous) => previous,
    retry: false,
  });
  const answer = find === "" ? undefined : preview.data;
  return (
    <form
      className="grid gap-2"
      aria-label="Change destinations"
      onSubmit={(event) => {
        event.preventDefault();
        if (answer && answer.changed > 0) props.onRun(find, replace);
      }}
    >
      <div className="flex flex-wrap items-center gap-2">
        <label className="flex items-center gap-1.5">
          In destinations, replace
          <input
            className="field w-60 py-0.5 font-mono text-sm"
            value={find}
            onChange={(event) => setFind(event.target.value)}
          />
        </label>
        <label className="flex items-center gap-1.5">
          with
          <input
            className="field w-60 py-0.5 font-mono text-sm"
            value={replace}
            onChange={(event) => setReplace(event.target.value)}
          />
        </label>
        <button
          className="action action-main py-0.5"
          disabled={!answer || answer.changed === 0 || props.busy}
        >
          {answer ? `Change ${answer.changed.toLocaleString("en-GB")}` : "Change"}
        </button>
      </div>
      {preview.isError ? <p className="text-sm text-bad">{messageOf(preview.error)}</p> : null}
      {answer ? (
        <ul aria-label="What would change" className="max-h-52 overflow-auto text-sm">
          {answer.samples.map(({ id, address, before, after }) => (
            <li key={id} className="border-b border-line/60 py-0.5">
              <span className="font-mono font-semibold">{address}</span>{" "}
              <del className="font-mono break-all text-bad no-underline">{before}</del>{" "}
              <ins className="font-mono break-all text-good no-underline">→ {after}</ins>
            </li>
          ))}
          {answer.refused.map(({ id, address, message }) => (
            <li key={id} className="py-0.5 text-warn">
              <span className="font-mono font-semibold">{address}</span> stays: {message}
            </li>
          ))}
          {answer.changed === 0 && answer.refused.length === 0 ? (
            <li className="text-quiet">None of the marked routes has “{find}” in its destination.</li>
          ) : null}
        </ul>
      ) : null}
    </form>
  );
}
