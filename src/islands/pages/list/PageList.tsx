import { useInfiniteQuery, useMutation } from "@tanstack/react-query";
import { FilePlus2 } from "lucide-react";
import { useEffect, useState } from "react";
import type { PageSummary } from "../../../core/pages/page.ts";
import type { Site } from "../../../core/sites/site.ts";
import { notify } from "../../../ui/notices/notices.ts";
import { Knot } from "../../../ui/links/Knot.tsx";
import { SortHead } from "../../../ui/table/SortHead.tsx";
import { PageState } from "../../../ui/frame/PageState.tsx";
import { Screen } from "../../../ui/frame/Screen.tsx";
import { useAddressState } from "../../../ui/client/url-state.ts";
import { useDebounced } from "../../../ui/keys/use-debounced.ts";
import { LeftBehind, type LeftPath } from "../LeftBehind.tsx";
import { SectionTabs } from "../../../ui/frame/SectionTabs.tsx";
import { when } from "../../../ui/format/when.ts";
import { refresh, keyOf } from "../../../ui/client/queries.ts";
import { api, messageOf } from "../../../ui/client/api.ts";

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
  const [q, setQ] = useAddressState("q");
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
      <div className="mb-3 flex flex-wrap items-center gap-3">
        <input
          className="field max-w-72"
          type="search"
          aria-label="Search pages by title, path or text"
          placeholder="Title, path or text"
          value={q}
          onChange={(event) => setQ(event.target.value)}
        />
        <span className="text-sm text-quiet">
          {pages.isSuccess ? `${total} ${total === 1 ? "page" : "pages"}` : ""}
        </span>
        <NewPage site={site} />
      </div>
      {pages.isError ? <p className="text-bad">{messageOf(pages.error)}</p> : null}
      {pages.isSuccess && items.length === 0 ? (
        <Empty searching={search !== ""} />
      ) : (
        <Table site={site} items={items} sort={sort || "-updatedAt"} setSort={setSort} />
      )}
      {pages.hasNextPage ? (
        <button className="action mt-3 self-start" onClick={() => void pages.fetchNextPage()}>
          Show more
        </button>
      ) : null}
    </>
  );
}

function Table(props: { site: Site; items: PageSummary[]; sort: string; setSort: (sort: string) => void }) {
  const head = { sort: props.sort, setSort: props.setSort };
  return (
    <table className="w-full border-collapse text-left">
      <thead className="sticky top-[46px] z-10 bg-paper text-sm text-quiet">
        <tr className="border-b border-line">
          <SortHead field="title" {...head}>
            Title
          </SortHead>
          <SortHead field="path" {...head}>
            Path
          </SortHead>
          <SortHead field="category" className="max-md:hidden" {...head}>
            Category
          </SortHead>
          <th scope="col" className="py-1.5 pr-3 font-medium max-md:hidden">
            Links
          </th>
          <th scope="col" className="py-1.5 pr-3 font-medium">
            State
          </th>
          <SortHead field="updatedAt" downFirst className="max-sm:hidden" {...head}>
            Last saved
          </SortHead>
        </tr>
      </thead>
      <tbody>
        {props.items.map((page) => (
          <tr key={page.id} className="border-b border-line/60 hover:bg-sheet">
            <td className="py-1.5 pr-3">
              <a
                className="font-medium hover:text-accent hover:underline"
                href={`/${props.site.key}/pages/${page.id}`}
              >
                {page.title}
              </a>
            </td>
            <td className="py-1.5 pr-3 font-mono text-[0.86em] text-quiet">{page.path}</td>
            <td className="py-1.5 pr-3 max-md:hidden">{page.category}</td>
            <td className="py-1.5 pr-3 max-md:hidden">
              <SmallRope page={page} />
            </td>
            <td className="py-1.5 pr-3 whitespace-nowrap">
              <PageState page={page} />
            </td>
            <td className="py-1.5 text-sm whitespace-nowrap text-quiet max-sm:hidden">
              {when(page.updatedAt)} by {page.updatedBy}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

/** The page's links in the order of its text, as knots on a short rope. */
function SmallRope({ page }: { page: PageSummary }) {
  if (page.links === 0) return <span className="text-quiet">none</span>;
  return (
    <span className="flex items-center gap-px" title={`${page.links} links, ${page.outside} outside`}>
      <span className="sr-only">
        {page.links} links, {page.outside} outside
      </span>
      <span className="h-0.5 w-2 bg-hemp" aria-hidden />
      {page.knots.map((kind, index) => (
        <Knot key={index} kind={kind} size={13} />
      ))}
      <span className="h-0.5 w-2 bg-hemp" aria-hidden />
      {page.links > page.knots.length ? (
        <span className="text-sm text-quiet">and {page.links - page.knots.length} more</span>
      ) : null}
    </span>
  );
}

function NewPage({ site }: { site: Site }) {
  const [failed, setFailed] = useState<string>();
  const make = useMutation({
    mutationFn: () =>
      api("POST /sites/:site/pages", {
        site: site.id,
        body: {
          title: "Untitled",
          path: `/untitled-${Date.now().toString(36)}`,
        },
      }),
    onSuccess: (page) => location.assign(`/${site.key}/pages/${page.id}`),
    onError: (error) => setFailed(messageOf(error)),
  });
  return (
    <>
      <button className="action action-main ml-auto" disabled={make.isPending} onClick={() => make.mutate()}>
        <FilePlus2 size={16} aria-hidden /> New page
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
  notify(`Deleted “${title}”`, {
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
      <p className="font-medium">
        {searching ? "No page has these words in its title, path or text." : "There are no pages yet."}
      </p>
      <p className="text-quiet">
        {searching
          ? "Try fewer or other words."
          : "“New page” begins one; its links will stand on a rope beside the text."}
      </p>
    </div>
  );
}
