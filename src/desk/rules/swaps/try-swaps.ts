import type { z } from "zod";
import type { LedgerPlace } from "../../../core/ledger/ledger.ts";
import type { Swap, swapsTrySchema, TriedSwaps } from "../../../core/rules/swaps/swap.ts";
import { swapTable } from "../../../core/rules/swaps/swapped.ts";
import { fillAddress } from "../../../core/text/variables.ts";
import { countLedger, ruledRows } from "../../../store/ledger/ledger-rows.ts";
import { sourcesAround } from "../../../store/ledger/sources.ts";
import type { Progress } from "../../../threads/progress.ts";
import { catchUpLedger } from "../../ledger/follow-ledger.ts";
import { isAsWritten } from "../../ledger/as-written.ts";
import type { WithDeliveryPort, WithStore } from "../../ground/parts.ts";
import type { JobKind } from "../../jobs/job-kind.ts";
import type { WithThread } from "../../jobs/desk-thread.ts";
import type { Task } from "../../jobs/task.ts";
import type { OpenSite } from "../../sites/open-site.ts";

const MOST_SAMPLES = 60;
/** So that a swap of many links does not hide the others. */
const MOST_OF_ONE = 8;

/** What a set of swaps would change of the links that readers get, swap by swap, with samples. */
async function trySwaps(
  core: WithStore & WithDeliveryPort,
  site: OpenSite,
  swaps: readonly Swap[],
  progress: Progress,
): Promise<TriedSwaps> {
  await catchUpLedger(core, site, progress);
  const [sources, total] = await Promise.all([
    sourcesAround(core.store, { site: site.id }),
    countLedger(core.store, site.id),
  ]);
  const kinds = new Map(sources.map(({ id, kind }) => [id, kind as LedgerPlace]));
  const table = swapTable(swaps);
  const pages = new Set<string>();
  const result: TriedSwaps = {
    links: 0,
    pages: 0,
    outOfReach: 0,
    changes: swaps.map(() => 0),
    samples: [],
  };
  const sampled = swaps.map(() => 0);
  let done = 0;
  for await (const rows of ruledRows(core.store, site.id, true)) {
    for (const { source, place, words, href } of rows) {
      const before = fillAddress(href, site.variables);
      const swapped = table(before);
      if (!swapped) continue;
      if (isAsWritten(site, kinds.get(source) ?? "page", place)) {
        result.outOfReach += 1;
        continue;
      }
      result.links += 1;
      pages.add(place);
      for (const at of swapped.by) result.changes[at]! += 1;
      const first = swapped.by[0]!;
      if (sampled[first]! >= MOST_OF_ONE || result.samples.length >= MOST_SAMPLES) continue;
      sampled[first]! += 1;
      result.samples.push({ page: place, words, before, after: swapped.address, by: swapped.by });
    }
    await progress.step((done += rows.length), total);
  }
  return { ...result, pages: pages.size };
}

/** Tries a set of swaps on the whole site, however large. */
export const trySwapsTask: Task<WithStore & WithDeliveryPort, z.infer<typeof swapsTrySchema>, TriedSwaps> = {
  name: "swaps.try",
  run: (desk, site, { swaps }, progress) => trySwaps(desk, site, swaps, progress),
};

/** Tries a set while its asker looks elsewhere. */
export const trySwapsJob: JobKind<WithThread, z.infer<typeof swapsTrySchema>, TriedSwaps> = {
  name: "swaps.try",
  run: (desk, { site, input }, progress) => desk.thread.run(trySwapsTask, site.id, input, progress),
};
