import { useInfiniteQuery, useMutation } from "@tanstack/react-query";
import { FilePlus2 } from "lucide-react";
import { useEffect, useState } from "react";
import type { Site } from "../../../core/sites/site.ts";
import { PageTable } from "./PageTable.tsx";
import { notify } from "../../../ui/notices/notices.ts";
import { FilterBar } from "../../../ui/filter/FilterBar.tsx";
import { Screen } from "../../../ui/frame/Screen.tsx";
import { useAddressState } from "../../../ui/client/url-state.ts";
import { useDebounced } from "../../../ui/keys/use-debounced.ts";
import { LeftBehind, type LeftPath } from "../LeftBehind.tsx";
import { SectionTabs } from "../../../ui/frame/SectionTabs.tsx";
import { refresh, keyOf } from "../../../ui/client/queries.ts";
import { api, messageOf } from "../../../ui/client/api.ts";
import * as say from "../words.ts";

/** The site's pages: where writing begins. */
export function PageList({ site }: { site: Site }) {
  return (
    <Screen>
      <Pages site={site} />
    </Screen>
  );
}

function Pages({ site }: { site: Site }) {
  const [left, setLeft] = useState<LeftPath>();
  useEffect(() => setLeft(offerUndo(site)), [site]);
  const [q] = useAddressState("q");
  const [sort, setSort] = useAddressState("sort");
  const search = useDebounced(q, 200);
  const pages = useInfiniteQuery({
    queryKey: keyOf("GET /sites/:site/pages", { site: site.id, query: { q: search, sort } }),
    queryFn: ({ pageParam }) => {
      const query = new URLSearchParams({
        limit: "100",
        cursor: pageParam,
        ...(search && { q: search }),
        sort: sort || "-updatedAt",
      });
      return api("GET /sites/:site/pages", { site: site.id, query: Object.fromEntries(query) });
    },
    initialPageParam: "",
    getNextPageParam: (last) => last.nextCursor ?? undefined,
    placeholderData: (previous) => previous,
  });
  const items = pages.data?.pages.flatMap((page) => page.items) ?? [];
  const total = pages.data?.pages[0]?.total ?? 0;

  return (
    <>
      {left ? <LeftBehind site={site} left={left} onDone={() => setLeft(undefined)} /> : null}
      <SectionTabs site={site} tab="pages" />
      <FilterBar
        search={{ label: say.searchPagesByTitlePathOrText, placeholder: say.searchPages }}
        found={pages.isSuccess ? say.pages(total) : undefined}
        actions={<NewPage site={site} />}
      />
      {pages.isError ? <p className="text-bad">{messageOf(pages.error)}</p> : null}
      {pages.isSuccess && items.length === 0 ? (
        <Empty searching={search !== ""} />
      ) : (
        <PageTable site={site} items={items} sort={sort || "-updatedAt"} setSort={setSort} />
      )}
      {pages.hasNextPage ? (
        <button className="action mt-3 self-start" onClick={() => void pages.fetchNextPage()}>
          {say.showMore}
        </button>
      ) : null}
    </>
  );
}

function NewPage({ site }: { site: Site }) {
  const [failed, setFailed] = useState<string>();
  const make = useMutation({
    mutationFn: () =>
      api("POST /sites/:site/pages", {
        site: site.id,
        body: {
          title: say.untitled,
          path: `/untitled-${Date.now().toString(36)}`,
        },
      }),
    onSuccess: (page) => location.assign(`/${site.key}/pages/${page.id}`),
    onError: (error) => setFailed(messageOf(error)),
  });
  return (
    <>
      <button
        data-needs="editor"
        className="action action-main"
        disabled={make.isPending}
        onClick={() => make.mutate()}
      >
        <FilePlus2 size={16} aria-hidden /> {say.newPage}
      </button>
      {failed ? <p className="basis-full text-bad">{failed}</p> : null}
    </>
  );
}

// A page deleted in the writing view is told of here, with its way back.
function offerUndo(site: Site): LeftPath | undefined {
  const kept = sessionStorage.getItem("maprope:deleted-page");
  if (!kept) return undefined;
  sessionStorage.removeItem("maprope:deleted-page");
  const { id, title, path } = JSON.parse(kept) as { id: string; title: string; path: string | null };
  notify(say.deleted(title), {
    undo: () =>
      void api("POST /sites/:site/pages/:id/restore", { site: site.id, id }).then(
        () => refresh("GET /sites/:site/pages"),
        (error: unknown) => notify(messageOf(error), { tone: "failed" }),
      ),
  });
  return path ? { path, now: null } : undefined;
}

function Empty({ searching }: { searching: boolean }) {
  return (
    <div className="grid place-items-center gap-1 rounded border border-dashed border-line py-20 text-center">
      <p className="font-medium">{searching ? say.noPageHasTheseWordsInIts : say.thereAreNoPagesYet}</p>
      <p className="text-quiet">{searching ? say.tryFewerOrOtherWords : say.newPageBeginsOneItsLinksWill}</p>
    </div>
  );
}
