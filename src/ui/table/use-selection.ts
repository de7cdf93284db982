import { useState } from "react";
import { marked, NO_MARKS, type Marking, type Marks } from "./marks.ts";

/** Which rows are marked, and what can be done with the marks. */
export interface Selection extends Pick<Marks, "ids" | "all"> {
  has(id: string): boolean;
  /** Marks or unmarks one; `through`: all from the last one marked to this. */
  mark(id: string, on: boolean, through: boolean): void;
  markAll(on: boolean): void;
  /** Takes all that the filter leaves. */
  takeAll(): void;
  clear(): void;
}

/** Marks over the rows that are shown, in their order. */
export function useSelection(shown: readonly string[]): Selection {
  const [marks, setMarks] = useState(NO_MARKS);
  const change = (marking: Marking): void => setMarks((before) => marked(before, marking, shown));
  return {
    ids: marks.ids,
    all: marks.all,
    has: (id) => marks.all || marks.ids.has(id),
    mark: (id, on, through) => change({ do: "mark", id, on, through }),
    markAll: (on) => change({ do: "mark all shown", on }),
    takeAll: () => change({ do: "take all" }),
    clear: () => change({ do: "clear" }),
  };
}
