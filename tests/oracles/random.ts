/** Numbers that look random and are the same for the same seed (mulberry32). */
export class Random {
  private state: number;

  constructor(seed: number) {
    this.state = seed;
  }

  /** A whole number from 0 to below the bound. */
  below(bound: number): number {
    this.state = (this.state + 0x6d2b79f5) | 0;
    let mixed = Math.imul(this.state ^ (this.state >>> 15), 1 | this.state);
    mixed = (mixed + Math.imul(mixed ^ (mixed >>> 7), 61 | mixed)) ^ mixed;
    return Math.floor((((mixed ^ (mixed >>> 14)) >>> 0) / 4294967296) * bound);
  }

  /** One of a list. */
  one<T>(list: readonly T[]): T {
    return list[this.below(list.length)]!;
  }
}

/** How much an oracle is asked: a part in every run of the tests, all of it by `npm run oracles`. */
export function asked(part: number, all: number): number {
  return process.env.ORACLES === "all" ? all : part;
}
