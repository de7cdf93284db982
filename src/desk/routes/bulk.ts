import { routesToChange, type ChangingRoute } from "../../store/routes/lists.ts";
import { destination as destinationSchema } from "../../core/ground/fields.ts";
import type { Transaction } from "sequelize";
import { compareKey } from "../../core/address/compare.ts";
import type { Address } from "../../core/address/address.ts";
import { noteRoutes } from "../../store/ground/changes.ts";
import { violatedIndex } from "../../store/ground/store.ts";
import { invalid, notFound, Problem } from "../ground/problem.ts";
import { adviceFor, refusals } from "./route-advice.ts";
import { searchText } from "./route-values.ts";
import { keysOf } from "./routes.ts";
import type { OpenSite } from "../sites/open-site.ts";
import { audit } from "../ground/audit.ts";
import type { WithStore, WithDeliveryPort } from "../ground/parts.ts";
import { type Bulk, type BulkAnswer } from "../../contract/routes/bulk.ts";
import { batchBefore, markBatchUndone, addBatch, updateRoutes } from "../../store/routes/batches.ts";
import { dropAddresses, addAddresses } from "../../store/routes/addresses.ts";
import type { Actor } from "../../core/people/actor.ts";

const MOST = 200_000;
const MAX_SAMPLES = 50;

interface Change {
  row: ChangingRoute;
  tags: string[];
  enabled: boolean;
  destination: Address | null;
  deleted: boolean;
}

/** Changes many routes in one step that can be undone as one; or, as a dry run, says what it would do. */
export async function changeMany(
  desk: WithStore & WithDeliveryPort,
  actor: Actor,
  site: OpenSite,
  bulk: Bulk,
): Promise<BulkAnswer> {
  if (bulk.dryRun) return { ...answerOf(await planned(desk, site, bulk), bulk.action.do), batch: null };
  return desk.store.transaction(async (transaction) => {
    // They are held from here on: what is written is made from what stands there, whoever changed it a moment ago.
    const plan = await planned(desk, site, bulk, transaction);
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
    await write(desk, site, plan.good, transaction);
    return { ...answer, batch };
  });
}

const WHY_LEFT: Readonly<Record<Bulk["action"]["do"], string>> = {
  tag: "It has this tag already.",
  untag: "It does not have this tag.",
  switch: "It is switched so already.",
  delete: "It is deleted already.",
  retarget: "Its destination does not hold that text.",
  mend: "It leads there already.",
};

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
  transaction?: Transaction,
): Promise<Plan> {
  const rows = await selected(desk, site, bulk, transaction);
  const refused: BulkAnswer["refused"] = [];
  const changes: Change[] = [];
  for (const row of rows) {
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

/** Puts many routes back as they were before a change of many. Those that somebody changed since are left, and named. */
export async function undoMany(
  desk: WithStore,
  actor: Actor,
  site: OpenSite,
  batchId: string,
  within?: Transaction,
): Promise<{ restored: number; left: string[] }> {
  const [batch] = await batchBefore(desk.store, {
    id: /^\d{1,18}$/.test(batchId) ? batchId : "0",
    site: site.id,
  });
  if (!batch) throw notFound("This change");
  const left: string[] = [];
  const inOne = <T>(work: (transaction: Transaction) => Promise<T>): Promise<T> =>
    within ? work(within) : desk.store.transaction(work);
  const restored = await inOne(async (transaction) => {
    const rows = await desk.store.routes.findAll({
      where: { id: batch.before.map(({ id: one }) => one) },
      transaction,
      lock: transaction.LOCK.UPDATE,
      raw: true,
    });
    const byId = new Map(rows.map((row) => [row.id, row]));
    const back: Change[] = [];
    for (const before of batch.before) {
      const row = byId.get(before.id);
      if (!row || row.version !== before.version + 1) left.push(before.address);
      else
        back.push({
          row,
          tags: before.tags,
          enabled: before.enabled,
          destination: before.destination,
          deleted: false,
        });
    }
    await write(desk, site, back, transaction);
    await markBatchUndone(desk.store, { id: batchId }, transaction);
    await audit(
      desk,
      actor,
      { siteId: site.id, action: "routes.undo", object: `batch ${batchId}` },
      transaction,
    );
    return back.length;
  }).catch((error: unknown) => {
    if (violatedIndex(error) !== "route_addresses_pkey") throw error;
    throw new Problem(
      409,
      "An address was given away",
      "One of these addresses belongs to another route by now. Free it, then undo again.",
    );
  });
  return { restored, left };
}

async function selected(
  desk: WithStore,
  site: OpenSite,
  { ids, filter, action }: Bulk,
  transaction?: Transaction,
): Promise<ChangingRoute[]> {
  const named =
    action.do === "mend" ? [...Object.keys(action.destinations ?? {}), ...(action.delete ?? [])] : ids;
  if (!named && !filter)
    throw invalid([{ path: "ids", message: "Which routes? Give their ids, or a filter." }]);
  const rows = await routesToChange(
    desk.store,
    site.id,
    { filter: filter ?? {}, ids: named, limit: MOST + 1 },
    transaction,
  );
  if (rows.length > MOST)
    throw new Problem(
      422,
      "Too many at once",
      `At most ${MOST.toLocaleString("en-GB")} routes are changed together.`,
    );
  return rows;
}

// What becomes of one route: nothing (undefined), a change, or the reason why not.
function changeOf(row: ChangingRoute, action: Bulk["action"]): Change | string | undefined {
  const same: Change = {
    row,
    tags: row.tags,
    enabled: row.enabled,
    destination: row.destination,
    deleted: false,
  };
  switch (action.do) {
    case "tag":
      if (row.tags.includes(action.tag)) return undefined;
      return row.tags.length >= 50 ? "It has 50 tags already." : { ...same, tags: [...row.tags, action.tag] };
    case "untag":
      return row.tags.includes(action.tag)
        ? { ...same, tags: row.tags.filter((one) => one !== action.tag) }
        : undefined;
    case "switch":
      return row.enabled === action.on ? undefined : { ...same, enabled: action.on };
    case "delete":
      return { ...same, deleted: true };
    case "retarget": {
      if (!row.destination?.includes(action.find)) return undefined;
      return withDestination(same, row.destination.replaceAll(action.find, action.replace));
    }
    case "mend": {
      if (action.delete?.includes(row.id)) return { ...same, deleted: true };
      const to = action.destinations?.[row.id];
      return to === undefined || to === row.destination ? undefined : withDestination(same, to);
    }
  }
}

function withDestination(change: Change, to: string): Change | string | undefined {
  const checked = destinationSchema.safeParse(to);
  if (!checked.success) return checked.error.issues[0]!.message;
  return checked.data === change.row.destination ? undefined : { ...change, destination: checked.data };
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

function shown(
  { row, tags, enabled, destination, deleted }: Change,
  action: string,
): { before: string; after: string } {
  if (deleted) return { before: row.destination ?? "gone", after: "deleted" };
  if (action === "tag" || action === "untag") return { before: row.tags.join(", "), after: tags.join(", ") };
  if (action === "switch") return { before: row.enabled ? "on" : "off", after: enabled ? "on" : "off" };
  return { before: row.destination ?? "", after: destination ?? "" };
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

async function write(
  desk: WithStore,
  site: OpenSite,
  changes: readonly Change[],
  transaction: Transaction,
): Promise<void> {
  if (changes.length === 0) return;
  const ids = changes.map(({ row }) => row.id);
  await updateRoutes(
    desk.store,
    {
      ids,
      tags: changes.map(({ tags }) => JSON.stringify(tags)),
      enabled: changes.map(({ enabled }) => enabled),
      destination: changes.map(({ destination }) => destination),
      key: changes.map(({ destination }) => destination && compareKey(destination)),
      search: changes.map(({ row, destination }) => searchText({ ...row, destination })),
      deleted: changes.map(({ deleted }) => deleted),
    },
    transaction,
  );
  await dropAddresses(desk.store, { ids }, transaction);
  const claims = changes
    .filter(({ deleted }) => !deleted)
    .flatMap(({ row }) => keysOf(row).map((key) => ({ id: row.id, host: row.host ?? "*", key })));
  await addAddresses(
    desk.store,
    {
      site: site.id,
      host: claims.map(({ host }) => host),
      key: claims.map(({ key }) => key),
      id: claims.map(({ id: one }) => one),
    },
    transaction,
  );
  await noteRoutes(desk.store, transaction, site.id, ids);
}
