import { useState } from "react";
import type { Miss } from "../../core/misses/miss.ts";
import type { Site } from "../../core/sites/site.ts";
import { SortHead } from "../../ui/table/SortHead.tsx";
import { when } from "../../ui/format/when.ts";
import { useAnswerMisses, useSetAside } from "./use-misses.ts";

/** Misses as a table: each is answered in one step, several at once, or set aside. */
export function MissesTable(props: {
  site: Site;
  misses: Miss[];
  sort: string;
  setSort: (sort: string) => void;
  setAside: boolean;
}) {
  const { site, misses, sort, setSort, setAside } = props;
  const [marked, setMarked] = useState<ReadonlySet<string>>(new Set());
  const [own, setOwn] = useState<Readonly<Record<string, string>>>({});
  const answer = useAnswerMisses(site, () => setMarked(new Set()));
  const aside = useSetAside(site, () => setMarked(new Set()));
  const chosen = misses.filter(({ id }) => marked.has(id));
  const destinationOf = (miss: Miss): string => own[miss.id]?.trim() || bestOf(miss);
  const answerable = chosen.filter((miss) => destinationOf(miss) !== "");
  const mark = (id: string, on: boolean): void =>
    setMarked((before) => {
      const next = new Set(before);
      if (on) next.add(id);
      else next.delete(id);
      return next;
    });
  return (
    <div className="overflow-x-auto">
      <table className="w-full border-collapse text-left">
        <thead className="text-sm text-quiet">
          <tr className="border-b border-line">
            <th scope="col" className="w-7">
              <input
                type="checkbox"
                aria-label="Mark all misses shown"
                checked={misses.length > 0 && chosen.length === misses.length}
                onChange={(event) =>
                  setMarked(new Set(event.target.checked ? misses.map(({ id }) => id) : []))
                }
              />
            </th>
            <SortHead field="address" sort={sort} setSort={setSort}>
              Asked for
            </SortHead>
            <SortHead field="times" downFirst sort={sort} setSort={setSort}>
              Times
            </SortHead>
            <SortHead field="lastSeen" downFirst sort={sort} setSort={setSort}>
              Last
            </SortHead>
            <th scope="col" className="py-1.5 pr-3 font-medium max-md:hidden">
              Came from
            </th>
            <th scope="col" className="py-1.5 font-medium">
              Answer it with
            </th>
          </tr>
        </thead>
        <tbody>
          {misses.map((miss) => (
            <MissRow
              key={miss.id}
              site={site}
              miss={miss}
              marked={marked.has(miss.id)}
              own={own[miss.id] ?? ""}
              fault={answer.faults[miss.id]}
              busy={answer.isPending}
              onMark={(on) => mark(miss.id, on)}
              onOwn={(text) => setOwn((before) => ({ ...before, [miss.id]: text }))}
              onAnswer={(destination) => answer.run([{ id: miss.id, destination }])}
            />
          ))}
        </tbody>
      </table>
      {chosen.length > 0 ? (
        <section
          aria-label="Marked misses"
          className="sticky bottom-3 mt-3 flex flex-wrap items-center gap-2 rounded border border-accent bg-sheet p-2.5 shadow-lg"
        >
          <strong>{chosen.length} marked</strong>
          <button
            className="action action-main py-0.5"
            disabled={answerable.length === 0 || answer.isPending}
            onClick={() =>
              answer.run(answerable.map((miss) => ({ id: miss.id, destination: destinationOf(miss) })))
            }
          >
            Answer {answerable.length} with the first suggestion
          </button>
          <button
            className="action py-0.5"
            onClick={() => aside.mutate({ ids: chosen.map(({ id }) => id), ignore: !setAside })}
          >
            {setAside ? "Take back into the list" : "Set aside"}
          </button>
          {answerable.length < chosen.length ? (
            <span className="text-sm text-quiet">{chosen.length - answerable.length} have no suggestion</span>
          ) : null}
        </section>
      ) : null}
    </div>
  );
}

function bestOf(miss: Miss): string {
  const [best] = miss.candidates;
  return best ? (best.destination ?? best.address) : "";
}

function MissRow(props: {
  site: Site;
  miss: Miss;
  marked: boolean;
  own: string;
  fault: string | undefined;
  busy: boolean;
  onMark: (on: boolean) => void;
  onOwn: (text: string) => void;
  onAnswer: (destination: string) => void;
}) {
  const { site, miss, own } = props;
  return (
    <tr className={`border-b border-line/60 align-top ${props.marked ? "bg-sunk" : "hover:bg-sheet"}`}>
      <td className="py-1.5">
        <input
          type="checkbox"
          aria-label={`Mark ${miss.address}`}
          checked={props.marked}
          onChange={(event) => props.onMark(event.target.checked)}
        />
      </td>
      <td className="min-w-40 py-1.5 pr-3 font-mono text-[0.86em] break-all">
        <span className="text-quiet">{miss.host === site.hosts[0]?.name ? "" : miss.host}</span>
        {miss.address}
      </td>
      <td className="py-1.5 pr-3 whitespace-nowrap tabular-nums">
        {miss.times}
        {miss.bots > 0 ? <span className="text-sm text-quiet"> and {miss.bots} by robots</span> : null}
      </td>
      <td
        className="py-1.5 pr-3 text-sm whitespace-nowrap text-quiet"
        title={`First: ${when(miss.firstSeen)}`}
      >
        {when(miss.lastSeen)}
      </td>
      <td
        className="max-w-48 truncate py-1.5 pr-3 text-sm text-quiet max-md:hidden"
        title={miss.referrers.join("\n")}
      >
        {miss.referrers[0] ?? "unknown"}
        {miss.referrers.length > 1 ? ` and ${miss.referrers.length - 1} more` : ""}
      </td>
      <td className="py-1.5">
        <form
          className="flex flex-wrap gap-1.5"
          onSubmit={(event) => {
            event.preventDefault();
            props.onAnswer(own);
          }}
        >
          {miss.candidates.map((candidate) => (
            <button
              key={candidate.address}
              type="button"
              className="action flex-col !items-start !gap-0 py-0.5 font-mono text-xs"
              title={candidate.title}
              disabled={props.busy}
              onClick={() => props.onAnswer(candidate.destination ?? candidate.address)}
            >
              {candidate.address}
              <span className="font-sans text-quiet">{candidate.reason}</span>
            </button>
          ))}
          <input
            className="field w-36 py-0.5 font-mono text-xs"
            aria-label={`Answer ${miss.address} with another destination`}
            placeholder="another destination"
            value={own}
            onChange={(event) => props.onOwn(event.target.value)}
          />
          {own.trim() ? <button className="action py-0.5">Answer</button> : null}
        </form>
        {props.fault ? <p className="mt-1 text-sm text-bad">{props.fault}</p> : null}
      </td>
    </tr>
  );
}
