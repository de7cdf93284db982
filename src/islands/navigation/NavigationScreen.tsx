import { useMutation, useQuery } from "@tanstack/react-query";
import { arrayMove } from "@dnd-kit/sortable";
import { Plus } from "lucide-react";
import { useState } from "react";
import type { Navigation, NavigationItem } from "../../core/navigation/navigation.ts";
import type { PageSummary } from "../../core/pages/page.ts";
import type { Site } from "../../core/sites/site.ts";
import { useKeptState } from "../../ui/client/kept-state.ts";
import { notify } from "../../ui/notices/notices.ts";
import { Screen } from "../../ui/frame/Screen.tsx";
import { SortedList, type Dropped } from "../../ui/fields/SortedList.tsx";
import { SectionTabs } from "../../ui/frame/SectionTabs.tsx";
import { HistoryLink } from "../../ui/links/HistoryLink.tsx";
import { NavigationRow } from "./NavigationRow.tsx";
import {
  flattenNavigation,
  moveBranch,
  shiftBranch,
  treeNavigation,
  type FlatItem,
} from "../../core/navigation/branches.ts";
import { queries, asking, refresh, keyOf } from "../../ui/client/queries.ts";
import { api, messageOf, ApiProblem } from "../../ui/client/api.ts";
import * as say from "./words.ts";

/** The site's navigation as a tree: dragged about, or moved with the keyboard; readers get it when it is saved. */
export function NavigationScreen({ site }: { site: Site }) {
  return (
    <Screen>
      <SectionTabs site={site} tab="navigation" />
      <Loader site={site} />
    </Screen>
  );
}

function Loader({ site }: { site: Site }) {
  const navigation = useQuery({
    ...asking("GET /sites/:site/navigation", { site: site.id }),
    refetchOnWindowFocus: false,
    staleTime: Infinity,
  });
  const pages = useQuery(
    asking("GET /sites/:site/pages", { site: site.id, query: { limit: 500, sort: "title" } }),
  );
  if (navigation.isError || pages.isError)
    return <p className="text-bad">{messageOf(navigation.error ?? pages.error)}</p>;
  if (!navigation.data || !pages.data) return <p className="text-quiet">{say.fetchingTheNavigation}</p>;
  return (
    <Tree key={navigation.data.version} site={site} navigation={navigation.data} pages={pages.data.items} />
  );
}

function Tree({
  site,
  navigation,
  pages,
}: {
  site: Site;
  navigation: Navigation;
  pages: readonly PageSummary[];
}) {
  const [flat, setFlat, forget] = useKeptState<readonly FlatItem[]>(
    `navigation:${site.id}`,
    String(navigation.version),
    () => flattenNavigation(navigation.items),
  );
  const [open, setOpen] = useState<string>();
  const save = useMutation({
    mutationFn: (items: NavigationItem[]) =>
      api("PUT /sites/:site/navigation", { site: site.id, body: { version: navigation.version, items } }),
    onSuccess: (saved) => {
      forget();
      queries.setQueryData(keyOf("GET /sites/:site/navigation", { site: site.id }), saved);
      notify(say.savedReadersHaveThisNavigationNow);
    },
  });
  const change = (id: string, part: Partial<NavigationItem>): void =>
    setFlat((before) => before.map((item) => (item.id === id ? { ...item, ...part } : item)));
  const remove = (id: string): void => {
    const before = flat;
    setFlat(flat.filter((item) => item.id !== id));
    notify(say.removedFromTheNavigation, { undo: () => setFlat(before) });
  };
  const add = (item: Omit<NavigationItem, "id" | "children">): void => {
    const id = crypto.randomUUID();
    setFlat((before) => [...before, { ...item, id, children: [], level: 0 }]);
    if (item.label === "") setOpen(id);
  };
  const dropped = ({ id, from, to, aside }: Dropped): void => {
    const moved = to === from ? flat : arrayMove([...flat], from, to);
    // To the side means deeper or higher up.
    const steps = Math.round(aside / 28);
    setFlat(steps === 0 ? moved : shiftBranch(moved, id, steps));
  };
  const isChanged = JSON.stringify(treeNavigation(flat)) !== JSON.stringify(navigation.items);
  const inside = new Set(flat.flatMap(({ page }) => page ?? []));
  const outside = pages.filter(({ id }) => !inside.has(id));
  const faults = save.error instanceof ApiProblem ? save.error.errors.map(({ message }) => message) : [];
  return (
    <div className="grid gap-6 grid-cols-[minmax(0,1fr)] lg:grid-cols-[minmax(0,1fr)_20rem]">
      <section aria-label={say.navigation}>
        <div className="mb-2 flex flex-wrap items-center gap-2">
          <button data-needs="editor" className="action" onClick={() => add({ label: "", kind: "address" })}>
            <Plus size={15} aria-hidden /> {say.entry}
          </button>
          <button data-needs="editor" className="action" onClick={() => add({ label: "", kind: "heading" })}>
            <Plus size={15} aria-hidden /> {say.headingWithEntriesBelow}
          </button>
          <button
            data-needs="editor"
            className="action action-main ml-auto"
            disabled={!isChanged || save.isPending}
            onClick={() => save.mutate(treeNavigation(flat))}
          >
            {say.saveForReaders}
          </button>
        </div>
        {save.isError ? (
          <p role="alert" className="mb-2 text-bad">
            {faults.length > 0 ? faults.join(" ") : messageOf(save.error)}
            {save.error instanceof ApiProblem && save.error.status === 409 ? (
              <button className="action ml-2" onClick={() => void refresh("GET /sites/:site/navigation")}>
                {say.fetchTheirs}
              </button>
            ) : null}
          </p>
        ) : null}
        {flat.length === 0 ? (
          <p className="rounded border border-dashed border-line py-14 text-center text-quiet">
            {navigation.version === 0
              ? say.readersSeeThePagesThatAreMarked
              : say.theNavigationIsEmptyReadersSeeNone}
          </p>
        ) : (
          <SortedList
            ids={flat.map(({ id }) => id)}
            nameOf={(id) => flat.find((item) => item.id === id)?.label || say.anEntryWithoutALabel}
            onDrop={dropped}
          >
            <ol>
              {flat.map((item) => (
                <NavigationRow
                  key={item.id}
                  site={site}
                  item={item}
                  pages={pages}
                  open={open === item.id}
                  onOpen={(isOpen) => setOpen(isOpen ? item.id : undefined)}
                  onChange={(part) => change(item.id, part)}
                  onRemove={() => remove(item.id)}
                  onMove={(step) => setFlat(moveBranch(flat, item.id, step))}
                  onShift={(step) => setFlat(shiftBranch(flat, item.id, step))}
                />
              ))}
            </ol>
          </SortedList>
        )}
        <p className="mt-3 text-sm text-quiet">
          {say.dragAnEntryByItsGripTo} <HistoryLink site={site} kind="navigation" />
        </p>
      </section>
      <section aria-label={say.pagesKeptOut}>
        <h2 className="mb-1 font-semibold">{say.keptOutOfTheNavigation}</h2>
        <ul>
          {outside.map((page) => (
            <li key={page.id} className="flex items-center gap-2 border-b border-line/60 py-1">
              <span className="truncate">{page.title}</span>
              {page.status === "draft" ? <span className="text-xs text-warn">{say.draft}</span> : null}
              <button
                data-needs="editor"
                className="action action-plain ml-auto"
                onClick={() => add({ label: page.title, kind: "page", page: page.id })}
              >
                {say.add}
                <span className="sr-only"> {page.title}</span>
              </button>
            </li>
          ))}
        </ul>
      </section>
    </div>
  );
}
