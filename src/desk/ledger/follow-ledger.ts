import type { Task } from "../jobs/task.ts";
import { changesAfter, newestChange, type Change } from "../../store/ground/changes.ts";
import { becomeFollower, countLedger, ledgerState, saveLedgerState } from "../../store/ledger/ledger-rows.ts";
import type { Progress } from "../../threads/progress.ts";
import { keepProgramRoutes } from "../programs/program-routes.ts";
import { currentRules } from "../rules/rules.ts";
import { affectedPages, pagesOutOfDate, pagesWithLinks } from "./affected-pages.ts";
import { keepManyPages } from "./index-pages.ts";
import { reapplyRules } from "./reapply-rules.ts";
import { openSite, type OpenSite } from "../sites/open-site.ts";
import type { WithStore, WithDeliveryPort } from "../ground/parts.ts";
import { siteIds } from "../../store/sites/sites.ts";

/**
 * Brings the ledgers of all sites up to date with everything that has changed. Of several processes one does it at a
 * time; the others find it done. `ended` asks whether to give up between sites.
 */
export async function followAllLedgers(
  core: WithStore & WithDeliveryPort,
  ended: () => boolean,
): Promise<void> {
  await core.store.transaction(async (transaction) => {
    if (!(await becomeFollower(core.store, transaction))) return;
    const sites = await siteIds(core.store);
    for (const { id } of sites) {
      if (ended()) return;
      await catchUpLedger(core, await openSite(core, id), {
        signal: new AbortController().signal,
        step: async () => {},
      });
    }
  });
}

/**
 * Brings one site's ledger up to date: pages that were saved, then links that lead to what has changed, then what
 * other rules make of all of them. Begun from anything it comes to the same; doing it twice changes nothing.
 */
export async function catchUpLedger(
  core: WithStore & WithDeliveryPort,
  site: OpenSite,
  progress: Progress,
): Promise<void> {
  const seq = await newestChange(core.store);
  const state = await ledgerState(core.store, site.id);
  const changes = state && (await changesAfter(core.store, state.seq));
  if (!state || !changes) return rebuildLedger(core, site, progress);
  const { version, rules } = await currentRules(core, site);
  const stale = await pagesOutOfDate(core, site);
  const own = changes.filter(({ siteId }) => siteId === site.id);
  if (stale.length === 0 && own.length === 0 && version === state.rulesVersion) return;

  const things = changedThings(own);
  await keepProgramRoutes(core, site, own.some(({ kind }) => kind === "site") ? undefined : things.routes);
  const total = stale.length || 1;
  const moved = await keepManyPages(core, site, stale, (done) => progress.step(done, total));
  const others = (
    await affectedPages(core, site, { ...things, pages: [...new Set([...things.pages, ...moved])] })
  ).filter((id) => !stale.includes(id));
  await keepManyPages(core, site, others, (done) => progress.step(done, others.length));
  if (version !== state.rulesVersion) {
    const links = await countLedger(core.store, site.id);
    await reapplyRules(core, site, rules, (done) => progress.step(done, links));
  }
  await saveLedgerState(core.store, site.id, {
    seq: changes.at(-1)?.seq ?? seq,
    rulesVersion: version,
  });
  // A long list of changes comes in portions.
  if (changes.length > 0 && BigInt(changes.at(-1)!.seq) < BigInt(seq))
    return catchUpLedger(core, site, progress);
}

/** Reads every page of a site anew. */
export async function rebuildLedger(
  core: WithStore & WithDeliveryPort,
  site: OpenSite,
  progress: Progress,
): Promise<void> {
  const seq = await newestChange(core.store);
  const { version } = await currentRules(core, site);
  await keepProgramRoutes(core, site, undefined);
  const pages = await pagesWithLinks(core, site);
  await keepManyPages(core, site, pages, (done) => progress.step(done, pages.length));
  await saveLedgerState(core.store, site.id, { seq, rulesVersion: version });
}

function changedThings(changes: readonly Change[]) {
  const of = (kind: Change["kind"]): string[] => [
    ...new Set(changes.flatMap((change) => (change.kind === kind ? (change.objectId ?? []) : []))),
  ];
  return { routes: of("route"), pages: of("page"), files: of("file") };
}

type Following = WithStore & WithDeliveryPort;

/** Lets a site's ledger catch up. */
export const catchUpTask: Task<Following, null, void> = {
  name: "ledger.catch-up",
  run: (desk, site, _input, progress) => catchUpLedger(desk, site, progress),
};

/** Reads every page of a site anew. */
export const rebuildTask: Task<Following, null, void> = {
  name: "ledger.rebuild",
  run: (desk, site, _input, progress) => rebuildLedger(desk, site, progress),
};
