import { inFigures } from "../../../core/text/in-figures.ts";
import type { Transaction } from "sequelize";
import type { Bulk, BulkAnswer } from "../../../contract/routes/bulk.ts";
import type { Actor } from "../../../core/people/actor.ts";
import { addBatch } from "../../../store/routes/batches.ts";
import { routesToChange, type ChangingRoute } from "../../../store/routes/lists.ts";
import type { Progress } from "../../../threads/progress.ts";
import { audit } from "../../ground/audit.ts";
import type { WithDeliveryPort, WithStore } from "../../ground/parts.ts";
import { invalid, Problem } from "../../ground/problem.ts";
import { settle } from "../../jobs/settle.ts";
import type { OpenSite } from "../../sites/open-site.ts";
import { adviceFor, refusals } from "../route-advice.ts";
import { changeOf, shown, WHY_LEFT, type Change } from "./change.ts";
import { writeChanges } from "./write-changes.ts";

const MAX_ROUTES = 200_000;
const MAX_SAMPLES = 50;
const AT_ONCE = 1_000;

/** Changes many routes in one step that can be undone as one; or, as a dry run, says what it would do. */
export async function changeMany(
  desk: WithStore & WithDeliveryPort,
  actor: Actor,
  site: OpenSite,
  bulk: Bulk,
  progress: Progress,
): Promise<BulkAnswer> {
  if (bulk.dryRun)
    return { ...answerOf(await planned(desk, site, bulk, progress), bulk.action.do), batch: null };
  return desk.store.transaction(async (transaction) => {
    const answer = await changeWithin(desk, actor, site, bulk, progress, transaction);
    await settle(desk, progress, answer, transaction);
    return answer;
  });
}

/** The same within a transaction that does more. */
export async function changeWithin(
  desk: WithStore & WithDeliveryPort,
  actor: Actor,
  site: OpenSite,
  bulk: Bulk,
  progress: Progress,
  transaction: Transaction,
): Promise<BulkAnswer> {
  // They are held from here on: what is written is made from what stands there, whoever changed it a moment ago.
  const plan = await planned(desk, site, bulk, progress, transaction);
  const answer = answerOf(plan, bulk.action.do);
  if (plan.good.length === 0) return { ...answer, batch: null };
  const batch = await keepBefore(desk, actor, site, bulk.action, plan.good, transaction);
  await audit(
    desk,
    actor,
    {
      siteId: site.id,
      action: `routes.${bulk.action.do}`,
      object: `batch ${batch}`,
      detail: { routes: plan.good.length },
    },
    transaction,
  );
  await writeChanges(desk, site, plan.good, transaction);
  return { ...answer, batch };
}

interface Plan {
  good: Change[];
  refused: BulkAnswer["refused"];
}

function answerOf({ good, refused }: Plan, what: Bulk["action"]["do"]): Omit<BulkAnswer, "batch"> {
  const samples = good.slice(0, MAX_SAMPLES).map((change) => ({
    id: change.row.id,
    address: change.row.address,
    ...shown(change, what),
  }));
  return { changed: good.length, refused, samples };
}

// What becomes of the routes that are meant; named are those that were marked and stay as they are.
async function planned(
  desk: WithStore & WithDeliveryPort,
  site: OpenSite,
  bulk: Bulk,
  progress: Progress,
  transaction?: Transaction,
): Promise<Plan> {
  const rows = await selected(desk, site, bulk, transaction);
  const refused: BulkAnswer["refused"] = [];
  const changes: Change[] = [];
  for (const [index, row] of rows.entries()) {
    if (index % AT_ONCE === 0) await progress.step(index, rows.length);
    const change = changeOf(row, bulk.action);
    if (typeof change === "string") refused.push({ id: row.id, address: row.address, message: change });
    else if (change) changes.push(change);
    else if (bulk.ids) refused.push({ id: row.id, address: row.address, message: WHY_LEFT[bulk.action.do] });
  }
  const found = new Set(rows.map(({ id: one }) => one));
  for (const missing of bulk.ids?.filter((one) => !found.has(one)) ?? [])
    refused.push({ id: missing, address: "", message: "It is not there any more." });
  return { good: await withoutLoops(desk, site, changes, refused), refused };
}

async function selected(
  desk: WithStore,
  site: OpenSite,
  { ids, filter, action }: Bulk,
  transaction?: Transaction,
): Promise<ChangingRoute[]> {
  const named =
    action.do === "mend"
      ? [...Object.keys(action.destinations ?? {}), ...(action.delete ?? [])]
      : action.do === "move"
        ? Object.keys(action.addresses)
        : ids;
  if (!named && !filter)
    throw invalid([{ path: "ids", message: "Which routes? Give their ids, or a filter." }]);
  const rows = await routesToChange(
    desk.store,
    site.id,
    { filter: filter ?? {}, ids: named, limit: MAX_ROUTES + 1 },
    transaction,
  );
  if (rows.length > MAX_ROUTES)
    throw new Problem(
      422,
      "Too many at once",
      `At most ${inFigures(MAX_ROUTES)} routes are changed together.`,
    );
  return rows;
}

// A new destination on our own site may lead back; those that do are refused, each with its way.
async function withoutLoops(
  desk: WithStore & WithDeliveryPort,
  site: OpenSite,
  changes: readonly Change[],
  refused: BulkAnswer["refused"],
): Promise<Change[]> {
  const good: Change[] = [];
  for (const change of changes) {
    const { row, destination } = change;
    const own = destination !== null && destination !== row.destination && !/^https?:\/\//i.test(destination);
    const ours = own || site.hostNames.some((host) => destination?.includes(`//${host}`));
    if (!ours || destination === row.destination) {
      good.push(change);
      continue;
    }
    const advice = await adviceFor(
      desk,
      site,
      {
        ...row,
        caseInsensitive: row.kind === "short",
        addresses: [row.address],
        destination,
        replacesPage: true,
      },
      row.id,
    );
    const [error] = refusals(advice);
    if (error) refused.push({ id: row.id, address: row.address, message: error.message });
    else good.push(change);
  }
  return good;
}

async function keepBefore(
  desk: WithStore,
  actor: Actor,
  site: OpenSite,
  action: Bulk["action"],
  changes: readonly Change[],
  transaction: Transaction,
): Promise<string> {
  const [kept] = await addBatch(
    desk.store,
    {
      site: site.id,
      action: JSON.stringify(action),
      ids: changes.map(({ row }) => row.id),
      by: actor.name,
    },
    transaction,
  );
  return kept!.id;
}
