import { useQuery } from "@tanstack/react-query";
import type { Unmatched } from "../../core/earnings/earning.ts";
import { isReportedBy } from "../../core/earnings/credit.ts";
import type { ProgramFigures } from "../../core/programs/program.ts";
import type { Site } from "../../core/sites/site.ts";
import { money } from "../programs/figures-in-words.ts";
import { useProgramChange, usePrograms } from "../programs/use-programs.ts";
import { asking } from "../../ui/client/queries.ts";
import { messageOf } from "../../ui/client/api.ts";

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
  return (
    <section aria-label="Rows without a program" className="mb-6 rounded bg-wash p-3">
      <h2 className="font-medium">Rows without a program</h2>
      <p className="mb-2 text-sm text-quiet">
        No program of the network has this name, and no sub-ID in them was issued for one, or the two
        contradict each other. Say whose they are: these rows are its own at once, and those of later reports.
      </p>
      <div className="overflow-x-auto">
        <table className="w-full text-left text-sm">
          <thead className="text-quiet">
            <tr className="border-b border-line">
              {[
                "In the report",
                "Network",
                "Rows",
                "Earned",
                "Their clicks",
                "Sub-IDs",
                "Orders",
                "Latest",
                "Belongs to",
              ].map((head) => (
                <th key={head} scope="col" className="py-1 pr-3 font-medium">
                  {head}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {unmatched.data.map((row) => (
              <tr key={`${row.network} ${row.word}`} className="border-b border-line/60 align-top">
                <td className="py-1 pr-3 font-medium">
                  {row.word || <span className="text-quiet">names no program</span>}
                </td>
                <td className="py-1 pr-3">{row.network}</td>
                <td className="py-1 pr-3 tabular-nums">{row.rows.toLocaleString("en-GB")}</td>
                <td className="py-1 pr-3 tabular-nums">
                  {row.money.map(({ amount, currency }) => money(amount, currency)).join(" + ") || "–"}
                </td>
                <td className="py-1 pr-3 tabular-nums">{row.theirClicks.toLocaleString("en-GB")}</td>
                <td className="py-1 pr-3 font-mono wrap-anywhere">{row.subIds.join(" ") || "–"}</td>
                <td className="py-1 pr-3 font-mono wrap-anywhere">{row.references.join(" ") || "–"}</td>
                <td className="py-1 pr-3 whitespace-nowrap">{row.last}</td>
                <td className="max-w-72 py-1">
                  {row.doubt ? (
                    <span className="text-warn">{row.doubt}</span>
                  ) : row.word === "" ? null : (
                    <BelongsTo site={site} row={row} programs={programs} />
                  )}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
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
    <select
      className="field w-auto py-0.5"
      aria-label={`${row.word} belongs to`}
      value=""
      disabled={give.isPending}
      onChange={(event) => choose(event.target.value)}
    >
      <option value="">choose</option>
      {programs
        .filter((one) => one.network === "" || isReportedBy(row.network, one))
        .map(({ id, name }) => (
          <option key={id} value={id}>
            {name}
          </option>
        ))}
    </select>
  );
}
