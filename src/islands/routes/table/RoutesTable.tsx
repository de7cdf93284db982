import { flexRender, getCoreRowModel, useReactTable } from "@tanstack/react-table";
import { useWindowVirtualizer } from "@tanstack/react-virtual";
import { useEffect, useMemo, useRef, useState, type KeyboardEvent } from "react";
import type { Route } from "../../../core/objects/route.ts";
import type { Site } from "../../../core/objects/site.ts";
import { copyText } from "../../../ui/copy.ts";
import { SortHead } from "../../../ui/SortHead.tsx";
import { setAddressState, useAddressState } from "../../../ui/url-state.ts";
import { useDeleteRoute } from "../use-routes.ts";
import { COLUMN_WORDS, shownColumns } from "./column-names.ts";
import { routeColumns } from "./columns.tsx";
import type { Selection } from "./use-selection.ts";

// What is left of the width goes to the destination and, if there is room, the title.
const WIDE: Readonly<Record<string, string>> = {
  clicks: "text-right",
  destination: "w-[45%]",
  title: "w-[25%] max-lg:hidden",
};
const NARROW: Readonly<Record<string, string>> = {
  destination: "max-w-0",
  title: "max-w-0 max-lg:hidden",
};
const ROW_PX = 36;

/**
 * The routes as a table; a row opens beside it. Only the rows in sight are drawn. Arrow keys walk, Space marks,
 * Enter opens, c copies, Delete deletes.
 */
export function RoutesTable(props: {
  site: Site;
  routes: Route[];
  narrow: boolean;
  openId: string;
  sort: string;
  setSort: (sort: string) => void;
  selection: Selection;
  more: (() => void) | undefined;
}) {
  const { site, routes, narrow, selection, more } = props;
  const [choice] = useAddressState("columns");
  const columns = useMemo(() => routeColumns(site), [site]);
  const shown = shownColumns(choice);
  const table = useReactTable({
    data: routes,
    columns,
    getRowId: (route) => route.id,
    getCoreRowModel: getCoreRowModel(),
    manualSorting: true,
    state: {
      columnVisibility: Object.fromEntries(
        Object.keys(COLUMN_WORDS).map((name) => [
          name,
          shown.includes(name) &&
            !(narrow && ["title", "lastClick", "health", "tags", "updatedAt", "createdAt"].includes(name)),
        ]),
      ),
    },
  });
  const rows = table.getRowModel().rows;
  const body = useRef<HTMLTableSectionElement>(null);
  const [top, setTop] = useState(0);
  useEffect(() => setTop(body.current?.getBoundingClientRect().top ?? 0 + scrollY), []);
  const virtual = useWindowVirtualizer({
    count: rows.length,
    estimateSize: () => ROW_PX,
    overscan: 15,
    scrollMargin: top,
    getItemKey: (index) => rows[index]?.id ?? index,
  });
  const items = virtual.getVirtualItems();
  const last = items.at(-1)?.index ?? 0;
  useEffect(() => {
    if (last > rows.length - 40) more?.();
  }, [last, rows.length, more]);
  const before = (items[0]?.start ?? top) - top;
  const after = virtual.getTotalSize() - ((items.at(-1)?.end ?? top) - top);
  const keys = useRowKeys(site, routes, selection, (index) => virtual.scrollToIndex(index));

  return (
    <div className="overflow-x-clip">
      <table className="w-full border-collapse text-left" aria-rowcount={rows.length}>
        <thead className="sticky top-12 z-10 bg-paper text-sm text-quiet max-lg:static">
          {table.getHeaderGroups().map((group) => (
            <tr key={group.id} className="border-b border-line">
              <th scope="col" className="py-1.5 pr-2 text-left">
                <input
                  type="checkbox"
                  aria-label="Mark all routes shown"
                  checked={
                    selection.all || (routes.length > 0 && routes.every(({ id }) => selection.has(id)))
                  }
                  onChange={(event) => selection.markAll(event.target.checked)}
                />
              </th>
              {group.headers.map((header) =>
                header.column.getCanSort() ? (
                  <SortHead
                    key={header.id}
                    field={header.column.id}
                    sort={props.sort}
                    setSort={props.setSort}
                    className={WIDE[header.column.id]}
                  >
                    {flexRender(header.column.columnDef.header, header.getContext())}
                  </SortHead>
                ) : (
                  <th key={header.id} scope="col" className="py-1.5 pr-3 font-medium">
                    {flexRender(header.column.columnDef.header, header.getContext())}
                  </th>
                ),
              )}
            </tr>
          ))}
        </thead>
        <tbody ref={body} onKeyDown={keys.onKeyDown}>
          {before > 0 ? <Space height={before} /> : null}
          {items.map(({ index }) => {
            const row = rows[index]!;
            const { id, enabled, address } = row.original;
            const marked = selection.has(id);
            return (
              <tr
                key={row.id}
                data-row={index}
                tabIndex={index === keys.at ? 0 : -1}
                aria-selected={marked || id === props.openId}
                aria-rowindex={index + 1}
                onFocus={() => keys.setAt(index)}
                className={`h-9 border-b border-line/60 ${id === props.openId ? "bg-wash" : marked ? "bg-sunk" : "hover:bg-sheet"} ${enabled ? "" : "opacity-60"}`}
              >
                <td className="py-1 pr-2">
                  <input
                    type="checkbox"
                    tabIndex={-1}
                    aria-label={`Mark ${address}`}
                    checked={marked}
                    onChange={(event) =>
                      selection.mark(id, event.target.checked, (event.nativeEvent as MouseEvent).shiftKey)
                    }
                  />
                </td>
                {row.getVisibleCells().map((cell) => (
                  <td key={cell.id} className={`py-1 pr-3 align-middle ${NARROW[cell.column.id] ?? ""}`}>
                    {flexRender(cell.column.columnDef.cell, cell.getContext())}
                  </td>
                ))}
              </tr>
            );
          })}
          {after > 0 ? <Space height={after} /> : null}
        </tbody>
      </table>
    </div>
  );
}

function Space({ height }: { height: number }) {
  return (
    <tr aria-hidden>
      <td style={{ height }} />
    </tr>
  );
}

function useRowKeys(
  site: Site,
  routes: readonly Route[],
  selection: Selection,
  show: (index: number) => void,
) {
  const [at, setAt] = useState(0);
  const remove = useDeleteRoute(site);
  const goTo = (index: number): void => {
    const next = Math.max(0, Math.min(routes.length - 1, index));
    setAt(next);
    show(next);
    requestAnimationFrame(() => document.querySelector<HTMLElement>(`[data-row="${next}"]`)?.focus());
  };
  const onKeyDown = (event: KeyboardEvent<HTMLElement>): void => {
    const target = event.target as HTMLElement;
    if (target.closest("input, button, a, select") && !["ArrowDown", "ArrowUp"].includes(event.key)) return;
    if (event.ctrlKey || event.metaKey || event.altKey) return;
    const route = routes[at];
    const act = (work: () => void): void => {
      event.preventDefault();
      work();
    };
    const steps: Readonly<Record<string, number>> = {
      ArrowDown: 1,
      j: 1,
      ArrowUp: -1,
      k: -1,
      PageDown: 20,
      PageUp: -20,
    };
    if (event.key in steps) {
      const step = steps[event.key]!;
      act(() => {
        if (event.shiftKey && route) selection.mark(route.id, true, false);
        goTo(at + step);
      });
    } else if (event.key === "Home") act(() => goTo(0));
    else if (event.key === "End") act(() => goTo(routes.length - 1));
    else if (!route) return;
    else if (event.key === " ") act(() => selection.mark(route.id, !selection.has(route.id), false));
    else if (event.key === "Enter") act(() => setAddressState({ open: route.id }));
    else if (event.key === "c") act(() => void copyText(route.url));
    else if (event.key === "Delete") act(() => remove.mutate(route));
  };
  return { at: Math.min(at, Math.max(0, routes.length - 1)), setAt, onKeyDown };
}
