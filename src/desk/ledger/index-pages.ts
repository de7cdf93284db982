import pLimit from "p-limit";
import { lockLedger, removeSources, writeSources, type SourcePlace } from "../../store/ledger/ledger-rows.ts";
import type { Transaction } from "sequelize";
import { currentRules } from "../rules/rules.ts";
import { documentsOf } from "./documents.ts";
import { readLinks } from "./read-links.ts";
import type { OpenSite } from "../sites/open-site.ts";
import type { WithStore, WithDeliveryPort } from "../ground/parts.ts";
import { NAVIGATION_PAGE, contentStamps } from "../../store/ledger/content.ts";
import { newestRules } from "../../store/rules/rule-sets.ts";

/**
 * Brings the ledger up to date with these pages and blocks (0: the navigation) as they stand now. What was changed
 * again while it was read is left to whoever changed it. Answers which of them answer at another address than the
 * ledger knew: links elsewhere may lead to another end now.
 */
export async function indexPages(
  core: WithStore & WithDeliveryPort,
  site: OpenSite,
  pageIds: readonly string[],
): Promise<string[]> {
  if (pageIds.length === 0) return [];
  const [{ version, rules }, documents] = await Promise.all([
    currentRules(core, site),
    documentsOf(core, site, pageIds),
  ]);
  const read = await readLinks(core, site, rules, documents);
  const moved = await core.store.transaction(async (transaction) => {
    await lockLedger(core.store, site.id, transaction);
    if (version !== (await rulesVersion(core, site, transaction))) return undefined;
    const stamps = await stampsNow(core, site, pageIds, transaction);
    const current = pageIds.filter((id) => {
      const seen = documents.find(({ source }) => source.pageId === id)?.source.stamp;
      return stamps.get(id) === seen;
    });
    const kept = read.filter(({ source }) => current.includes(source.pageId));
    const before = placesOf(await removeSources(core.store, site.id, current, transaction));
    await writeSources(core.store, site.id, kept, transaction);
    const after = placesOf(kept.map(({ source }) => source));
    return current.filter((id) => id !== NAVIGATION_PAGE && before.get(id) !== after.get(id));
  });
  // Other rules came into force meanwhile.
  return moved ?? indexPages(core, site, pageIds);
}

async function rulesVersion(core: WithStore, site: OpenSite, transaction: Transaction): Promise<number> {
  const [row] = await newestRules(core.store, { site: site.id }, transaction);
  return row!.version;
}

async function stampsNow(
  core: WithStore,
  site: OpenSite,
  pageIds: readonly string[],
  transaction: Transaction,
): Promise<Map<string, string>> {
  const rows = await contentStamps(core.store, { site: site.id, ids: pageIds }, transaction);
  return new Map(rows.map(({ id, stamp }) => [id, stamp]));
}

// Where pages stand for links that lead to them, in one text each.
function placesOf(sources: readonly SourcePlace[]): Map<string, string> {
  const places = new Map<string, string>();
  const ordered = [...sources].sort((a, b) => (a.edition < b.edition ? -1 : 1));
  for (const { pageId, live, path } of ordered)
    places.set(pageId, `${places.get(pageId) ?? ""}${live} ${path}\n`);
  return places;
}

// Pages are read some at a time: what their links need is looked up together, and no answer grows too large.
const PAGES_AT_ONCE = 100;

/** The same for any number of pages, portion by portion. */
export async function keepManyPages(
  core: WithStore & WithDeliveryPort,
  site: OpenSite,
  pageIds: readonly string[],
  step: (done: number) => Promise<void>,
): Promise<string[]> {
  const moved: string[] = [];
  // The next portion is read while PostgreSQL writes the last one.
  const limit = pLimit(2);
  let done = 0;
  let stopped: unknown;
  const portions: (readonly string[])[] = [];
  for (let from = 0; from < pageIds.length; from += PAGES_AT_ONCE)
    portions.push(pageIds.slice(from, from + PAGES_AT_ONCE));
  await Promise.all(
    portions.map((portion) =>
      limit(async () => {
        if (stopped) return;
        try {
          moved.push(...(await indexPages(core, site, portion)));
          await step((done += portion.length));
        } catch (error) {
          stopped = error;
        }
      }),
    ),
  );
  if (stopped) throw stopped;
  return moved;
}
