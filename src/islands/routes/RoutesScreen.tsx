import { Ban, Link2, Signpost } from "lucide-react";
import { useCallback } from "react";
import type { Site } from "../../core/sites/site.ts";
import { SectionTabs } from "../../ui/frame/SectionTabs.tsx";
import { Screen } from "../../ui/frame/Screen.tsx";
import { setAddressState, useAddressState } from "../../ui/client/url-state.ts";
import { later } from "../../ui/frame/later.tsx";
import { RouteFilters } from "./RouteFilters.tsx";
import { RoutesTable } from "./table/RoutesTable.tsx";
import { useSelection } from "../../ui/table/use-selection.ts";
import { setFilters, useRouteFilter, useRouteList } from "./use-route-list.ts";
import { messageOf } from "../../ui/client/api.ts";
import * as say from "./words.ts";

const SelectionBar = later(async () => (await import("./table/SelectionBar.tsx")).SelectionBar);
const RoutePanel = later(async () => (await import("./open/RoutePanel.tsx")).RoutePanel);

/** Short links and redirects: the table, and beside it the one that is made or looked at. */
export function RoutesScreen({ site }: { site: Site }) {
  return (
    <Screen>
      <Routes site={site} />
    </Screen>
  );
}

function Routes({ site }: { site: Site }) {
  const [sort, setSort] = useAddressState("sort");
  const [open] = useAddressState("open");
  const filter = useRouteFilter();
  const order = sort || "-createdAt";
  const routes = useRouteList(site, filter, order);
  const items = routes.data?.pages.flatMap((page) => page.items) ?? [];
  const total = routes.data?.pages[0]?.total;
  const selection = useSelection(items.map(({ id }) => id));
  const { fetchNextPage, hasNextPage, isFetchingNextPage } = routes;
  const more = useCallback(() => {
    if (hasNextPage && !isFetchingNextPage) void fetchNextPage();
  }, [fetchNextPage, hasNextPage, isFetchingNextPage]);
  return (
    <>
      <div className="flex flex-wrap items-start gap-3">
        <SectionTabs site={site} tab="routes" />
        <div className="mb-3 ml-auto flex flex-wrap gap-2">
          <NewButton kind="new-gone" icon={<Ban size={16} aria-hidden />} word={say.newGoneAddress} />
          <NewButton kind="new-redirect" icon={<Signpost size={16} aria-hidden />} word={say.newRedirect} />
          <NewButton kind="new-short" icon={<Link2 size={16} aria-hidden />} word={say.newShortLink} main />
        </div>
      </div>
      <RouteFilters site={site} total={total} />
      {routes.isError ? <p className="text-bad">{messageOf(routes.error)}</p> : null}
      <div
        className={
          open
            ? "grid grow items-start gap-5 grid-cols-[minmax(0,1fr)] lg:grid-cols-[minmax(0,1fr)_27rem]"
            : "grow"
        }
      >
        <div className={`min-w-0 ${open ? "max-lg:order-2" : ""}`}>
          {routes.isSuccess && items.length === 0 ? (
            <Empty searching={Object.keys(setFilters(filter)).length > 0} />
          ) : (
            <RoutesTable
              site={site}
              routes={items}
              narrow={open !== ""}
              openId={open}
              sort={order}
              setSort={setSort}
              selection={selection}
              more={more}
            />
          )}
          {isFetchingNextPage ? <p className="py-2 text-sm text-quiet">{say.fetchingMore}</p> : null}
          {selection.all || selection.ids.size > 0 ? (
            <SelectionBar site={site} selection={selection} filter={filter} total={total ?? 0} />
          ) : null}
        </div>
        {open ? <RoutePanel key={open} site={site} open={open} /> : null}
      </div>
    </>
  );
}

function NewButton(props: { kind: string; icon: React.ReactNode; word: string; main?: boolean }) {
  return (
    <button
      data-needs="editor"
      className={`action ${props.main ? "action-main" : ""}`}
      onClick={() => setAddressState({ open: props.kind, to: "", at: "" })}
    >
      {props.icon} {props.word}
    </button>
  );
}

function Empty({ searching }: { searching: boolean }) {
  return (
    <div className="grid place-items-center gap-1 rounded border border-dashed border-line py-20 text-center">
      <p className="font-medium">{searching ? say.noRouteAnswersToTheseWords : say.thereAreNoRoutesYet}</p>
      <p className="text-quiet">
        {searching ? say.tryFewerWordsOrShowAll : say.pasteALongAddressIntoTheField}
      </p>
    </div>
  );
}
