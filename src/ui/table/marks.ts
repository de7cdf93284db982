/** Which rows are marked: some by id, or all that the filter leaves, those not shown yet too. */
export interface Marks {
  ids: ReadonlySet<string>;
  all: boolean;
  /** The row that was marked last, where a run of marks begins. */
  last: string | undefined;
}

export const NO_MARKS: Marks = { ids: new Set(), all: false, last: undefined };

/** What is done with marks. */
export type Marking =
  | { do: "mark"; id: string; on: boolean; through: boolean }
  | { do: "mark all shown"; on: boolean }
  | { do: "take all" }
  | { do: "clear" };

/** The marks after something was done with them; `shown` are the rows in their order. */
export function marked(before: Marks, marking: Marking, shown: readonly string[]): Marks {
  switch (marking.do) {
    case "clear":
      return NO_MARKS;
    case "take all":
      return { ...before, ids: new Set(shown), all: true };
    case "mark all shown":
      return { ...before, ...changed(before, shown, marking.on, shown) };
    case "mark": {
      const { id, on, through } = marking;
      const from = through && before.last ? shown.indexOf(before.last) : -1;
      const to = shown.indexOf(id);
      const run = from === -1 ? [id] : shown.slice(Math.min(from, to), Math.max(from, to) + 1);
      return { ...changed(before, run, on, shown), last: id };
    }
  }
}

// Of all that the filter leaves, those that are shown stay marked when one is taken out.
function changed(
  { ids, all }: Marks,
  rows: readonly string[],
  on: boolean,
  shown: readonly string[],
): Pick<Marks, "ids" | "all"> {
  const next = new Set(all ? shown : ids);
  for (const row of rows) {
    if (on) next.add(row);
    else next.delete(row);
  }
  return { ids: next, all: false };
}
