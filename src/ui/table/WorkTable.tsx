// In a narrow window cells are laid out as blocks, which some browsers take for none: roles say what they are.
/* eslint-disable jsx-a11y/no-redundant-roles */
import { getCoreRowModel, useReactTable } from "@tanstack/react-table";
import { useWindowVirtualizer } from "@tanstack/react-virtual";
import { useEffect, useLayoutEffect, useMemo, useRef, useState } from "react";
import type { WorkRow, WorkTableProps } from "./work-table-props.ts";
import { useNarrow } from "./use-narrow.ts";
import { useRoom } from "./use-room.ts";
import { useRowKeys } from "./use-row-keys.ts";
import { useTooWide } from "./use-too-wide.ts";
import { useRemembered } from "../client/remembered.ts";
import { useTakenOver } from "../frame/later.tsx";
import { readWidths, withoutWidth, writeWidths } from "./widths.ts";
import { WorkHead } from "./WorkHead.tsx";
import { WorkRow as Row, type RowEvents } from "./WorkRow.tsx";

/** Rows, about; each is measured when it is drawn. In a narrow window they are read downwards. */
const ROW_PX = 37;
const NARROW_ROW_PX = 110;
const ASK_AHEAD = 40;
/** Rows that are drawn above and below those in sight, once the server's are taken over. */
const OVERSCAN = 6;

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
  const isTakenOver = useTakenOver();
  const [room, tellRoom] = useRoom(props.name);
  const [top, setTop] = useState(room.abovePx);
  useEffect(() => {
    const abovePx = Math.round((body.current?.getBoundingClientRect().top ?? 0) + scrollY);
    setTop(abovePx);
    tellRoom({ abovePx, windowPx: innerHeight });
  }, [tellRoom]);
  const virtual = useWindowVirtualizer({
    count: rows.length,
    estimateSize: () => (isNarrow ? NARROW_ROW_PX : ROW_PX),
    overscan: isTakenOver ? OVERSCAN : 0,
    scrollMargin: top,
    // What the server draws, and is taken over: the rows that are seen at once.
    initialOffset: 0,
    initialRect: { width: 1280, height: room.windowPx },
    getItemKey: (index) => rows[index]?.id ?? index,
  });
  const wasNarrow = useRef(isNarrow);
  useEffect(() => {
    if (wasNarrow.current !== isNarrow) virtual.measure();
    wasNarrow.current = isNarrow;
  }, [isNarrow, virtual]);
  const items = virtual.getVirtualItems();
  const last = items.at(-1)?.index ?? 0;
  useEffect(() => {
    if (last > rows.length - ASK_AHEAD) more?.();
  }, [last, rows.length, more]);
  const before = (items[0]?.start ?? top) - top;
  const after = virtual.getTotalSize() - ((items.at(-1)?.end ?? top) - top);
  const keys = useRowKeys(data, selection, props.onKey, (index) => virtual.scrollToIndex(index));
  const events = useRowEvents({
    onMark: selection.mark,
    onFocus: keys.onFocus,
    measure: virtual.measureElement,
  });
  const [frame, isTooWide] = useTooWide<HTMLDivElement>();
  const [kept, keep] = useRemembered(`widths_${props.name}`);
  const widths = useMemo(() => readWidths(kept), [kept]);
  const setWidth = (name: string, px: number | undefined): void =>
    keep(writeWidths(px === undefined ? withoutWidth(widths, name) : { ...widths, [name]: px }));

  return (
    // A table that fits keeps its head in sight; one that does not is moved sideways.
    <div ref={frame} className={`relative ${isTooWide ? "overflow-x-auto" : "overflow-x-clip"}`}>
      <table role="table" className="stacking w-full border-collapse text-left" aria-rowcount={rows.length}>
        <WorkHead {...props} {...{ table, isTooWide, widths, setWidth }} />
        <tbody role="rowgroup" ref={body} onKeyDown={keys.onKeyDown}>
          {before > 0 ? <Space height={before} isNarrow={isNarrow} /> : null}
          {items.map(({ index }) => {
            const row = rows[index]!;
            const { id } = row.original;
            return (
              <Row
                key={row.id}
                id={id}
                index={index}
                name={props.nameOf(row.original)}
                cells={row.getVisibleCells()}
                cellClass={props.cell}
                widths={widths}
                isMarked={selection.has(id)}
                isOpen={id === props.openId}
                isDim={props.isDim?.(row.original) ?? false}
                isNarrow={isNarrow}
                isAt={index === keys.at}
                events={events}
              />
            );
          })}
          {after > 0 ? <Space height={after} isNarrow={isNarrow} /> : null}
        </tbody>
      </table>
    </div>
  );
}

// Rows that stay as they are need not be drawn because what they would tell has been made anew.
function useRowEvents(now: RowEvents): RowEvents {
  const newest = useRef(now);
  useLayoutEffect(() => {
    newest.current = now;
  });
  const [events] = useState<RowEvents>(() => ({
    onMark: (...told) => newest.current.onMark(...told),
    onFocus: (index) => newest.current.onFocus(index),
    measure: now.measure,
  }));
  return events;
}

// In the place of rows that are not drawn. A narrow window leaves out cells that say nothing: not this one.
function Space({ height, isNarrow }: { height: number; isNarrow: boolean }) {
  return (
    <tr aria-hidden style={isNarrow ? { padding: 0 } : undefined}>
      <td style={isNarrow ? { height, display: "block" } : { height }} />
    </tr>
  );
}
