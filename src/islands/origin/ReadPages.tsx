import { useInfiniteQuery } from "@tanstack/react-query";
import type { Job } from "../../contract/jobs.ts";
import { READING_STATES, type Origin, type Reading, type ReadingState } from "../../core/origin/origin.ts";
import type { Site } from "../../core/sites/site.ts";
import { api, messageOf, startJob } from "../../ui/client/api.ts";
import { keyOf } from "../../ui/client/queries.ts";
import { useAddressState } from "../../ui/client/url-state.ts";
import { FilterBar } from "../../ui/filter/FilterBar.tsx";
import { FilterSelect } from "../../ui/filter/FilterSelect.tsx";
import { count, when } from "../../ui/format/format.ts";
import { useDebounced } from "../../ui/keys/use-debounced.ts";
import { DataTable, type Column } from "../../ui/table/DataTable.tsx";
import { counted } from "../../ui/format/counted.ts";
import * as say from "./words.ts";

const GOOD: ReadonlySet<ReadingState> = new Set(["read", "waiting", "found"]);

/** Every page that was found there, and what became of it. */
export function ReadPages(props: {
  site: Site;
  states: Origin["states"];
  isReading: boolean;
  onRead: (begin: () => Promise<Job>) => void;
}) {
  const { site, states, isReading } = props;
  const [sort, setSort] = useAddressState("sort");
  const [state] = useAddressState("state");
  const [q] = useAddressState("q");
  const search = useDebounced(q, 200);
  const query = {
    sort: sort || "path",
    ...(READING_STATES.some((one) => one === state) ? { state: state as ReadingState } : {}),
    ...(search ? { q: search } : {}),
  };
  const pages = useInfiniteQuery({
    queryKey: keyOf("GET /sites/:site/origin/pages", { site: site.id, query }),
    queryFn: ({ pageParam }) =>
      api("GET /sites/:site/origin/pages", {
        site: site.id,
        query: { ...query, limit: 50, cursor: pageParam },
      }),
    initialPageParam: "",
    getNextPageParam: (last) => last.nextCursor ?? undefined,
    placeholderData: (previous) => previous,
    refetchInterval: isReading ? 4_000 : false,
  });
  const rows = pages.data?.pages.flatMap(({ items }) => items) ?? [];
  const columns: Column<Reading>[] = [
    {
      key: "path",
      word: say.page,
      head: true,
      sort: "up",
      className: "w-[46%]",
      cell: ({ path, address, title, leadsTo }) => (
        <>
          <a
            className="block py-0.5 font-mono text-[0.9em] wrap-anywhere hover:underline"
            href={address}
            target="_blank"
            rel="noreferrer"
          >
            {path}
          </a>
          <span className="block truncate text-sm text-quiet">{leadsTo ? say.leadsTo(leadsTo) : title}</span>
        </>
      ),
    },
    {
      key: "state",
      word: say.state,
      sort: "up",
      cell: ({ state: of, note }) => (
        <>
          <span className={GOOD.has(of) ? "" : of === "gone" || of === "failing" ? "text-bad" : "text-warn"}>
            {say.stateWords[of]}
          </span>
          {note ? <span className="block text-sm text-quiet">{note}</span> : null}
        </>
      ),
    },
    {
      key: "words",
      word: say.words,
      number: true,
      sort: "down",
      cell: ({ words }) => (words > 0 ? count(words) : ""),
    },
    { key: "readAt", word: say.lastReadOn, sort: "down", cell: ({ readAt }) => (readAt ? when(readAt) : "") },
    { key: "nextAt", word: say.nextTime, cell: ({ nextAt }) => (nextAt ? when(nextAt) : "") },
    {
      key: "action",
      word: <span className="sr-only">{say.whatCanBeDone}</span>,
      className: "text-right",
      cell: ({ path, address, pageId }) => (
        <span className="flex flex-wrap justify-end gap-x-3 text-sm">
          {pageId ? (
            <a className="py-1 text-accent underline" href={`/${site.key}/ledger?page=${pageId}`}>
              {say.itsLinks}
            </a>
          ) : null}
          <button
            data-needs="editor"
            className="py-1 text-accent underline disabled:text-quiet"
            disabled={isReading}
            onClick={() =>
              props.onRead(() =>
                startJob("POST /sites/:site/read", { site: site.id, body: { addresses: [address] } }),
              )
            }
          >
            {say.readNow}
            <span className="sr-only"> ({path})</span>
          </button>
        </span>
      ),
    },
  ];
  return (
    <section aria-label={say.pagesThere}>
      <FilterBar
        search={{ label: say.searchPagesByPathOrTitle, placeholder: say.searchPages }}
        found={pages.data ? counted(pages.data.pages[0]!.total, ...say.ofPages) : undefined}
        narrows={["q", "state"]}
      >
        <FilterSelect
          name="state"
          label={say.stateOfPages}
          every={say.everyState}
          options={states.map(
            ({ state: of, pages: there }) => [of, `${say.stateWords[of]} ${count(there)}`] as const,
          )}
        />
      </FilterBar>
      {pages.isError ? <p className="text-bad">{messageOf(pages.error)}</p> : null}
      {pages.isSuccess && rows.length === 0 ? (
        <p className="rounded border border-dashed border-line p-8 text-center text-quiet">
          {say.noPageHere}
        </p>
      ) : (
        <DataTable
          label={say.pagesThere}
          rows={rows}
          columns={columns}
          keyOf={({ id }) => id}
          sort={sort || "path"}
          setSort={setSort}
          isLong
        />
      )}
      {pages.hasNextPage ? (
        <button className="action mt-2" onClick={() => void pages.fetchNextPage()}>
          {say.showMore}
        </button>
      ) : null}
    </section>
  );
}
