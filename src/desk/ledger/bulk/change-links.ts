import { askTodos, dropTodos } from "../../../store/origin/todos.ts";
import { findSentences } from "../../origin/todos.ts";
import type { Transaction } from "sequelize";
import type { LinkBulk, LinkBulkAnswer } from "../../../core/ledger/ledger.ts";
import type { Progress } from "../../../threads/progress.ts";
import { notFound, Problem } from "../../ground/problem.ts";
import { settle } from "../../jobs/settle.ts";
import { UNWATCHED } from "../../../threads/progress.ts";
import { changeWithin } from "../../routes/many/bulk.ts";
import { undoMany } from "../../routes/many/undo-many.ts";
import { indexSaved } from "../index-saved.ts";
import { requireFreshLedger } from "../fresh-ledger.ts";
import { planChange, shownChanges } from "./plan.ts";
import { takeBack } from "./shorten.ts";
import { putBack, writeDocuments } from "./write-documents.ts";
import type { OpenSite } from "../../sites/open-site.ts";
import type { BulkPlan } from "./planned.ts";
import { audit, audited } from "../../ground/audit.ts";
import type { WithStore, WithDeliveryPort, WithWorkspaceHosts, WithReport } from "../../ground/parts.ts";
import type { WithThread } from "../../jobs/desk-thread.ts";
import { addLinkBatch, type KeptBefore, undoLinkBatch } from "../../../store/ledger/batches.ts";
import type { Actor } from "../../../core/people/actor.ts";
import { rowIdOf } from "../../../store/ground/row-ids.ts";

const KEPT_AT_ONCE = 100;

/** Changes many links in one step that can be undone as one; or, as a dry run, says what it would do. */
export async function changeLinks(
  desk: WithStore & WithDeliveryPort & WithWorkspaceHosts & WithReport & WithThread,
  actor: Actor,
  site: OpenSite,
  bulk: LinkBulk,
  progress: Progress,
): Promise<LinkBulkAnswer> {
  await requireFreshLedger(desk, site);
  const plan = await planChange(desk, actor, site, bulk, progress);
  const isNothing =
    plan.documents.length + plan.routes.length + plan.moves.length + plan.elsewhere.length === 0;
  if (bulk.dryRun || isNothing) {
    // Short links for which no text was found are in nobody's way for no reason.
    await takeBack(desk, actor, site, plan.made);
    return answerOf(plan, null, plan.refused);
  }
  const { pages, answer, todos } = await desk.store
    .transaction(async (transaction) => {
      const { before, refused } = await writeDocuments(
        desk,
        actor,
        site,
        plan.documents,
        bulk.published,
        progress,
        transaction,
      );
      plan.refused.push(...refused);
      const written = new Set(before.map(({ id }) => id));
      plan.documents = plan.documents.filter(({ pageId }) => written.has(pageId));
      const keepOld = bulk.action.do === "directory" && bulk.action.keepOld;
      const routes = await changeRoutes(desk, actor, site, plan, keepOld, transaction);
      const todos = await askTodos(
        desk.store,
        {
          site: site.id,
          by: actor.name,
          why: `asked for by ${actor.name}`,
          rows: plan.elsewhere.map(({ link, after }) => ({ link, href: after })),
        },
        transaction,
      );
      const [kept] = await addLinkBatch(
        desk.store,
        {
          site: site.id,
          action: JSON.stringify(bulk.action),
          before: JSON.stringify({
            pages: before,
            routes,
            made: plan.made,
            todos: todos.map(({ id }) => id),
          } satisfies KeptBefore),
          by: actor.name,
        },
        transaction,
      );
      await audit(
        desk,
        actor,
        {
          siteId: site.id,
          action: `links.${bulk.action.do}`,
          object: `batch ${kept!.id}`,
          detail: {
            pages: before.length,
            routes: plan.routes.length + plan.moves.length,
            published: bulk.published,
          },
        },
        transaction,
      );
      const done = answerOf(plan, kept!.id, plan.refused);
      await settle(desk, progress, done, transaction);
      return { pages: before.map(({ id }) => id), answer: done, todos };
    })
    .catch(async (error: unknown) => {
      await takeBack(desk, actor, site, plan.made);
      throw error;
    });
  await keepAll(desk, site, pages);
  await findSentences(desk, site, todos);
  // Those that found no text after all are taken away; the others stand in one by now, or are on the list to be put in one.
  if (plan.refused.length > 0 && todos.length === 0) await takeBack(desk, actor, site, plan.made);
  return answer;
}

/** Puts many links back as they were. Pages and routes that somebody changed since are left, and named. */
export async function undoChange(
  desk: WithStore & WithDeliveryPort & WithReport,
  actor: Actor,
  site: OpenSite,
  batchId: string,
): Promise<{ restored: number; left: string[] }> {
  const entry = { siteId: site.id, action: "links.undo", object: `batch ${batchId}` };
  const { pages, made, left, ofRoutes } = await audited(desk, actor, entry, async (transaction) => {
    const [batch] = await undoLinkBatch(desk.store, { id: rowIdOf(batchId), site: site.id }, transaction);
    if (!batch) throw notFound("This change");
    const { pages, routes, made, todos } = batch.before;
    await dropTodos(desk.store, { site: site.id, ids: todos ?? [] }, transaction);
    const left = await putBack(desk, actor, site, pages, transaction);
    const ofRoutes =
      routes === null ? { restored: 0, left: [] } : await undoMany(desk, actor, site, routes, transaction);
    return { pages, made, left, ofRoutes };
  });
  await keepAll(
    desk,
    site,
    pages.map(({ id }) => id),
  );
  const leftShorts = await takeBack(desk, actor, site, made ?? []);
  return {
    restored: pages.length - left.length + ofRoutes.restored,
    left: [...left, ...ofRoutes.left, ...leftShorts],
  };
}

async function changeRoutes(
  desk: WithStore & WithDeliveryPort,
  actor: Actor,
  site: OpenSite,
  plan: BulkPlan,
  keepOld: boolean,
  transaction: Transaction,
): Promise<string | null> {
  if (plan.moves.length > 0) return moveRoutes(desk, actor, site, plan, keepOld, transaction);
  if (plan.routes.length === 0) return null;
  const destinations = Object.fromEntries(plan.routes.map(({ id, after }) => [id, after]));
  const bulk = { action: { do: "mend" as const, destinations }, dryRun: false };
  const { batch, refused } = await changeWithin(desk, actor, site, bulk, UNWATCHED, transaction);
  plan.refused.push(...refused.map(({ address, message }) => ({ where: address, message })));
  plan.routes = plan.routes.filter(({ id }) => !refused.some((one) => one.id === id));
  return batch;
}

async function moveRoutes(
  desk: WithStore & WithDeliveryPort,
  actor: Actor,
  site: OpenSite,
  plan: BulkPlan,
  keepOld: boolean,
  transaction: Transaction,
): Promise<string | null> {
  const addresses = Object.fromEntries(plan.moves.map(({ id, after }) => [id, after]));
  const bulk = { action: { do: "move" as const, addresses, keepOld }, dryRun: false };
  const { batch, refused } = await changeWithin(desk, actor, site, bulk, UNWATCHED, transaction);
  // A text that leads to the new address and a short link that stayed at the old one must not come apart.
  const [left] = refused;
  if (left)
    throw new Problem(
      409,
      "Changed meanwhile",
      `${left.address}: ${left.message} Look at the preview again.`,
    );
  return batch;
}

async function keepAll(
  desk: WithStore & WithDeliveryPort & WithReport,
  site: OpenSite,
  pages: readonly string[],
): Promise<void> {
  for (let from = 0; from < pages.length; from += KEPT_AT_ONCE)
    await indexSaved(desk, site, ...pages.slice(from, from + KEPT_AT_ONCE));
}

function answerOf(plan: BulkPlan, batch: string | null, refused: BulkPlan["refused"]): LinkBulkAnswer {
  return {
    left: refused.length,
    links: plan.documents.reduce((sum, { links }) => sum + links.length, 0),
    pages: new Set(plan.documents.map(({ pageId }) => pageId)).size,
    routes: plan.routes.length + plan.moves.length,
    elsewhere: plan.elsewhere.length,
    changes: shownChanges(plan),
    refused: refused.slice(0, 200),
    batch,
  };
}
