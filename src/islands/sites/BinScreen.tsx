import { useInfiniteQuery } from "@tanstack/react-query";
import { useState } from "react";
import type { BinItem } from "../../core/sites/history.ts";
import { BIN_DAYS, BIN_KINDS } from "../../core/sites/choices.ts";
import type { Site } from "../../core/sites/site.ts";
import { api, messageOf } from "../../ui/client/api.ts";
import { keyOf, refresh } from "../../ui/client/queries.ts";
import { useAddressState } from "../../ui/client/url-state.ts";
import { FilterBar } from "../../ui/filter/FilterBar.tsx";
import { FilterSelect } from "../../ui/filter/FilterSelect.tsx";
import { when } from "../../ui/format/format.ts";
import { Screen } from "../../ui/frame/Screen.tsx";
import { useDebounced } from "../../ui/keys/use-debounced.ts";
import { notify } from "../../ui/notices/notices.ts";
import { DataTable, type Column } from "../../ui/table/DataTable.tsx";
import { BringBack } from "./BringBack.tsx";
import * as say from "./words.ts";

/** What was deleted lately, to be found and brought back. */
export function BinScreen({ site }: { site: Site }) {
  return (
    <Screen>
      <Bin site={site} />
    </Screen>
  );
}

function Bin({ site }: { site: Site }) {
  const [kind] = useAddressState("kind");
  const [typed] = useAddressState("q");
  const q = useDebounced(typed, 200);
  const query = {
    ...(q ? { q } : {}),
    ...((BIN_KINDS as readonly string[]).includes(kind) ? { kind: kind as BinItem["kind"] } : {}),
  };
  const bin = useInfiniteQuery({
    queryKey: keyOf("GET /sites/:site/bin", { site: site.id, query }),
    queryFn: ({ pageParam }) =>
      api("GET /sites/:site/bin", { site: site.id, query: { ...query, cursor: pageParam } }),
    initialPageParam: "",
    getNextPageParam: (last) => last.nextCursor ?? undefined,
    placeholderData: (previous) => previous,
  });
  const [open, setOpen] = useState<string>();
  const columns: Column<BinItem>[] = [
    { key: "kind", word: say.kind, className: "max-sm:hidden", cell: ({ kind: one }) => one },
    {
      key: "name",
      word: say.whatItWas,
      head: true,
      cell: ({ name, address }) => (
        <>
          <span className="font-medium">{name}</span>{" "}
          <span className="font-mono text-sm wrap-anywhere text-quiet">{address}</span>
        </>
      ),
    },
    {
      key: "when",
      word: say.deleted,
      className: "max-sm:hidden",
      cellClass: "text-sm text-quiet",
      cell: ({ deletedAt }) => when(deletedAt),
    },
    { key: "by", word: say.by, className: "max-sm:hidden", cell: ({ deletedBy }) => deletedBy ?? "" },
    {
      key: "action",
      word: <span className="sr-only">{say.whatCanBeDone}</span>,
      className: "text-right",
      cell: (item) => (
        <BringBack
          site={site}
          item={item}
          isOpen={open === item.id}
          onOpen={() => setOpen(item.id)}
          onBack={() => {
            setOpen(undefined);
            notify(say.isBack(item.name));
            void refresh("GET /sites/:site/bin");
          }}
        />
      ),
    },
  ];
  const items = bin.data?.pages.flatMap((page) => page.items) ?? [];
  const total = bin.data?.pages[0]!.total;
  return (
    <>
      <h1 className="mb-1 text-lg font-semibold">{say.bin}</h1>
      <p className="mb-3 text-sm text-quiet">{say.whatWasDeletedInTheLastDays(BIN_DAYS)}</p>
      <FilterBar
        search={{ label: say.searchWhatWasDeletedByNameOr, placeholder: say.searchTheBin }}
        narrows={["kind", "q"]}
        found={total === undefined ? undefined : say.things(total)}
      >
        <FilterSelect
          name="kind"
          label={say.kind}
          every={say.everyKind}
          options={BIN_KINDS.map((one) => [one, `${one}s`])}
        />
      </FilterBar>
      {bin.isError ? <p className="text-bad">{messageOf(bin.error)}</p> : null}
      {bin.isSuccess && items.length === 0 ? (
        <p className="rounded border border-dashed border-line py-16 text-center text-quiet">
          {query.q || query.kind ? say.nothingHereFits : say.nothingWasDeletedLately}
        </p>
      ) : (
        <DataTable label={say.bin} rows={items} columns={columns} keyOf={({ id }) => id} isLong />
      )}
      {bin.hasNextPage ? (
        <button className="action mt-3 self-start" onClick={() => void bin.fetchNextPage()}>
          {say.showMore}
        </button>
      ) : null}
    </>
  );
}
