import { useInfiniteQuery } from "@tanstack/react-query";
import { Link2, Signpost } from "lucide-react";
import type { Route } from "../../core/objects/route.ts";
import type { Site } from "../../core/objects/site.ts";
import { api, messageOf, type ListOf } from "../../ui/api.ts";
import { Choice } from "../../ui/Choice.tsx";
import { Screen } from "../../ui/Screen.tsx";
import { setAddressState, useAddressState } from "../../ui/url-state.ts";
import { useDebounced } from "../../ui/use-debounced.ts";
import { RoutePanel } from "./RoutePanel.tsx";
import { RoutesTable } from "./RoutesTable.tsx";

/** Short links and redirects: the table, and beside it the one that is made or looked at. */
export function RoutesScreen({ site }: { site: Site }) {
  return (
    <Screen>
      <Routes site={site} />
    </Screen>
  );
}

function Routes({ site }: { site: Site }) {
  const [q, setQ] = useAddressState("q");
  const [kind] = useAddressState("kind");
  const [sort, setSort] = useAddressState("sort");
  const [open] = useAddressState("open");
  const search = useDebounced(q, 200);
  const routes = useInfiniteQuery({
    queryKey: ["routes", site.id, search, kind, sort],
    queryFn: ({ pageParam }) => {
      const query = new URLSearchParams({
        limit: "100",
        cursor: pageParam,
        ...(search && { q: search }),
        ...(kind && { kind }),
        sort: sort || "-createdAt",
      });
      return api<ListOf<Route>>("GET", `/sites/${site.id}/routes?${query}`);
    },
    initialPageParam: "",
    getNextPageParam: (last) => last.nextCursor ?? undefined,
    placeholderData: (previous) => previous,
    refetchInterval: 4_000,
  });
  const items = routes.data?.pages.flatMap((page) => page.items) ?? [];
  return (
    <>
      <div className="mb-3 flex flex-wrap items-center gap-3">
        <h1 className="sr-only">Routes</h1>
        <Choice
          label="Kind of route"
          value={kind || "all"}
          options={[
            { value: "all", word: "All" },
            { value: "short", word: "Short links" },
            { value: "redirect", word: "Redirects" },
            { value: "gone", word: "Gone" },
          ]}
          onChange={(value) => setAddressState({ kind: value === "all" ? "" : value })}
        />
        <a className="text-accent hover:underline" href={`/${site.key}/misses`}>
          Misses
        </a>
        <input
          className="field max-w-72"
          type="search"
          aria-label="Search routes by address, destination or title"
          placeholder="Address, destination or title"
          value={q}
          onChange={(event) => setQ(event.target.value)}
        />
        <span className="text-sm text-quiet">
          {routes.data ? `${routes.data.pages[0]!.total} routes` : ""}
        </span>
        <div className="ml-auto flex gap-2">
          <button className="action" onClick={() => setAddressState({ open: "new-redirect", to: "" })}>
            <Signpost size={16} aria-hidden /> New redirect
          </button>
          <button
            className="action action-main"
            onClick={() => setAddressState({ open: "new-short", to: "" })}
          >
            <Link2 size={16} aria-hidden /> New short link
          </button>
        </div>
      </div>
      {routes.isError ? <p className="text-bad">{messageOf(routes.error)}</p> : null}
      <div className={open ? "grid grow items-start gap-5 lg:grid-cols-[minmax(0,1fr)_25rem]" : "grow"}>
        <div className={`min-w-0 ${open ? "max-lg:order-2" : ""}`}>
          {routes.isSuccess && items.length === 0 ? (
            <Empty searching={search !== "" || kind !== ""} />
          ) : (
            <RoutesTable
              site={site}
              routes={items}
              narrow={open !== ""}
              openId={open}
              sort={sort || "-createdAt"}
              setSort={setSort}
            />
          )}
          {routes.hasNextPage ? (
            <button className="action mt-3" onClick={() => void routes.fetchNextPage()}>
              Show more
            </button>
          ) : null}
        </div>
        {open ? <RoutePanel key={open} site={site} open={open} /> : null}
      </div>
    </>
  );
}

function Empty({ searching }: { searching: boolean }) {
  return (
    <div className="grid place-items-center gap-1 rounded border border-dashed border-line py-20 text-center">
      <p className="font-medium">
        {searching ? "No route answers to these words." : "There are no routes yet."}
      </p>
      <p className="text-quiet">
        {searching
          ? "Try fewer words, or another kind."
          : "Paste a long address into the field above: it becomes a short link in two keys."}
      </p>
    </div>
  );
}
