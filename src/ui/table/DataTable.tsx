// In a narrow window cells are laid out as blocks, which some browsers take for none: roles say what they are.
/* eslint-disable jsx-a11y/no-interactive-element-to-noninteractive-role, jsx-a11y/no-redundant-roles */
import type { ReactNode } from "react";
import { useRowFocus } from "./use-row-focus.ts";
import { useTooWide } from "./use-too-wide.ts";
import type { Selection } from "./use-selection.ts";
import { SortHead } from "./SortHead.tsx";
import * as say from "../words.ts";

/** A column of a table. */
export interface Column<T> {
  key: string;
  word: ReactNode;
  cell: (row: T) => ReactNode;
  /** Numbers stand at the right, with figures of one width. */
  number?: boolean;
  /** Names its row, for who hears the table. */
  head?: boolean;
  /** It can be sorted by; `down`: one wants the greatest first. */
  sort?: "up" | "down";
  /** Classes of its head and of its cells: how wide it is, and where it is left out. */
  className?: string;
  /** Classes of its cells alone. */
  cellClass?: string;
}

/** A table of rows that are all drawn: what each column is and shows is said once. Wider than its place, it moves sideways. */
export function DataTable<T>(props: {
  /** What the table holds, for who hears it. */
  label: string;
  rows: readonly T[];
  columns: readonly Column<T>[];
  keyOf: (row: T) => string;
  /** `field` or `-field`. */
  sort?: string;
  setSort?: (sort: string) => void;
  /** Classes of a row. */
  rowClass?: (row: T) => string;
  dense?: boolean;
  /** Its rows can be marked; `nameOf` says which one, `all` what they are together. */
  marking?: { selection: Selection; nameOf: (row: T) => string; all: string };
  /** Its head stays in sight while the window is scrolled, where the table fits. */
  isLong?: boolean;
  /** What its columns are is plain to see, and told to who hears it only. */
  isHeadHidden?: boolean;
}) {
  const { label, rows, columns, keyOf, sort = "", setSort, rowClass, dense, marking } = props;
  const [room, isTooWide] = useTooWide<HTMLDivElement>();
  const onFocus = useRowFocus(rows.map(keyOf));
  const at = (column: Column<T>): string =>
    say.pr3(
      dense ? say.py05 : say.py15,
      column.number ? say.pl3TextRightTabularNumsWhitespace : "",
      column.className ?? "",
    );
  return (
    <div
      ref={room}
      // What is moved sideways can be by keys, too.
      {...(isTooWide ? { tabIndex: 0, role: "group", "aria-label": label } : {})}
      className={`relative ${isTooWide ? "overflow-x-auto" : "overflow-x-clip"}`}
    >
      <table
        role="table"
        aria-label={label}
        className={`stacking w-full border-collapse text-left ${dense ? "text-sm" : ""}`}
      >
        <thead
          className={`bg-paper text-sm text-quiet ${props.isHeadHidden ? "sr-only" : ""} ${props.isLong && !isTooWide ? "z-10 lg:sticky lg:top-12" : ""}`}
        >
          <tr className="border-b border-line">
            {marking ? (
              <th data-needs="editor" scope="col" className="w-7 py-1.5">
                <input
                  type="checkbox"
                  aria-label={say.markAllShown(marking.all)}
                  checked={rows.length > 0 && rows.every((row) => marking.selection.has(keyOf(row)))}
                  onChange={(event) => marking.selection.markAll(event.target.checked)}
                />
              </th>
            ) : null}
            {columns.map((column) =>
              column.sort && setSort ? (
                <SortHead
                  key={column.key}
                  field={column.key}
                  sort={sort}
                  setSort={setSort}
                  downFirst={column.sort === "down"}
                  className={at(column)}
                >
                  {column.word}
                </SortHead>
              ) : (
                <th key={column.key} scope="col" className={`font-medium ${at(column)}`}>
                  {column.word}
                </th>
              ),
            )}
          </tr>
        </thead>
        <tbody role="rowgroup" onFocus={onFocus}>
          {rows.map((row) => (
            <tr
              key={keyOf(row)}
              role="row"
              data-key={keyOf(row)}
              className={`border-b border-line/60 ${marking?.selection.has(keyOf(row)) ? "bg-sunk" : ""} ${rowClass?.(row) ?? ""}`}
            >
              {marking ? (
                <td role="cell" data-needs="editor" className={dense ? "py-0.5" : "py-1.5"}>
                  <input
                    type="checkbox"
                    aria-label={say.mark(marking.nameOf(row))}
                    checked={marking.selection.has(keyOf(row))}
                    onChange={(event) =>
                      marking.selection.mark(
                        keyOf(row),
                        event.target.checked,
                        (event.nativeEvent as MouseEvent).shiftKey,
                      )
                    }
                  />
                </td>
              ) : null}
              {columns.map((column) =>
                column.head ? (
                  <th
                    key={column.key}
                    role="rowheader"
                    scope="row"
                    className={`leads font-normal ${at(column)} ${column.cellClass ?? ""}`}
                  >
                    {column.cell(row)}
                  </th>
                ) : (
                  <td
                    key={column.key}
                    role="cell"
                    data-word={typeof column.word === "string" && column.word ? column.word : undefined}
                    className={`${at(column)} ${column.cellClass ?? ""}`}
                  >
                    {column.cell(row)}
                  </td>
                ),
              )}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}
