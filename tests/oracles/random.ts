import { seeded } from "../../demo/seeded.ts";

/** Choices that look random and are the same for the same seed. */
export class Random {
  private readonly next: () => number;

  constructor(seed: number) {
    this.next = seeded(seed);
  }

  /** A whole number from 0 to below the bound. */
  below(bound: number): number {
    return Math.floor(this.next() * bound);
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
