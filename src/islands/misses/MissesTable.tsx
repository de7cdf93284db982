import type { Miss } from "../../core/misses/miss.ts";
import type { Site } from "../../core/sites/site.ts";
import { LiveForm } from "../../ui/form/LiveForm.tsx";
import { useLiveForm } from "../../ui/form/use-live-form.ts";
import { when } from "../../ui/format/format.ts";
import { DataTable, type Column } from "../../ui/table/DataTable.tsx";
import { MarkedBar } from "../../ui/table/MarkedBar.tsx";
import { useSelection } from "../../ui/table/use-selection.ts";
import { AnswerWith } from "./AnswerWith.tsx";
import { useAnswerMisses, useSetAside } from "./use-misses.ts";
import * as say from "./words.ts";

/** Misses as a table: each is answered in one step, several at once, or ignored. */
export function MissesTable(props: {
  site: Site;
  misses: Miss[];
  sort: string;
  setSort: (sort: string) => void;
  setAside: boolean;
}) {
  const { site, misses, sort, setSort, setAside } = props;
  const selection = useSelection(misses.map(({ id }) => id));
  // What is typed for each, by its id.
  const form = useLiveForm<{ own: Record<string, string> }>({ values: { own: {} } });
  const answer = useAnswerMisses(site, selection.clear);
  const aside = useSetAside(site, selection.clear);
  const chosen = misses.filter(({ id }) => selection.has(id));
  const destinationOf = (miss: Miss): string => form.getValues(`own.${miss.id}`)?.trim() || bestOf(miss);
  const answerable = chosen.filter((miss) => destinationOf(miss) !== "");
  const columns: Column<Miss>[] = [
    ...columnsOf(site),
    {
      key: "answer",
      word: say.answerItWith,
      cell: (miss) => (
        <AnswerWith
          miss={miss}
          fault={answer.faults[miss.id]}
          isBusy={answer.isPending}
          onAnswer={(destination) => answer.run([{ id: miss.id, destination }])}
        />
      ),
    },
  ];
  return (
    <LiveForm of={form}>
      <p role="alert" className="sr-only">
        {Object.values(answer.faults).join(" ")}
      </p>
      <DataTable
        label={say.misses}
        rows={misses}
        columns={columns}
        keyOf={({ id }) => id}
        sort={sort}
        setSort={setSort}
        marking={{ selection, nameOf: ({ address }) => address, all: "misses" }}
        rowClass={() => "align-top hover:bg-sheet"}
        isLong
      />
      <MarkedBar
        label={say.markedMisses}
        selection={selection}
        total={misses.length}
        actions={
          <>
            <button
              data-needs="editor"
              className="action action-main py-0.5"
              disabled={answerable.length === 0 || answer.isPending}
              onClick={() =>
                answer.run(answerable.map((miss) => ({ id: miss.id, destination: destinationOf(miss) })))
              }
            >
              {say.answerWithTheFirstSuggestion(answerable.length)}
            </button>
            <button
              data-needs="editor"
              className="action py-0.5"
              onClick={() => aside.mutate({ ids: chosen.map(({ id }) => id), ignore: !setAside })}
            >
              {setAside ? say.stopIgnoring : say.ignore}
            </button>
            {answerable.length < chosen.length ? (
              <span className="text-sm text-quiet">
                {say.haveNoSuggestion(chosen.length - answerable.length)}
              </span>
            ) : null}
          </>
        }
      />
    </LiveForm>
  );
}

function bestOf(miss: Miss): string {
  const [best] = miss.candidates;
  return best ? (best.destination ?? best.address) : "";
}

function columnsOf(site: Site): Column<Miss>[] {
  return [
    {
      key: "address",
      word: say.askedFor,
      sort: "up",
      head: true,
      cellClass: "min-w-52 font-mono text-[0.86em] wrap-anywhere",
      cell: ({ host, address }) => (
        <>
          <span className="text-quiet">{host === site.hosts[0]?.name ? "" : host}</span>
          {address}
        </>
      ),
    },
    {
      key: "times",
      word: say.times,
      sort: "down",
      cellClass: "whitespace-nowrap tabular-nums",
      cell: ({ times, bots }) => (
        <>
          {times}
          {bots > 0 ? <span className="text-sm text-quiet"> {say.andByRobots(bots)}</span> : null}
        </>
      ),
    },
    {
      key: "lastSeen",
      word: say.last,
      sort: "down",
      cellClass: "text-sm whitespace-nowrap text-quiet",
      cell: ({ firstSeen, lastSeen }) => <span title={say.first(when(firstSeen))}>{when(lastSeen)}</span>,
    },
    {
      key: "referrers",
      word: say.cameFrom,
      className: "max-md:hidden",
      cellClass: "max-w-40 truncate text-sm text-quiet",
      cell: ({ referrers }) => (
        <span title={referrers.join("\n")}>
          {referrers[0] ?? "unknown"}
          {referrers.length > 1 ? say.andMore(referrers.length - 1) : ""}
        </span>
      ),
    },
  ];
}
