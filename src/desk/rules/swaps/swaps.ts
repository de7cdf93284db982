import type { Actor } from "../../../core/people/actor.ts";
import type { Swap, SwapSet, SwapVersion } from "../../../core/rules/swaps/swap.ts";
import { noteChange } from "../../../store/ground/changes.ts";
import { addSwapSet, newestSwaps, swapSetRow, swapSetRows } from "../../../store/rules/swap-sets.ts";
import { audit } from "../../ground/audit.ts";
import { isSame } from "../../ground/before-after.ts";
import type { WithStore } from "../../ground/parts.ts";
import { notFound, stale } from "../../ground/problem.ts";
import type { OpenSite } from "../../sites/open-site.ts";

/** The swaps in force; version 0 is the empty set that every site begins with. */
export async function currentSwaps(desk: WithStore, site: OpenSite): Promise<SwapSet> {
  const version = await newestSwaps(desk.store, { site: site.id });
  const row = version === 0 ? undefined : await swapSetRow(desk.store, { site: site.id, version });
  return row ? { version, swaps: row.swaps } : { version: 0, swaps: [] };
}

/** Replaces the set; every version is kept. Refused when another was saved since `version`. */
export async function replaceSwaps(
  desk: WithStore,
  actor: Actor,
  site: OpenSite,
  { version, swaps }: { version: number; swaps: Swap[] },
): Promise<SwapSet> {
  const before = await currentSwaps(desk, site);
  if (before.version === version && isSame(before.swaps, swaps)) return before;
  await desk.store.transaction(async (transaction) => {
    const of = { site: site.id, version, swaps: JSON.stringify(swaps), by: actor.name };
    if (!(await addSwapSet(desk.store, of, transaction))) throw stale(await currentSwaps(desk, site));
    const entry = {
      siteId: site.id,
      action: "swaps.replace",
      object: String(version + 1),
      detail: { swaps: swaps.length },
    };
    await audit(desk, actor, entry, transaction);
    await noteChange(desk.store, transaction, { siteId: site.id, kind: "site" });
  });
  return currentSwaps(desk, site);
}

/** The sets that a site had, newest first. */
export async function swapVersions(desk: WithStore, site: OpenSite): Promise<SwapVersion[]> {
  const rows = await swapSetRows(desk.store, { site: site.id });
  return rows.map(({ createdAt, ...row }) => ({ ...row, createdAt: createdAt.toISOString() }));
}

/** Puts a kept set into force again, as a new version over the one that the asker saw. */
export async function putBackSwaps(
  desk: WithStore,
  actor: Actor,
  site: OpenSite,
  kept: string,
  version: number,
): Promise<SwapSet> {
  const row = /^\d{1,9}$/.test(kept)
    ? await swapSetRow(desk.store, { site: site.id, version: Number(kept) })
    : undefined;
  if (!row) throw notFound("This set of swaps");
  return replaceSwaps(desk, actor, site, { version, swaps: row.swaps });
}
