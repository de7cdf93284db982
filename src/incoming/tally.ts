/** Upper ends of the spans that answers' times are counted in, in seconds; what took longer is counted beyond the last. */
export const TIME_BOUNDS = [0.0005, 0.001, 0.0025, 0.005, 0.01, 0.025, 0.05, 0.1, 0.25, 0.5, 1, 5] as const;

/** How many answers there were of a kind, and how long they took. */
export interface AnswerTimes {
  count: number;
  /** Seconds of all together. */
  sum: number;
  /** For each span of `TIME_BOUNDS`, and one more beyond them; not added up. */
  spans: readonly number[];
}

/** Counts answers by their kind. */
export interface Tally<Kind extends string = string> {
  /** Counts an answer; both times by `performance.now()`. */
  add(kind: Kind, began: number, ended: number): void;
  read(): Readonly<Record<Kind, AnswerTimes>>;
}

/** Plain numbers: the hot path has no time for more, and whoever collects them makes of them what it needs. */
export function createTally<const Kind extends string>(kinds: readonly Kind[]): Tally<Kind> {
  const times = Object.fromEntries(
    kinds.map((kind) => [
      kind,
      { count: 0, sum: 0, spans: new Array<number>(TIME_BOUNDS.length + 1).fill(0) },
    ]),
  ) as unknown as Record<Kind, { count: number; sum: number; spans: number[] }>;
  return {
    add(kind, began, ended) {
      const seconds = (ended - began) / 1000;
      const of = times[kind];
      let span = 0;
      while (span < TIME_BOUNDS.length && seconds > TIME_BOUNDS[span]!) span += 1;
      of.count += 1;
      of.sum += seconds;
      of.spans[span]! += 1;
    },
    read: () => times,
  };
}
