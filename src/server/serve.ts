import { inTurn } from "../store/ground/turns.ts";
import { keptSecret, knownSecrets } from "./secret.ts";
import { knownSecret, ownFolder, reachable } from "./starting.ts";
import type { Server } from "node:http";
import { setTimeout as rest } from "node:timers/promises";
import type { AddressInfo } from "node:net";
import pino from "pino";
import { lookup } from "node:dns/promises";
import type { Config } from "./config.ts";
import { startDelivery } from "../delivery/ground/delivery.ts";
import { proofWith } from "../incoming/proof.ts";
import { closed, listening } from "../incoming/listening.ts";
import type { Desk, StartingDesk } from "../desk/desk.ts";
import { JOB_KINDS } from "../desk/job-kinds.ts";
import { createJobs } from "../desk/jobs/jobs.ts";
import { startJobs } from "../desk/jobs/start-jobs.ts";
import { sealWith } from "../desk/ground/seal.ts";
import { startTexts } from "../desk/pages/texts/texts.ts";
import { startDeskThread } from "../desk/start-desk-thread.ts";
import { startWatches } from "./watches.ts";
import { isPublicAddress } from "../outgoing/address-guard.ts";
import { createMailer } from "../outgoing/mail.ts";
import { createJudge, type JudgeOptions } from "../outgoing/judge.ts";
import { createOutgoing } from "../outgoing/outgoing.ts";
import { migrate } from "../store/ground/migrate.ts";
import { openStore } from "../store/ground/store.ts";
import { createWatching } from "./watching.ts";
import { inTime } from "./in-time.ts";
import { reportTo } from "./reporting.ts";
import { createWorkspace } from "./workspace.ts";

/** A running process: its desk, and how to stop it. */
export interface Serving {
  desk: Desk;
  workspaceUrl: string;
  deliveryUrl: string;
  stop(): Promise<void>;
}

/** How long a step of the end may take, in milliseconds: longer than the last answers, which have 25 s. */
const STEP_MS = 30_000;

/** Opens the store, migrates, lets `prepare` fill it, and serves both listeners. Ports in use are told in one sentence. */
export async function serve(
  config: Config,
  databaseUrl: string,
  prepare: (desk: StartingDesk) => Promise<void> = async () => {},
): Promise<Serving> {
  const log = pino({ level: config.log }, pino.destination({ fd: 2, sync: true }));
  const reporting = reportTo(log);
  const { report } = reporting;
  const readers = log.child({}, { level: "info" });
  ownFolder(config.dataFolder);
  if (config.secret === undefined) keptSecret(config.dataFolder);
  const secrets = knownSecrets(config);
  const store = openStore(databaseUrl);
  try {
    await reachable(store);
    for (const difference of (await migrate(store)).differences) report(difference, undefined);
    await knownSecret(store, secrets);
  } catch (error) {
    await store.close();
    throw error;
  }
  const outside: JudgeOptions = config.simulated ? simulatedOutside(config) : {};
  const { allows = isPublicAddress } = outside;
  const origins = createJudge({
    ...outside,
    allows: (address, host, port) => allows(address, host, port) || config.privateOrigins(address),
  });
  const starting: StartingDesk = {
    store,
    report,
    seal: sealWith(secrets),
    deliveryPort: config.sitePort,
    outgoing: createOutgoing({ ...outside, origins }),
    jobs: createJobs(store),
    texts: startTexts(report),
    thread: startDeskThread({ databaseUrl, deliveryPort: config.sitePort }, report),
    workspaceHosts: [...new Set([`${config.host}:${config.port}`, `localhost:${config.port}`])],
  };
  await inTurn(store, () => prepare(starting));
  const delivery = await startDelivery({
    store,
    dataFolder: config.dataFolder,
    secret: secrets[0]!,
    deliveryPort: config.sitePort,
    trust: config.trust,
    report,
    judge: origins,
    accessLog: config.accessLog ? (answer) => readers.info(answer, "answered") : undefined,
  });
  const desk: Desk = {
    ...starting,
    health: async () => ({ ...(await delivery.health()) }),
    preview: delivery.preview,
    mailer: config.mail && createMailer(config.mail.url, config.mail.from),
    workspaceUrl: config.workspaceUrl,
    proof: proofWith(secrets[0]!),
  };
  const watching = createWatching(config, { store, delivery, log });
  const workspace = await createWorkspace({
    desk,
    buildFolder: config.buildFolder,
    apiToken: config.apiToken,
    trust: config.trust,
    api: config.api,
    report,
    watched: watching.watched,
  });
  const watches = startWatches(desk, report);
  const jobs = startJobs(desk, JOB_KINDS);
  const close = async (): Promise<void> => {
    watching.leave();
    if (workspace.listening) await rest(config.drainSeconds * 1000);
    const end = (steps: Record<string, Promise<unknown>>): Promise<void> => inTime(steps, STEP_MS, report);
    await end({ "the watches": watches.stop(), "long work": jobs.stop() });
    await end({ "the workspace": closed(workspace), "the readers' listener": closed(delivery.server) });
    await end({
      delivery: delivery.stop(),
      "the desk's thread": desk.thread.end(),
      "the reading of texts": desk.texts.end(),
    });
    await end({ "the measures": watching.stop() });
    await end({ "the database's connections": store.close() });
    reporting.stop();
  };
  try {
    await watching.listen();
    await listening(workspace, config.host, config.port, "MAPROPE_PORT");
    await listening(delivery.server, config.siteHost, config.sitePort, "MAPROPE_SITE_PORT");
  } catch (error) {
    await close();
    throw error;
  }
  return { desk, workspaceUrl: urlOf(workspace), deliveryUrl: urlOf(delivery.server), stop: close };
}

// The simulated world is loopback, and only there: names under .localhost, on the ports that play it.
function simulatedOutside(config: Config): JudgeOptions {
  const ports = [config.simPort, config.sitePort];
  const isSimulated = (host: string): boolean => /(?:^|\.)localhost$/.test(host);
  return {
    resolve: async (host) =>
      isSimulated(host) ? ["127.0.0.1"] : (await lookup(host, { all: true })).map(({ address }) => address),
    allows: (address, host, port) => (isSimulated(host) ? ports.includes(port) : isPublicAddress(address)),
  };
}

function urlOf(server: Server): string {
  const { address, port } = server.address() as AddressInfo;
  return `http://${address.includes(":") ? `[${address}]` : address}:${port}`;
}
