import { flexRender, type Table } from "@tanstack/react-table";
import { SortHead } from "./SortHead.tsx";
import { ColumnWidth } from "./ColumnWidth.tsx";
import type { Widths } from "./widths.ts";
import type { WorkRow, WorkTableProps } from "./work-table-props.ts";
import * as say from "../words.ts";

/** The head of a table of many rows: marks all of them, and sorts. */
export function WorkHead<T extends WorkRow>(
  props: WorkTableProps<T> & {
    table: Table<T>;
    isTooWide: boolean;
    widths: Widths;
    setWidth: (name: string, px: number | undefined) => void;
  },
) {
  const { rows, selection, head, sort, setSort, table, isTooWide } = props;
  const areAllMarked = selection.all || (rows.length > 0 && rows.every(({ id }) => selection.has(id)));
  return (
    <thead className={`bg-paper text-sm text-quiet ${isTooWide ? "" : "z-10 lg:sticky lg:top-12"}`}>
      {table.getHeaderGroups().map((group) => (
        <tr key={group.id} className="border-b border-line">
          <th data-needs="editor" scope="col" className="py-1.5 pr-2 text-left">
            <input
              type="checkbox"
              aria-label={say.markAllShown(props.all)}
              checked={areAllMarked}
              disabled={rows.length === 0}
              onChange={(event) => selection.markAll(event.target.checked)}
            />
          </th>
          {group.headers.map((header) => {
            const word = flexRender(header.column.columnDef.header, header.getContext());
            const px = props.widths[header.column.id];
            const { header: said } = header.column.columnDef;
            const edge =
              typeof said === "string" && said !== "" ? (
                <ColumnWidth
                  word={said}
                  px={px}
                  onChange={(next) => props.setWidth(header.column.id, next)}
                />
              ) : null;
            return header.column.getCanSort() ? (
              <SortHead
                key={header.id}
                field={header.column.id}
                sort={sort}
                setSort={setSort}
                className={px === undefined ? head[header.column.id] : ""}
                style={widthOf(px)}
                label={edge ? String(said) : undefined}
                edge={edge}
                downFirst={header.column.columnDef.sortDescFirst}
              >
                {word}
              </SortHead>
            ) : (
              <th
                key={header.id}
                scope="col"
                aria-label={edge ? String(said) : undefined}
                style={widthOf(px)}
                className={`relative py-1.5 pr-3 font-medium ${px === undefined ? (head[header.column.id] ?? "") : ""}`}
              >
                {word}
                {edge}
              </th>
            );
          })}
        </tr>
      ))}
    </thead>
  );
}

/** A width by hand, as a cell has it. */
export function widthOf(px: number | undefined): React.CSSProperties | undefined {
  return px === undefined ? undefined : { width: px, minWidth: px, maxWidth: px };
}
