/** One bar, or one stack of them: its label, and a number for each series. */
export interface BarsRow {
  label: string;
  [field: string]: unknown;
}

export interface Series {
  name: string;
  /** Where a row has its number. */
  field: string;
  /** A colour token. */
  color: string;
  /** Series of one stack stand on each other; those of different stacks side by side. */
  stack?: string;
  /** Drawn lightly, as what was. */
  faint?: boolean;
}

/** A moment in the chart, named: a change of the route. */
export interface Mark {
  key: string;
  name: string;
}

/** A chart of bars, as it is drawn here and there. */
export interface BarsChart {
  rows: readonly BarsRow[];
  /** The first series of the same rows of the period before, drawn as a line. */
  before?: readonly BarsRow[] | undefined;
  series: readonly Series[];
  heightPx: number;
  marks?: readonly Mark[];
  bare?: boolean;
  /** Bars lie on their side, as lists of names want it. */
  lying?: boolean;
}
