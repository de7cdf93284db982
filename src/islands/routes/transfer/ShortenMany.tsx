import { useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import type { Site } from "../../../core/sites/site.ts";
import { copyText } from "../../../ui/keys/copy.ts";
import { AreaField } from "../../../ui/form/fields.tsx";
import { Form, SaveButton } from "../../../ui/form/Form.tsx";
import { useSavedForm } from "../../../ui/form/use-saved-form.ts";
import { notify } from "../../../ui/notices/notices.ts";
import { useDebounced } from "../../../ui/keys/use-debounced.ts";
import { shortHome } from "../form/use-route-check.ts";
import { refreshRoutes } from "../use-routes.ts";
import { asking } from "../../../ui/client/queries.ts";
import { DataTable, type Column } from "../../../ui/table/DataTable.tsx";
import { api, messageOf, type Answer } from "../../../ui/client/api.ts";
import * as say from "../words.ts";

type Line = Answer<"POST /sites/:site/routes/shorten">["lines"][number];

const TONE = { refused: "text-bad", existing: "text-warn", new: "text-good" } as const;
const COLUMNS: readonly Column<Line>[] = [
  { key: "line", word: say.line, cellClass: "tabular-nums", cell: ({ line }) => line },
  {
    key: "address",
    word: say.shortAddress,
    cellClass: "font-mono font-semibold whitespace-nowrap",
    cell: ({ address }) => address ?? "—",
  },
  {
    key: "destination",
    word: say.leadsTo,
    cellClass: "font-mono wrap-anywhere",
    cell: ({ destination, pasted }) => destination ?? pasted,
  },
  {
    key: "message",
    word: say.whatBecomesOfIt,
    cell: ({ state, message }) => <span className={TONE[state]}>{message}</span>,
  },
];

/** A pasted list of addresses, a short link for each: seen before any is made. */
export function ShortenMany({ site }: { site: Site }) {
  const home = shortHome(site);
  const host = home.host ?? site.hosts.find(({ role }) => role === "primary")!.name;
  const [made, setMade] = useState<Answer<"POST /sites/:site/routes/shorten">>();
  const form = useSavedForm({
    values: { text: "" },
    save: ({ text }) => api("POST /sites/:site/routes/shorten", { site: site.id, body: { text, host } }),
    onSaved(answer) {
      setMade(answer);
      refreshRoutes();
      notify(say.madeShortLinks(answer.lines.filter(({ state, route }) => state === "new" && route).length));
    },
  });
  const text = form.watch("text");
  useEffect(() => setMade(undefined), [text]);
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
  const answer = made ?? (text.trim() === "" ? undefined : plan.data);
  const lines = (of: Line["state"]): number => answer?.lines.filter(({ state }) => state === of).length ?? 0;
  const fresh = answer?.lines.filter(({ state }) => state === "new") ?? [];
  return (
    <section data-needs="editor" aria-labelledby="shorten">
      <h2 id="shorten" className="mb-1 font-semibold">
        {say.shortenAList}
      </h2>
      <Form of={form} needs="editor" className="grid gap-2">
        <AreaField
          name="text"
          label={say.oneAddressALineBehindItIf}
          mono
          rows={5}
          error={plan.isError ? messageOf(plan.error) : undefined}
        />
        {made ? (
          <button
            type="button"
            className="action justify-self-start"
            onClick={() => void copyText(made.lines.flatMap(({ route }) => route?.url ?? []).join("\n"))}
          >
            {say.copyAllOfThem}
          </button>
        ) : (
          <SaveButton of={form} className="justify-self-start" disabled={fresh.length === 0}>
            {say.makeShort(fresh.length > 0 ? fresh.length : "", fresh.length === 1 ? say.link : say.links)}
          </SaveButton>
        )}
      </Form>
      <p role="status" className="text-sm text-quiet">
        {answer ? say.ofTheList(fresh.length, lines("existing"), lines("refused")) : ""}
      </p>
      {answer ? (
        <DataTable
          label={say.aShortLinkForEachLine}
          rows={answer.lines}
          columns={COLUMNS}
          keyOf={({ line }) => String(line)}
          rowClass={() => "align-top"}
          dense
        />
      ) : null}
    </section>
  );
}
