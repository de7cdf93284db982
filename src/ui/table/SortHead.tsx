import { ArrowDown, ArrowUp } from "lucide-react";
import type { CSSProperties, ReactNode } from "react";

/**
 * The head of a column that can be sorted by; `sort` is `field` or `-field`. Of figures and dates one wants the
 * greatest first: `downFirst`.
 */
export function SortHead(props: {
  field: string;
  sort: string;
  setSort: (sort: string) => void;
  className?: string;
  downFirst?: boolean;
  style?: CSSProperties | undefined;
  /** What the column is called, where its head holds more than that. */
  label?: string | undefined;
  /** What its width is drawn by. */
  edge?: ReactNode;
  children: ReactNode;
}) {
  const up = props.sort === props.field;
  const down = props.sort === `-${props.field}`;
  return (
    <th
      scope="col"
      aria-sort={up ? "ascending" : down ? "descending" : "none"}
      style={props.style}
      aria-label={props.label}
      className={`relative py-1.5 pr-3 font-medium ${props.className ?? ""}`}
    >
      <button
        className="inline-flex items-center gap-1 hover:text-ink"
        onClick={() => props.setSort(up || (props.downFirst && !down) ? `-${props.field}` : props.field)}
      >
        {props.children}
        {up ? (
          <ArrowUp size={13} className="shrink-0" aria-hidden />
        ) : down ? (
          <ArrowDown size={13} className="shrink-0" aria-hidden />
        ) : null}
      </button>
      {props.edge}
    </th>
  );
}
