import { useInfiniteQuery } from "@tanstack/react-query";
import { Copy, Printer } from "lucide-react";
import { TODO_STATES, type Todo } from "../../core/origin/todo.ts";
import type { Site } from "../../core/sites/site.ts";
import { api, messageOf } from "../../ui/client/api.ts";
import { keyOf } from "../../ui/client/queries.ts";
import { useAddressState } from "../../ui/client/url-state.ts";
import { CsvLink } from "../../ui/filter/CsvLink.tsx";
import { FilterBar } from "../../ui/filter/FilterBar.tsx";
import { ViewChoice } from "../../ui/filter/ViewChoice.tsx";
import { count, when } from "../../ui/format/format.ts";
import { Screen } from "../../ui/frame/Screen.tsx";
import { SectionTabs } from "../../ui/frame/SectionTabs.tsx";
import { copyText } from "../../ui/keys/copy.ts";
import { useDebounced } from "../../ui/keys/use-debounced.ts";
import { AddressText } from "../../ui/links/AddressText.tsx";
import { DataTable, type Column } from "../../ui/table/DataTable.tsx";
import { counted } from "../../ui/format/counted.ts";
import { Attributes } from "./Attributes.tsx";
import { NoOrigin } from "./NoOrigin.tsx";
import * as say from "./words.ts";

/** What is to be changed in the system where pages stand, link by link; ticked off by itself when it is found done. */
export function ToDoScreen({ site }: { site: Site }) {
  return (
    <Screen>
      <SectionTabs site={site} tab="origin/to-do" />
      {site.origin === null ? <NoOrigin site={site} /> : <ToDo site={site} />}
    </Screen>
  );
}

type State = (typeof TODO_STATES)[number];

function ToDo({ site }: { site: Site }) {
  const [state] = useAddressState("state");
  const [q] = useAddressState("q");
  const search = useDebounced(q, 200);
  const query = {
    ...(TODO_STATES.some((one) => one === state) ? { state: state as State } : {}),
    ...(search ? { q: search } : {}),
  };
  const todos = useInfiniteQuery({
    queryKey: keyOf("GET /sites/:site/origin/to-do", { site: site.id, query }),
    queryFn: ({ pageParam }) =>
      api("GET /sites/:site/origin/to-do", { site: site.id, query: { ...query, cursor: pageParam } }),
    initialPageParam: "",
    getNextPageParam: (last) => last.nextCursor ?? undefined,
    placeholderData: (previous) => previous,
  });
  const rows = todos.data?.pages.flatMap(({ items }) => items) ?? [];
  const counts = todos.data?.pages[0]!.counts;
  const isOpen = !state || state === "open";
  return (
    <>
      <p className="mb-3 max-w-prose text-sm text-quiet print:hidden">{say.whatIsToBeDone}</p>
      <div className="print:hidden">
        <FilterBar
          view={
            <ViewChoice
              name="state"
              label={say.state2}
              usual="open"
              options={TODO_STATES.map((one) => [
                one,
                `${say.todoStates[one]}${counts ? ` ${count(counts[one])}` : ""}`,
              ])}
            />
          }
          search={{ label: say.searchToDoByWords, placeholder: say.searchToDo }}
          found={todos.data ? counted(todos.data.pages[0]!.total, ...say.ofLinks) : undefined}
          actions={
            <>
              <button className="action" onClick={() => print()}>
                <Printer size={15} aria-hidden /> {say.printIt}
              </button>
              <CsvLink href={`/api/v1/sites/${site.id}/origin/to-do/export.csv`} />
            </>
          }
        />
      </div>
      {todos.isError ? <p className="text-bad">{messageOf(todos.error)}</p> : null}
      {todos.isSuccess && rows.length === 0 ? (
        <p className="rounded border border-dashed border-line p-8 text-center text-quiet">
          {isOpen && !search ? say.nothingToDo : say.nothingDoneYet}
        </p>
      ) : (
        <DataTable
          label={say.titleToDo}
          rows={rows}
          columns={COLUMNS}
          keyOf={({ id }) => id}
          rowClass={() => "align-top"}
          isLong
        />
      )}
      {todos.hasNextPage ? (
        <button className="action mt-2 print:hidden" onClick={() => void todos.fetchNextPage()}>
          {say.showMore}
        </button>
      ) : null}
    </>
  );
}

const COLUMNS: readonly Column<Todo>[] = [
  {
    key: "page",
    word: say.page,
    head: true,
    className: "w-[22%]",
    cell: ({ page, address, title, onPages }) => (
      <>
        <a className="block wrap-anywhere hover:underline" href={address} target="_blank" rel="noreferrer">
          {page ? <span className="font-mono text-[0.9em]">{page}</span> : <em>{title}</em>}
        </a>
        <span className="block text-sm text-quiet">
          {onPages > 0 ? say.onPages(counted(onPages, ...say.ofPages)) : title}
        </span>
      </>
    ),
  },
  {
    key: "sentence",
    word: say.sentence,
    className: "w-[26%]",
    cell: ({ sentence, words, before, after }) => (
      <>
        <Sentence text={sentence} words={words} />
        {before.href === after.href ? (
          <span className="block text-sm text-quiet print:hidden">
            <AddressText address={before.href} most={44} />
          </span>
        ) : null}
      </>
    ),
  },
  {
    key: "before",
    word: say.asItIs,
    className: "w-[18%]",
    cell: (todo) => (
      <>
        <Attributes of={todo.before} other={todo.after} />
        <Whole source={todo.beforeHtml} />
      </>
    ),
  },
  {
    key: "after",
    word: say.asItIsToBe,
    className: "w-[22%]",
    cell: (todo) => (
      <>
        <span className="flex items-start gap-1 print:hidden">
          <span className="min-w-0 grow">
            <Attributes of={todo.after} other={todo.before} />
          </span>
          <button
            className="grid size-6 shrink-0 place-items-center rounded text-quiet hover:text-ink"
            aria-label={say.copySource(todo.words)}
            onClick={() => void copyText(todo.afterHtml)}
          >
            <Copy size={15} aria-hidden />
          </button>
        </span>
        <Whole source={todo.afterHtml} />
      </>
    ),
  },
  {
    key: "why",
    word: say.why,
    className: "w-[14%]",
    cell: ({ why, endedAt, state }) => (
      <span className="text-sm text-quiet">
        {why}
        {state === "done" && endedAt ? (
          <span className="block text-good">{say.doneOn(when(endedAt))}</span>
        ) : null}
      </span>
    ),
  },
];

// On paper nobody can copy: there it stands in full.
function Whole({ source }: { source: string }) {
  return <code className="hidden text-[0.82em] wrap-anywhere print:inline">{source}</code>;
}

// The words of the link stand out in their sentence.
function Sentence({ text, words }: { text: string; words: string }) {
  const at = words === "" ? -1 : text.indexOf(words);
  if (at === -1) return <span className="text-sm">{text}</span>;
  return (
    <span className="text-sm">
      {text.slice(0, at)}
      <mark className="bg-wash text-ink">{words}</mark>
      {text.slice(at + words.length)}
    </span>
  );
}
