import type { Logger } from "pino";
import type { Delivery } from "../delivery/ground/delivery.ts";
import { closed, listening } from "../incoming/listening.ts";
import { createTally } from "../incoming/tally.ts";
import { measures } from "../store/ground/measures.ts";
import type { Store } from "../store/ground/store.ts";
import type { Config } from "./config.ts";
import { createMetrics } from "./metrics.ts";
import { versionAbove } from "./version.ts";
import { createWatched, createWatchingServer, WORKSPACE_KINDS, type Watched } from "./watched.ts";

/** How a process is watched. */
export interface Watching {
  watched: Watched;
  /** Begins to listen where the settings name a port for it. Throws an Error when that is taken. */
  listen(): Promise<void>;
  /** From now on it says that it is not ready. */
  leave(): void;
  stop(): Promise<void>;
}

/** Puts together what there is to be watched in a process. */
export function createWatching(
  config: Config,
  parts: { store: Store; delivery: Delivery; log: Logger },
): Watching {
  const { store, delivery, log } = parts;
  const tally = createTally(WORKSPACE_KINDS);
  let isLeaving = false;
  const metrics = createMetrics({
    delivery: () => delivery.measures(),
    workspace: () => tally.read(),
    // A database that does not answer is among what is told.
    store: () => measures(store).catch(() => undefined),
    pool: () => store.connections(),
    version: versionAbove(import.meta.dirname),
  });
  const watched = {
    metrics,
    token: config.metricsToken,
    async readiness() {
      const { database } = await delivery.health();
      return [
        ...(isLeaving ? ["It is about to stop."] : []),
        ...(database === "down" ? ["The database does not answer."] : []),
      ];
    },
    isLeaving: () => isLeaving,
    tally,
    accessLog: config.accessLog ? log.child({}, { level: "info" }) : undefined,
  };
  const server = createWatchingServer(watched);
  return {
    watched: createWatched(watched),
    async listen() {
      if (config.metricsPort === undefined) return;
      await listening(server, "127.0.0.1", config.metricsPort, "MAPROPE_METRICS_PORT");
    },
    leave() {
      isLeaving = true;
      delivery.leave();
    },
    stop: async () => (server.listening ? closed(server) : undefined),
  };
}
