import { useQuery } from "@tanstack/react-query";
import type { Unmatched } from "../../core/earnings/earning.ts";
import { isReportedBy } from "../../core/earnings/credit.ts";
import type { ProgramFigures } from "../../core/programs/program.ts";
import type { Site } from "../../core/sites/site.ts";
import { useProgramChange, usePrograms } from "../programs/use-programs.ts";
import { asking } from "../../ui/client/queries.ts";
import { messageOf } from "../../ui/client/api.ts";
import { ChooseOne } from "../../ui/choose/choose.tsx";
import { DataTable, type Column } from "../../ui/table/DataTable.tsx";
import { count, money } from "../../ui/format/format.ts";

/** What reports call programs that are not known here, and whose each is: said once, it is remembered. */
export function UnmatchedRows({ site, from, to }: { site: Site; from: string; to: string }) {
  const unmatched = useQuery({
    ...asking("GET /sites/:site/earnings/unmatched", { site: site.id, query: { from, to } }),
    select: ({ items }) => items,
  });
  const programs = usePrograms(site).data ?? [];
  if (unmatched.isError)
    return (
      <p role="alert" className="text-bad">
        {messageOf(unmatched.error)}
      </p>
    );
  if (!unmatched.data) return <p className="text-quiet">Looking…</p>;
  const columns: Column<Unmatched>[] = [
    {
      key: "word",
      word: "In the report",
      head: true,
      cell: ({ word }) =>
        word ? (
          <span className="font-medium">{word}</span>
        ) : (
          <span className="text-quiet">names no program</span>
        ),
    },
    { key: "network", word: "Network", cell: ({ network }) => network },
    { key: "rows", word: "Rows", number: true, cell: ({ rows }) => count(rows) },
    {
      key: "money",
      word: "Earned",
      number: true,
      cell: (row) => row.money.map(({ amount, currency }) => money(amount, currency)).join(" + ") || "–",
    },
    { key: "theirs", word: "Their clicks", number: true, cell: ({ theirClicks }) => count(theirClicks) },
    {
      key: "subIds",
      word: "Sub-IDs",
      cellClass: "font-mono wrap-anywhere",
      cell: ({ subIds }) => subIds.join(" ") || "–",
    },
    {
      key: "orders",
      word: "Orders",
      cellClass: "font-mono wrap-anywhere",
      cell: ({ references }) => references.join(" ") || "–",
    },
    { key: "last", word: "Latest", cellClass: "whitespace-nowrap", cell: ({ last }) => last },
    {
      key: "belongs",
      word: "Belongs to",
      className: "max-w-72",
      cell: (row) =>
        row.doubt ? (
          <span className="text-warn">{row.doubt}</span>
        ) : row.word === "" ? null : (
          <BelongsTo site={site} row={row} programs={programs} />
        ),
    },
  ];
  return (
    <section aria-label="Rows without a program" className="mb-6 rounded bg-wash p-3">
      <h2 className="font-medium">Rows without a program</h2>
      <p className="mb-2 text-sm text-quiet">
        No program of the network has this name, and no sub-ID in them was issued for one, or the two
        contradict each other. Say whose they are: these rows are its own at once, and those of later reports.
      </p>
      <DataTable
        label="Rows without a program"
        rows={unmatched.data}
        columns={columns}
        keyOf={({ network, word }) => `${network} ${word}`}
        rowClass={() => "align-top"}
        dense
      />
    </section>
  );
}

function BelongsTo(props: { site: Site; row: Unmatched; programs: readonly ProgramFigures[] }) {
  const { site, row, programs } = props;
  const give = useProgramChange(site, ({ name }) => `“${row.word}” in reports is ${name}`);
  const choose = (chosen: string): void => {
    const program = programs.find(({ id }) => id === chosen)!;
    give.mutate({ program, change: { reportNames: [...program.reportNames, row.word] } });
  };
  return (
    <ChooseOne
      attributes={{ "aria-label": `${row.word} belongs to` }}
      className="w-44"
      placeholder={give.isPending ? "Saving…" : "choose"}
      value=""
      options={programs
        .filter((one) => one.network === "" || isReportedBy(row.network, one))
        .map(({ id, name }) => ({ value: id, word: name }))}
      onChange={choose}
    />
  );
}
