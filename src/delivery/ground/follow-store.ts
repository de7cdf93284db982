import {
  CHANGES_AT_ONCE,
  changesAfter,
  clearOldChanges,
  listenForChanges,
  type Change,
} from "../../store/ground/changes.ts";
import {
  readDelivery,
  readDeliveredFile,
  readDeliveredPage,
  readDeliveredRoutes,
  readDeliveredSite,
} from "../../store/sites/delivery-view.ts";
import type { Store } from "../../store/ground/store.ts";
import { DeliveryIndex } from "../sites/site-index.ts";

const LOOK_ANYWAY_MS = 15_000;

/** The index of everything delivered, kept current while the process runs. */
export interface FollowedIndex {
  /** Replaced as a whole when everything is loaded anew. */
  current(): DeliveryIndex;
  /** Goes up with every change that was taken in; what was rendered before may be out of date. */
  generation(): number;
  /** Sequence number of the last change that was taken in. */
  lastChange(): string;
  /** When it was last known that nothing was missed, by `performance.now()`. */
  lastLook(): number;
  stop(): Promise<void>;
}

/**
 * Loads the index and follows the store: each NOTIFY makes it fetch all changes after the last it knows, so
 * a lost message costs nothing. After a lost connection it catches up; after a week away it loads anew.
 */
export async function followStore(
  store: Store,
  deliveryPort: number,
  report: (message: string, error: unknown) => void,
): Promise<FollowedIndex> {
  let { index, seq } = await load(store, deliveryPort);
  let generation = 1;
  let looked = performance.now();
  let busy: Promise<void> | undefined;
  let again = false;

  /** Answers false where a site is gone: with it went all that it had, which no change tells of. */
  async function takeIn(change: Change): Promise<boolean> {
    if (change.kind === "page")
      index.putPage(change.objectId!, change.siteId, await readDeliveredPage(store, change.objectId!));
    else if (change.kind === "file")
      index.putFile(change.objectId!, change.siteId, await readDeliveredFile(store, change.objectId!));
    else {
      const site = await readDeliveredSite(store, change.siteId);
      if (!site) return false;
      index.putSite(site);
    }
    return true;
  }
  // Routes change by the thousand when many are imported or changed together: they are read together as well.
  async function takeInRoutes(changes: readonly Change[]): Promise<void> {
    const sites = new Map(changes.map(({ objectId, siteId }) => [objectId!, siteId]));
    const now = new Map(
      (await readDeliveredRoutes(store, [...sites.keys()])).map((route) => [route.id, route]),
    );
    for (const [id, siteId] of sites) index.putRoute(id, siteId, now.get(id));
  }
  async function catchUp(): Promise<void> {
    for (;;) {
      const asked = performance.now();
      let changes = await changesAfter(store, seq);
      for (let at = 0; changes && at < changes.length;) {
        let end = at;
        while (end < changes.length && changes[end]!.kind === "route") end += 1;
        if (end > at) await takeInRoutes(changes.slice(at, end));
        else if (!(await takeIn(changes[(end = at + 1) - 1]!))) {
          changes = undefined;
          break;
        }
        at = end;
        generation += 1;
        seq = changes[at - 1]!.seq;
      }
      if (!changes) {
        ({ index, seq } = await load(store, deliveryPort));
        generation += 1;
      }
      looked = asked;
      if (!changes || changes.length < CHANGES_AT_ONCE) return;
    }
  }
  function hear(): void {
    if (busy) {
      again = true;
      return;
    }
    busy = catchUp()
      .catch((error: unknown) => report("Changes could not be read; trying again.", error))
      .finally(() => {
        busy = undefined;
        if (again) {
          again = false;
          hear();
        }
      });
  }
  const listener = listenForChanges(store.url, hear, (error) =>
    report("Lost the connection that tells of changes.", error),
  );
  const timer = setInterval(hear, LOOK_ANYWAY_MS);
  await clearOldChanges(store);
  return {
    current: () => index,
    generation: () => generation,
    lastChange: () => seq,
    lastLook: () => looked,
    async stop() {
      clearInterval(timer);
      again = false;
      await listener.stop();
      await busy;
    },
  };
}

async function load(store: Store, deliveryPort: number): Promise<{ index: DeliveryIndex; seq: string }> {
  const index = new DeliveryIndex(deliveryPort);
  const snapshot = await readDelivery(store, {
    sites: (sites) => sites.forEach((site) => index.putSite(site)),
    route: (route) => index.putRoute(route.id, route.siteId, route),
  });
  for (const page of snapshot.pages) index.putPage(page.id, page.siteId, page);
  for (const file of snapshot.files) index.putFile(file.id, file.siteId, file);
  return { index, seq: snapshot.seq };
}
