import { useInfiniteQuery, useMutation } from "@tanstack/react-query";
import type { HistoryEntry } from "../../core/sites/history.ts";
import type { Site } from "../../core/sites/site.ts";
import { api, hrefOf, messageOf } from "../../ui/client/api.ts";
import { keyOf, refresh } from "../../ui/client/queries.ts";
import { setAddressState, useAddressState } from "../../ui/client/url-state.ts";
import { CsvLink } from "../../ui/filter/CsvLink.tsx";
import { FilterBar } from "../../ui/filter/FilterBar.tsx";
import { FilterSelect } from "../../ui/filter/FilterSelect.tsx";
import { when } from "../../ui/format/format.ts";
import { Screen } from "../../ui/frame/Screen.tsx";
import { notify } from "../../ui/notices/notices.ts";
import { DataTable, type Column } from "../../ui/table/DataTable.tsx";
import { actionWords, HISTORY_KINDS } from "./action-words.ts";
import { FilterDay } from "../../ui/filter/FilterDay.tsx";
import * as say from "./words.ts";

const NARROWS = ["action", "person", "object", "from", "to"];

/** Who did what and when on a site, with what it was before and after where that was kept. */
export function HistoryScreen({ site }: { site: Site }) {
  return (
    <Screen>
      <History site={site} />
    </Screen>
  );
}

function History({ site }: { site: Site }) {
  const [action] = useAddressState("action");
  const [person] = useAddressState("person");
  const [object] = useAddressState("object");
  const [from] = useAddressState("from");
  const [to] = useAddressState("to");
  const query = Object.fromEntries(
    Object.entries({ action, person, object, from, to }).filter(([, value]) => value !== ""),
  );
  const history = useInfiniteQuery({
    queryKey: keyOf("GET /sites/:site/history", { site: site.id, query }),
    queryFn: ({ pageParam }) =>
      api("GET /sites/:site/history", { site: site.id, query: { ...query, cursor: pageParam } }),
    initialPageParam: "",
    getNextPageParam: (last) => last.nextCursor ?? undefined,
    placeholderData: (previous) => previous,
  });
  const columns: Column<HistoryEntry>[] = [
    {
      key: "at",
      word: say.when,
      cellClass: "whitespace-nowrap text-sm text-quiet",
      cell: ({ at }) => when(at),
    },
    {
      key: "person",
      word: say.who,
      cellClass: "sm:whitespace-nowrap",
      cell: ({ person: one }) => <Narrowing to={{ person: one }} word={one} />,
    },
    {
      key: "what",
      word: say.what,
      head: true,
      cellClass: "sm:min-w-64",
      cell: (entry) => (
        <>
          {actionWords(entry.action)}{" "}
          <Narrowing
            to={{ object: entry.object, action: entry.action.split(".")[0]! }}
            word={entry.name ?? entry.object}
          />
        </>
      ),
    },
    { key: "how", word: say.beforeAndAfter, cell: (entry) => <Changed entry={entry} /> },
    {
      key: "back",
      word: <span className="sr-only">{say.whatCanBeDone}</span>,
      className: "text-right",
      cell: (entry) => (entry.canPutBack ? <PutBack site={site} entry={entry} /> : null),
    },
  ];
  const items = history.data?.pages.flatMap((page) => page.items) ?? [];
  const total = history.data?.pages[0]!.total;
  return (
    <>
      <h1 className="mb-2 text-lg font-semibold">{say.historyOf(site.name)}</h1>
      <FilterBar
        narrows={NARROWS}
        found={total === undefined ? undefined : say.changesFound(total)}
        actions={<CsvLink href={hrefOf("GET /sites/:site/history/export", { site: site.id, query })} />}
      >
        <FilterSelect name="action" label={say.kind} every={say.everything} options={HISTORY_KINDS} />
        <FilterDay name="from" label={say.fromDay} />
        <FilterDay name="to" label={say.toDay} />
        {person ? <span className="text-sm">{say.by2(person)}</span> : null}
        {object ? <span className="text-sm">{say.ofOneObject}</span> : null}
      </FilterBar>
      {history.isError ? <p className="text-bad">{messageOf(history.error)}</p> : null}
      {history.isSuccess && items.length === 0 ? (
        <p className="rounded border border-dashed border-line py-16 text-center text-quiet">
          {say.nothingThatFitsWasDone}
        </p>
      ) : (
        <DataTable label={say.history} rows={items} columns={columns} keyOf={({ id }) => id} isLong dense />
      )}
      {history.hasNextPage ? (
        <button className="action mt-3 self-start" onClick={() => void history.fetchNextPage()}>
          {say.showMore}
        </button>
      ) : null}
    </>
  );
}

function PutBack({ site, entry }: { site: Site; entry: HistoryEntry }) {
  const put = useMutation({
    mutationFn: () => api("POST /sites/:site/history/:entry/put-back", { site: site.id, entry: entry.id }),
    onSuccess: () => {
      notify(say.putBackAsItWasBefore);
      return refresh("GET /sites/:site/history");
    },
    onError: (error) => notify(messageOf(error), { tone: "failed" }),
  });
  return (
    <button
      data-needs="editor"
      className="action action-plain py-0.5 text-sm"
      disabled={put.isPending}
      onClick={() => put.mutate()}
    >
      {say.putBack}
      <span className="sr-only"> {say.whatWasBefore(entry.name ?? entry.object)}</span>
    </button>
  );
}

// Ids are of one kind of object: both are narrowed to.
function Narrowing({ to, word }: { to: Readonly<Record<string, string>>; word: string }) {
  return (
    <button
      type="button"
      className="min-h-6 text-left underline decoration-line underline-offset-2 hover:decoration-accent"
      onClick={() => setAddressState(to)}
    >
      {word}
    </button>
  );
}

function Changed({ entry: { before, after, detail } }: { entry: HistoryEntry }) {
  if (before === null && after === null)
    return <span className="font-mono text-xs wrap-anywhere text-quiet">{told(detail)}</span>;
  return (
    <span className="font-mono text-xs wrap-anywhere">
      <del className="text-quiet">{told(before)}</del> <span aria-hidden>→</span>{" "}
      <ins className="no-underline">{told(after)}</ins>
    </span>
  );
}

function told(value: unknown): string {
  if (value === null || value === undefined) return "nothing";
  if (typeof value !== "object") return String(value);
  const parts = Object.entries(value).map(
    ([name, one]) => `${name}: ${typeof one === "object" ? JSON.stringify(one) : String(one)}`,
  );
  return parts.join(", ");
}
