// In a narrow window cells are laid out as blocks, which some browsers take for none: roles say what they are.
/* eslint-disable jsx-a11y/no-interactive-element-to-noninteractive-role */
import { flexRender, type Cell } from "@tanstack/react-table";
import { memo } from "react";
import type { Widths } from "./widths.ts";
import { widthOf } from "./WorkHead.tsx";
import * as say from "../words.ts";

/** What a row tells its table; the same object for all rows and as long as the table stands. */
export interface RowEvents {
  onMark(id: string, on: boolean, through: boolean): void;
  onFocus(index: number): void;
  /** Its element, to be measured. */
  measure(element: HTMLTableRowElement | null): void;
}

interface WorkRowProps {
  id: string;
  index: number;
  /** What it is called for who does not see it. */
  name: string;
  // Columns hold values of many types.
  // eslint-disable-next-line @typescript-eslint/no-explicit-any
  cells: readonly Cell<any, unknown>[];
  cellClass: Readonly<Record<string, string>>;
  widths: Widths;
  isMarked: boolean;
  isOpen: boolean;
  isDim: boolean;
  isNarrow: boolean;
  /** Whether Tab leads to it. */
  isAt: boolean;
  events: RowEvents;
}

/** One row of a table of many, drawn anew when something of it is another. */
export const WorkRow = memo(function WorkRow(props: WorkRowProps) {
  const { id, index, isMarked, isOpen, isNarrow, widths, events } = props;
  const ground = isOpen ? "bg-wash" : isMarked ? "bg-sunk" : "hover:bg-sheet";
  return (
    <tr
      role="row"
      ref={events.measure}
      data-index={index}
      data-row={index}
      data-key={id}
      tabIndex={props.isAt ? 0 : -1}
      aria-selected={isMarked || isOpen}
      aria-rowindex={index + 1}
      onFocus={() => events.onFocus(index)}
      className={`h-9 border-b border-line/60 ${ground} ${props.isDim ? "text-quiet [--color-ink:var(--color-quiet)]" : ""}`}
    >
      <td role="cell" data-needs="editor" className="py-1 pr-2">
        <input
          type="checkbox"
          tabIndex={-1}
          aria-label={say.mark2(props.name)}
          checked={isMarked}
          onChange={(event) =>
            events.onMark(id, event.target.checked, (event.nativeEvent as MouseEvent).shiftKey)
          }
        />
      </td>
      {props.cells.map((cell, at) => (
        <td
          key={cell.id}
          role="cell"
          style={isNarrow ? undefined : widthOf(widths[cell.column.id])}
          data-word={at === 0 ? undefined : wordOf(cell.column.columnDef.header)}
          className={`py-1 pr-3 align-middle ${at === 0 ? "leads" : ""} ${widths[cell.column.id] === undefined ? (props.cellClass[cell.column.id] ?? "") : "overflow-hidden"}`}
        >
          {flexRender(cell.column.columnDef.cell, cell.getContext())}
        </td>
      ))}
    </tr>
  );
});

// A head that is more than words says nothing in front of a value.
function wordOf(header: unknown): string | undefined {
  return typeof header === "string" && header !== "" ? header : undefined;
}
