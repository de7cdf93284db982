import { inTurn } from "../store/ground/turns.ts";
import { knownSecret, ownFolder, reachable } from "./starting.ts";
import type { Server } from "node:http";
import type { AddressInfo } from "node:net";
import { readFileSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { randomBytes } from "node:crypto";
import pino from "pino";
import { lookup } from "node:dns/promises";
import type { Config } from "./config.ts";
import { startDelivery } from "../delivery/ground/delivery.ts";
import { closed, listening } from "../incoming/listening.ts";
import type { Desk, StartingDesk } from "../desk/desk.ts";
import { createJobs } from "../desk/jobs/jobs.ts";
import { sealWith } from "../desk/ground/seal.ts";
import { startTexts } from "../desk/pages/texts/texts.ts";
import { startDeskThread } from "../desk/jobs/desk-thread.ts";
import { startWatches } from "./watches.ts";
import { isPublicAddress } from "../outgoing/address-guard.ts";
import { createOutgoing, type OutgoingOptions } from "../outgoing/outgoing.ts";
import { migrate } from "../store/ground/migrate.ts";
import { openStore } from "../store/ground/store.ts";
import { createWorkspace } from "./workspace.ts";

/** A running process: its desk, and how to stop it. */
export interface Serving {
  desk: Desk;
  workspaceUrl: string;
  deliveryUrl: string;
  stop(): Promise<void>;
}

/** Opens the store, migrates, lets `prepare` fill it, and serves both listeners. Ports in use are told in one sentence. */
export async function serve(
  config: Config,
  databaseUrl: string,
  prepare: (desk: StartingDesk) => Promise<void> = async () => {},
): Promise<Serving> {
  const log = pino({ level: config.log }, pino.destination({ fd: 2, sync: true }));
  const report = (message: string, error: unknown): void =>
    log.warn(error === undefined ? {} : { err: error }, message);
  ownFolder(config.dataFolder);
  const secret = config.secret ?? keptSecret(config.dataFolder);
  const store = openStore(databaseUrl);
  try {
    await reachable(store);
    for (const difference of (await migrate(store)).differences) report(difference, undefined);
    await knownSecret(store, [secret, ...config.secretsBefore]);
  } catch (error) {
    await store.close();
    throw error;
  }
  const starting: StartingDesk = {
    store,
    report,
    seal: sealWith([secret, ...config.secretsBefore]),
    deliveryPort: config.sitePort,
    outgoing: createOutgoing(config.simulated ? simulatedOutside(config) : {}),
    jobs: createJobs((error) => report("A piece of long work failed.", error)),
    texts: startTexts(),
    thread: startDeskThread({ databaseUrl, deliveryPort: config.sitePort }, report),
    workspaceHosts: [...new Set([`${config.host}:${config.port}`, `localhost:${config.port}`])],
  };
  await inTurn(store, () => prepare(starting));
  const delivery = await startDelivery({
    store,
    dataFolder: config.dataFolder,
    secret,
    deliveryPort: config.sitePort,
    trust: config.trust,
    report,
  });
  const desk: Desk = {
    ...starting,
    health: async () => ({ ...(await delivery.health()) }),
    preview: delivery.preview,
  };
  const workspace = await createWorkspace({
    desk,
    buildFolder: config.buildFolder,
    apiToken: config.apiToken,
    trust: config.trust,
    report,
  });
  const watches = startWatches(desk, report);
  const close = async (): Promise<void> => {
    await watches.stop();
    await Promise.all([closed(workspace), closed(delivery.server)]);
    await Promise.all([delivery.stop(), desk.thread.end(), desk.texts.end()]);
    await store.close();
  };
  try {
    await listening(workspace, config.host, config.port, "MAPROPE_PORT");
    await listening(delivery.server, config.siteHost, config.sitePort, "MAPROPE_SITE_PORT");
  } catch (error) {
    await close();
    throw error;
  }
  return { desk, workspaceUrl: urlOf(workspace), deliveryUrl: urlOf(delivery.server), stop: close };
}

// The simulated world is loopback, and only there: names under .localhost, on the ports that play it.
function simulatedOutside(config: Config): OutgoingOptions {
  const ports = [config.simPort, config.sitePort];
  const isSimulated = (host: string): boolean => /(?:^|\.)localhost$/.test(host);
  return {
    resolve: async (host) =>
      isSimulated(host) ? ["127.0.0.1"] : (await lookup(host, { all: true })).map(({ address }) => address),
    allows: (address, host, port) => (isSimulated(host) ? ports.includes(port) : isPublicAddress(address)),
  };
}

function keptSecret(dataFolder: string): string {
  const file = join(dataFolder, "secret");
  try {
    writeFileSync(file, randomBytes(32).toString("base64url"), { mode: 0o600, flag: "wx" });
  } catch (error) {
    if ((error as NodeJS.ErrnoException).code !== "EEXIST") throw error;
  }
  return readFileSync(file, "utf8");
}

function urlOf(server: Server): string {
  const { address, port } = server.address() as AddressInfo;
  return `http://${address.includes(":") ? `[${address}]` : address}:${port}`;
}
