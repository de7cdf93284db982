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
import * as say from "./words.ts";

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
  if (!unmatched.data) return <p className="text-quiet">{say.looking}</p>;
  const columns: Column<Unmatched>[] = [
    {
      key: "word",
      word: say.inTheReport,
      head: true,
      cell: ({ word }) =>
        word ? (
          <span className="font-medium">{word}</span>
        ) : (
          <span className="text-quiet">{say.namesNoProgram}</span>
        ),
    },
    { key: "network", word: say.network, cell: ({ network }) => network },
    { key: "rows", word: say.rows2, number: true, cell: ({ rows }) => count(rows) },
    {
      key: "money",
      word: say.earned,
      number: true,
      cell: (row) => row.money.map(({ amount, currency }) => money(amount, currency)).join(" + ") || "–",
    },
    { key: "theirs", word: say.theirClicks, number: true, cell: ({ theirClicks }) => count(theirClicks) },
    {
      key: "subIds",
      word: say.subIds,
      cellClass: "font-mono wrap-anywhere",
      cell: ({ subIds }) => subIds.join(" ") || "–",
    },
    {
      key: "orders",
      word: say.orders,
      cellClass: "font-mono wrap-anywhere",
      cell: ({ references }) => references.join(" ") || "–",
    },
    { key: "last", word: say.latest, cellClass: "whitespace-nowrap", cell: ({ last }) => last },
    {
      key: "belongs",
      word: say.belongsTo,
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
    <section aria-label={say.rowsWithoutAProgram} className="mb-6 rounded bg-wash p-3">
      <h2 className="font-medium">{say.rowsWithoutAProgram}</h2>
      <p className="mb-2 text-sm text-quiet">{say.noProgramOfTheNetworkHasThis}</p>
      <DataTable
        label={say.rowsWithoutAProgram}
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
  const give = useProgramChange(site, ({ name }) => say.inReportsIs(row.word, name));
  const choose = (chosen: string): void => {
    const program = programs.find(({ id }) => id === chosen)!;
    give.mutate({ program, change: { reportNames: [...program.reportNames, row.word] } });
  };
  return (
    <ChooseOne
      attributes={{ "aria-label": say.belongsTo2(row.word) }}
      className="w-44"
      placeholder={give.isPending ? say.saving : say.choose}
      value=""
      options={programs
        .filter((one) => one.network === "" || isReportedBy(row.network, one))
        .map(({ id, name }) => ({ value: id, word: name }))}
      onChange={choose}
    />
  );
}
