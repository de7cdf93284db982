import { useState } from "react";
import type { TriedRules } from "../../../core/rules/rule.ts";
import { DataTable, type Column } from "../../../ui/table/DataTable.tsx";
import { TREATMENTS } from "../../../core/rules/treatment.ts";
import { Bars, type Series } from "../../../ui/charts/Bars.tsx";
import { TREATMENT_COLOR, TREATMENT_WORD } from "../../../ui/links/link-words.ts";

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
        [`now ${one}`, before[one]],
        [`then ${one}`, after[one]],
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
          Outside links by host{isChanged ? ", with the set and (pale) without it" : ""}
          {hosts.length > MAX_HOSTS ? `; the first ${MAX_HOSTS} of ${hosts.length}` : ""}
        </span>
        <button className="text-sm text-accent underline" onClick={() => setAsTable(!asTable)}>
          {asTable ? "as a chart" : "as a table"}
        </button>
      </figcaption>
      {asTable ? (
        <HostTable hosts={hosts} />
      ) : (
        <Bars
          rows={rows}
          series={series}
          lying
          label={`Outside links of ${shown.length} hosts by treatment, ${isChanged ? "before and after" : "as they are"}. The table holds the same numbers.`}
          className={shown.length > 6 ? "h-96 w-full" : "h-64 w-full"}
        />
      )}
    </figure>
  );
}

function HostTable({ hosts }: { hosts: readonly Host[] }) {
  const columns: Column<Host>[] = [
    {
      key: "host",
      word: "Host",
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
    <DataTable label="Treatment by host" rows={hosts} columns={columns} keyOf={({ host }) => host} dense />
  );
}
