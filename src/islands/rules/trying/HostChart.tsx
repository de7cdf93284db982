import { useState } from "react";
import type { TriedRules } from "../../../core/rules/rule.ts";
import { DataTable, type Column } from "../../../ui/table/DataTable.tsx";
import { TREATMENTS } from "../../../core/rules/treatment.ts";
import { Bars } from "../../../ui/charts/Bars.tsx";
import type { Series } from "../../../ui/charts/chart.ts";
import { TREATMENT_COLOR, TREATMENT_WORD } from "../../../ui/links/link-words.ts";
import * as say from "../words.ts";

type Host = TriedRules["hosts"][number];
const MAX_HOSTS = 12;

/** Outside links by host and treatment, now and with the set switched on; as a chart or as a table. */
export default function HostChart({ hosts, isChanged }: { hosts: readonly Host[]; isChanged: boolean }) {
  const [asTable, setAsTable] = useState(false);
  const shown = hosts.slice(0, MAX_HOSTS);
  const rows = shown.map(({ host, before, after }) => ({
    label: host,
    ...Object.fromEntries(
      TREATMENTS.flatMap((one) => [
        [say.now(one), before[one]],
        [say.then2(one), after[one]],
      ]),
    ),
  }));
  const of = (when: "now" | "then"): Series[] =>
    TREATMENTS.map((one) => ({
      name: TREATMENT_WORD[one],
      field: `${when} ${one}`,
      color: TREATMENT_COLOR[one],
      stack: when,
      faint: isChanged && when === "now",
    }));
  const series = isChanged ? [...of("then"), ...of("now")] : of("then");
  return (
    <figure>
      <figcaption className="flex items-baseline gap-2">
        <span className="grow text-sm font-medium">
          {say.outsideLinksByHost(
            isChanged ? say.withTheSetAndPaleWithoutIt : "",
            hosts.length > MAX_HOSTS ? say.theFirstOf(MAX_HOSTS, hosts.length) : "",
          )}
        </span>
        <button className="text-sm text-accent underline" onClick={() => setAsTable(!asTable)}>
          {asTable ? say.asAChart : say.asATable}
        </button>
      </figcaption>
      {asTable ? (
        <HostTable hosts={hosts} />
      ) : (
        <Bars
          rows={rows}
          series={series}
          lying
          label={say.outsideLinksOfHostsByTreatmentThe(
            shown.length,
            isChanged ? say.beforeAndAfter : say.asTheyAre,
          )}
          heightPx={shown.length > 6 ? 384 : 256}
        />
      )}
    </figure>
  );
}

function HostTable({ hosts }: { hosts: readonly Host[] }) {
  const columns: Column<Host>[] = [
    {
      key: "host",
      word: say.host,
      head: true,
      cellClass: "truncate font-mono text-xs",
      cell: ({ host }) => host,
    },
    ...TREATMENTS.map((one): Column<Host> => ({
      key: one,
      word: TREATMENT_WORD[one],
      number: true,
      cell: ({ before, after }) =>
        before[one] === after[one] ? after[one] : `${before[one]} → ${after[one]}`,
    })),
  ];
  return (
    <DataTable label={say.treatmentByHost} rows={hosts} columns={columns} keyOf={({ host }) => host} dense />
  );
}
