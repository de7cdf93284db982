// In a narrow window cells are laid out as blocks, which some browsers take for none: roles say what they are.
/* eslint-disable jsx-a11y/no-interactive-element-to-noninteractive-role, jsx-a11y/no-redundant-roles */
import { flexRender, getCoreRowModel, useReactTable } from "@tanstack/react-table";
import { useWindowVirtualizer } from "@tanstack/react-virtual";
import { useEffect, useMemo, useRef, useState } from "react";
import type { WorkRow, WorkTableProps } from "./work-table-props.ts";
import { useNarrow } from "./use-narrow.ts";
import { useRowKeys } from "./use-row-keys.ts";
import { useTooWide } from "./use-too-wide.ts";
import { useRemembered } from "../client/remembered.ts";
import { readWidths, withoutWidth, writeWidths } from "./widths.ts";
import { WorkHead, widthOf } from "./WorkHead.tsx";
import * as say from "../words.ts";

/** Rows, about; each is measured when it is drawn. In a narrow window they are read downwards. */
const ROW_PX = 37;
const NARROW_ROW_PX = 110;
const ASK_AHEAD = 40;

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
  const isNarrow = useNarrow();
  const body = useRef<HTMLTableSectionElement>(null);
  const [top, setTop] = useState(0);
  useEffect(() => setTop((body.current?.getBoundingClientRect().top ?? 0) + scrollY), []);
  const virtual = useWindowVirtualizer({
    count: rows.length,
    estimateSize: () => (isNarrow ? NARROW_ROW_PX : ROW_PX),
    overscan: 6,
    scrollMargin: top,
    // What the server draws, and is taken over: the rows of a window of common size.
    initialOffset: 0,
    initialRect: { width: 1280, height: 800 },
    getItemKey: (index) => rows[index]?.id ?? index,
  });
  useEffect(() => virtual.measure(), [isNarrow, virtual]);
  const items = virtual.getVirtualItems();
  const last = items.at(-1)?.index ?? 0;
  useEffect(() => {
    if (last > rows.length - ASK_AHEAD) more?.();
  }, [last, rows.length, more]);
  const before = (items[0]?.start ?? top) - top;
  const after = virtual.getTotalSize() - ((items.at(-1)?.end ?? top) - top);
  const keys = useRowKeys(data, selection, props.onKey, (index) => virtual.scrollToIndex(index));
  const [room, isTooWide] = useTooWide<HTMLDivElement>();
  const [kept, keep] = useRemembered(`widths_${props.name}`);
  const widths = useMemo(() => readWidths(kept), [kept]);
  const setWidth = (name: string, px: number | undefined): void =>
    keep(writeWidths(px === undefined ? withoutWidth(widths, name) : { ...widths, [name]: px }));

  return (
    // A table that fits keeps its head in sight; one that does not is moved sideways.
    <div ref={room} className={`relative ${isTooWide ? "overflow-x-auto" : "overflow-x-clip"}`}>
      <table role="table" className="stacking w-full border-collapse text-left" aria-rowcount={rows.length}>
        <WorkHead {...props} {...{ table, isTooWide, widths, setWidth }} />
        <tbody role="rowgroup" ref={body} onKeyDown={keys.onKeyDown}>
          {before > 0 ? <Space height={before} isNarrow={isNarrow} /> : null}
          {items.map(({ index }) => {
            const row = rows[index]!;
            const { id } = row.original;
            const marked = selection.has(id);
            const isOpen = id === props.openId;
            return (
              <tr
                key={row.id}
                role="row"
                ref={virtual.measureElement}
                data-index={index}
                data-row={index}
                data-key={id}
                tabIndex={index === keys.at ? 0 : -1}
                aria-selected={marked || isOpen}
                aria-rowindex={index + 1}
                onFocus={() => keys.onFocus(index)}
                className={`h-9 border-b border-line/60 ${isOpen ? "bg-wash" : marked ? "bg-sunk" : "hover:bg-sheet"} ${props.isDim?.(row.original) ? "text-quiet [--color-ink:var(--color-quiet)]" : ""}`}
              >
                <td role="cell" data-needs="editor" className="py-1 pr-2">
                  <input
                    type="checkbox"
                    tabIndex={-1}
                    aria-label={say.mark2(props.nameOf(row.original))}
                    checked={marked}
                    onChange={(event) =>
                      selection.mark(id, event.target.checked, (event.nativeEvent as MouseEvent).shiftKey)
                    }
                  />
                </td>
                {row.getVisibleCells().map((cell, at) => (
                  <td
                    key={cell.id}
                    role="cell"
                    style={isNarrow ? undefined : widthOf(widths[cell.column.id])}
                    data-word={at === 0 ? undefined : wordOf(cell.column.columnDef.header)}
                    className={`py-1 pr-3 align-middle ${at === 0 ? "leads" : ""} ${widths[cell.column.id] === undefined ? (props.cell[cell.column.id] ?? "") : "overflow-hidden"}`}
                  >
                    {flexRender(cell.column.columnDef.cell, cell.getContext())}
                  </td>
                ))}
              </tr>
            );
          })}
          {after > 0 ? <Space height={after} isNarrow={isNarrow} /> : null}
        </tbody>
      </table>
    </div>
  );
}

// A head that is more than words says nothing in front of a value.
function wordOf(header: unknown): string | undefined {
  return typeof header === "string" && header !== "" ? header : undefined;
}

// In the place of rows that are not drawn. A narrow window leaves out cells that say nothing: not this one.
function Space({ height, isNarrow }: { height: number; isNarrow: boolean }) {
  return (
    <tr aria-hidden style={isNarrow ? { padding: 0 } : undefined}>
      <td style={isNarrow ? { height, display: "block" } : { height }} />
    </tr>
  );
}
