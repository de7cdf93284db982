import type { ColumnDef } from "@tanstack/react-table";
import type { Selection } from "./use-selection.ts";

/** A row of a table: it is told by its id. */
export interface WorkRow {
  id: string;
}

/** What a table of many rows is made of. */
export interface WorkTableProps<T extends WorkRow> {
  /** What it is called where the widths of its columns are remembered. */
  name: string;
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
