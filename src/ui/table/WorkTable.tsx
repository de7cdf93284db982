import { flexRender, getCoreRowModel, useReactTable, type ColumnDef } from "@tanstack/react-table";
import { useWindowVirtualizer } from "@tanstack/react-virtual";
import { useEffect, useRef, useState, type KeyboardEvent } from "react";
import { SortHead } from "./SortHead.tsx";
import type { Selection } from "./use-selection.ts";
import { useTooWide } from "./use-too-wide.ts";

const ROW_PX = 36;
const ASK_AHEAD = 40;

/** A row of a table: it is told by its id. */
export interface WorkRow {
  id: string;
}

/** What a table of many rows is made of. */
export interface WorkTableProps<T extends WorkRow> {
  rows: readonly T[];
  // Columns hold values of many types.
  // eslint-disable-next-line @typescript-eslint/no-explicit-any
  columns: ColumnDef<T, any>[];
  /** Whether a column is shown. */
  visible: Readonly<Record<string, boolean>>;
  /** Classes of a column's head and of its cells. */
  head: Readonly<Record<string, string>>;
  cell: Readonly<Record<string, string>>;
  /** The row that is open beside the table. */
  openId: string;
  sort: string;
  setSort: (sort: string) => void;
  selection: Selection;
  /** Fetches more rows; absent when all are there. */
  more: (() => void) | undefined;
  /** What a row is called for who does not see it, and what all of them are. */
  nameOf: (row: T) => string;
  all: string;
  isDim?: (row: T) => boolean;
  /** Does what a key means for a row; answers whether it meant something. */
  onKey: (key: string, row: T) => boolean;
}

/**
 * A table of any number of rows, of which only those in sight are drawn. Arrow keys walk, with Shift they mark; Space
 * marks one; all other keys mean what the table's owner says.
 */
export function WorkTable<T extends WorkRow>(props: WorkTableProps<T>) {
  const { rows: data, columns, visible, selection, more } = props;
  const table = useReactTable<T>({
    data: data as T[],
    columns,
    getRowId: (row) => row.id,
    getCoreRowModel: getCoreRowModel(),
    manualSorting: true,
    state: { columnVisibility: visible },
  });
  const rows = table.getRowModel().rows;
  const body = useRef<HTMLTableSectionElement>(null);
  const [top, setTop] = useState(0);
  useEffect(() => setTop((body.current?.getBoundingClientRect().top ?? 0) + scrollY), []);
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
    if (last > rows.length - ASK_AHEAD) more?.();
  }, [last, rows.length, more]);
  const before = (items[0]?.start ?? top) - top;
  const after = virtual.getTotalSize() - ((items.at(-1)?.end ?? top) - top);
  const keys = useRowKeys(data, selection, props.onKey, (index) => virtual.scrollToIndex(index));
  const [room, isTooWide] = useTooWide<HTMLDivElement>();
  const areAllMarked = selection.all || (data.length > 0 && data.every(({ id }) => selection.has(id)));

  return (
    // A table that fits keeps its head in sight; one that does not is moved sideways.
    <div ref={room} className={isTooWide ? "overflow-x-auto" : "overflow-x-clip"}>
      <table className="w-full border-collapse text-left" aria-rowcount={rows.length}>
        <thead className={`bg-paper text-sm text-quiet ${isTooWide ? "" : "z-10 lg:sticky lg:top-12"}`}>
          {table.getHeaderGroups().map((group) => (
            <tr key={group.id} className="border-b border-line">
              <th scope="col" className="py-1.5 pr-2 text-left">
                <input
                  type="checkbox"
                  aria-label={`Mark all ${props.all} shown`}
                  checked={areAllMarked}
                  disabled={data.length === 0}
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
                    className={props.head[header.column.id]}
                    downFirst={header.column.columnDef.sortDescFirst}
                  >
                    {flexRender(header.column.columnDef.header, header.getContext())}
                  </SortHead>
                ) : (
                  <th
                    key={header.id}
                    scope="col"
                    className={`py-1.5 pr-3 font-medium ${props.head[header.column.id] ?? ""}`}
                  >
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
            const { id } = row.original;
            const marked = selection.has(id);
            const isOpen = id === props.openId;
            return (
              <tr
                key={row.id}
                data-row={index}
                tabIndex={index === keys.at ? 0 : -1}
                aria-selected={marked || isOpen}
                aria-rowindex={index + 1}
                onFocus={() => keys.setAt(index)}
                className={`h-9 border-b border-line/60 ${isOpen ? "bg-wash" : marked ? "bg-sunk" : "hover:bg-sheet"} ${props.isDim?.(row.original) ? "opacity-60" : ""}`}
              >
                <td className="py-1 pr-2">
                  <input
                    type="checkbox"
                    tabIndex={-1}
                    aria-label={`Mark ${props.nameOf(row.original)}`}
                    checked={marked}
                    onChange={(event) =>
                      selection.mark(id, event.target.checked, (event.nativeEvent as MouseEvent).shiftKey)
                    }
                  />
                </td>
                {row.getVisibleCells().map((cell) => (
                  <td key={cell.id} className={`py-1 pr-3 align-middle ${props.cell[cell.column.id] ?? ""}`}>
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

const STEPS: Readonly<Record<string, number>> = {
  ArrowDown: 1,
  j: 1,
  ArrowUp: -1,
  k: -1,
  PageDown: 20,
  PageUp: -20,
};

function useRowKeys<T extends WorkRow>(
  rows: readonly T[],
  selection: Selection,
  onKey: (key: string, row: T) => boolean,
  show: (index: number) => void,
) {
  const [at, setAt] = useState(0);
  const goTo = (index: number): void => {
    const next = Math.max(0, Math.min(rows.length - 1, index));
    setAt(next);
    show(next);
    requestAnimationFrame(() => document.querySelector<HTMLElement>(`[data-row="${next}"]`)?.focus());
  };
  const means = (event: KeyboardEvent<HTMLElement>): boolean => {
    const row = rows[at];
    const step = STEPS[event.key];
    if (step !== undefined) {
      if (event.shiftKey && row) selection.mark(row.id, true, false);
      goTo(at + step);
    } else if (event.key === "Home") goTo(0);
    else if (event.key === "End") goTo(rows.length - 1);
    else if (!row) return false;
    else if (event.key === " ") selection.mark(row.id, !selection.has(row.id), false);
    else return onKey(event.key, row);
    return true;
  };
  const onKeyDown = (event: KeyboardEvent<HTMLElement>): void => {
    const target = event.target as HTMLElement;
    if (target.closest("input, button, a, select") && !["ArrowDown", "ArrowUp"].includes(event.key)) return;
    if (event.ctrlKey || event.metaKey || event.altKey) return;
    if (means(event)) event.preventDefault();
  };
  return { at: Math.min(at, Math.max(0, rows.length - 1)), setAt, onKeyDown };
}
