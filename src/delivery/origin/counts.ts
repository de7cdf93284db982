import { addFrontCounts, type FrontCounts, type FrontSample } from "../../store/origin/front-counts.ts";
import type { ChangedLink } from "../../core/origin/front/front-rewriter.ts";
import type { Store } from "../../store/ground/store.ts";

const FLUSH_MS = 4_000;
/** Samples that are kept of a site between two writings. */
const MOST_SAMPLES = 50;

const NONE: FrontCounts = {
  passed: 0,
  pages: 0,
  changedPages: 0,
  links: 0,
  changedLinks: 0,
  misses: 0,
  failures: 0,
};

/** Counts what passes through us and what is, or would be, changed of it; written down every few seconds. */
export interface FrontTally {
  add(siteId: string, what: Partial<FrontCounts>): void;
  sample(siteId: string, page: string, link: ChangedLink): void;
  stop(): Promise<void>;
}

/** Begins counting. What could not be written down is tried again with the next. */
export function createFrontTally(
  store: Store,
  report: (message: string, error: unknown) => void,
): FrontTally {
  let counts = new Map<string, FrontCounts>();
  let samples = new Map<string, FrontSample[]>();
  let flushing: Promise<void> | undefined;

  async function flush(): Promise<void> {
    const [now, seen] = [counts, samples];
    [counts, samples] = [new Map(), new Map()];
    for (const [site, of] of now) {
      try {
        await addFrontCounts(store, { site, counts: of, samples: seen.get(site) ?? [] });
      } catch (error) {
        tally.add(site, of);
        report("What passed through us could not be counted.", error);
      }
    }
  }
  const timer = setInterval(() => {
    if (counts.size > 0 && !flushing) flushing = flush().finally(() => (flushing = undefined));
  }, FLUSH_MS);
  timer.unref();
  const tally: FrontTally = {
    add(siteId, what) {
      const of = counts.get(siteId) ?? { ...NONE };
      for (const name of Object.keys(what) as (keyof FrontCounts)[]) of[name] += what[name]!;
      counts.set(siteId, of);
    },
    sample(siteId, page, { words, before, after }) {
      const of = samples.get(siteId) ?? [];
      samples.set(siteId, of);
      if (of.length < MOST_SAMPLES) of.push({ page, words, before, after });
    },
    async stop() {
      clearInterval(timer);
      await flushing;
      await flush();
    },
  };
  return tally;
}
