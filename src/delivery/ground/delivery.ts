import { ping } from "../../store/ground/installation.ts";
import type { ProxyTrust } from "../../incoming/proxy-trust.ts";
import { createServer, type Server } from "node:http";
import { join } from "node:path";
import { visitorSalt } from "../../store/clicks/click-spool.ts";
import { openStore, type Store } from "../../store/ground/store.ts";
import { startCopying } from "../clicks/copying.ts";
import { followStore } from "./follow-store.ts";
import { createHotPath } from "../routes/hot-path.ts";
import {
  ANSWER_KINDS,
  createListener,
  createUpgrades,
  type AccessLog,
  type AnswerKind,
  type ListenerParts,
} from "./listener.ts";
import { createFront } from "../origin/front.ts";
import { createFrames } from "../origin/frame/frames.ts";
import { createFrontTally } from "../origin/counts.ts";
import { createPagesElsewhere, createPaidElsewhere } from "../origin/pages-elsewhere.ts";
import { createJudge, type Judge } from "../../outgoing/judge.ts";
import { proofWith } from "../../incoming/proof.ts";
import { createTally, type AnswerTimes } from "../../incoming/tally.ts";
import type { Waiting } from "../clicks/spool-copier.ts";
import type { PublishedPage } from "../../store/ground/models.ts";
import { createRenderedPages, documentOf } from "../pages/rendered-pages.ts";
import { createMachineDocuments } from "../sites/machine-documents.ts";
import { createSiteFiles } from "../sites/site-files.ts";
import { lockFolder } from "../clicks/folder-lock.ts";
import { openSpool } from "../clicks/spool.ts";
import { loadThemeAssets } from "../pages/theme/assets.ts";
import { createVisitorKeys, saltFile } from "../clicks/visitor-key.ts";

export interface DeliveryOptions {
  store: Store;
  /** Folder for the click spool. */
  dataFolder: string;
  secret: string;
  /** Port under which readers reach `.localhost` hosts. */
  deliveryPort: number;
  /** Which proxies before us are believed what they say of the reader. */
  trust: ProxyTrust;
  report(message: string, error: unknown): void;
  /** Where origins may be asked that stand elsewhere; only public addresses unless given. */
  judge?: Judge | undefined;
  accessLog?: AccessLog | undefined;
}

/** The delivery listener of one process, with everything that it needs behind it. */
export interface Delivery {
  server: Server;
  health(): Promise<DeliveryHealth>;
  /** What there is to be watched. */
  measures(): Promise<DeliveryMeasures>;
  /** From now on it says that it is not ready, and keeps no connection; it answers still. */
  leave(): void;
  /** Sequence number of the last change of the store that readers of this process get. */
  lastChange(): string;
  /** A page's document as readers would get it now; undefined when this process does not know the site yet. */
  preview(siteId: string, page: PublishedPage & { id?: string }): string | undefined;
  /** Stops following and copying, after a last copy; the server is the caller's to close. */
  stop(): Promise<void>;
}

export interface DeliveryHealth {
  status: "ok" | "degraded";
  database: "up" | "down";
  routes: number;
  /** Records on the spool that have not reached the database. */
  pendingClicks: number;
  /** Records that the disk refused since start. */
  lostClicks: number;
}

/** What a delivery listener does, in numbers. */
export interface DeliveryMeasures {
  answers: Readonly<Record<AnswerKind, AnswerTimes>>;
  spool: Waiting & { written: number; lost: number };
  routes: number;
  /** Seconds since it was last known that no change was missed. */
  staleSeconds: number;
  cache: { documents: number; bytes: number };
}

// As long as a database may take to come back, or another to take its place, with readers served from memory.
const MAX_STALE_MS = 300_000;

/** Starts delivery: loads the index, follows changes, and copies clicks to the database for as long as it runs. */
export async function startDelivery(options: DeliveryOptions): Promise<Delivery> {
  const { store, report, trust, deliveryPort } = options;
  const folder = join(options.dataFolder, "spool");
  const counter = new SharedArrayBuffer(8);
  const lock = await lockFolder(options.dataFolder);
  const spool = openSpool(folder, { counter, report });
  // A connection of its own: one that waits for a locked table is not a database that is gone.
  const asking = openStore(store.url, 1);
  const index = await followStore(store, deliveryPort, report);
  const visitors = createVisitorKeys(
    options.secret,
    (now, fresh) => visitorSalt(store, now, fresh),
    saltFile(join(options.dataFolder, "visitor-salt.json"), report),
  );
  await visitors.ready(Date.now());
  const copying = startCopying(store.url, { folder, owner: spool.owner }, counter, report);

  const health = async (): Promise<DeliveryHealth> => {
    const up = await databaseAnswers(asking);
    const fine = up && spool.lost === 0;
    return {
      status: fine ? "ok" : "degraded",
      database: up ? "up" : "down",
      routes: index.current().routeCount,
      pendingClicks: (await copying.pending()).records,
      lostClicks: spool.lost,
    };
  };
  const tally = createTally(ANSWER_KINDS);
  const frontTally = createFrontTally(store, report);
  const pages = createRenderedPages(store, deliveryPort);
  let isLeaving = false;
  const staleMs = (): number => performance.now() - index.lastLook();
  const front = createFront({
    judge: options.judge ?? createJudge({}),
    trust,
    tally: frontTally,
    paid: createPaidElsewhere(store),
    report,
    pseudonym: `maprope-${proofWith(options.secret)("via").slice(0, 8)}`,
  });
  const parts: ListenerParts = {
    front,
    frames: createFrames((site, path) => front.read(site, path), report),
    elsewhere: createPagesElsewhere(store),
    index,
    hotPath: createHotPath(spool, visitors, trust, deliveryPort, tally),
    pages,
    tally,
    accessLog: options.accessLog,
    proof: proofWith(options.secret),
    isLeaving: () => isLeaving,
    readiness: () => [
      ...(isLeaving ? ["It is about to stop."] : []),
      ...(staleMs() > MAX_STALE_MS
        ? [`What it serves is ${Math.round(staleMs() / 1000)} s old: the database could not be asked.`]
        : []),
    ],
    files: createSiteFiles(store),
    documents: createMachineDocuments(store, deliveryPort, report),
    assets: loadThemeAssets(),
    deliveryPort,
    trust,
    health: async () => ({ ...(await health()) }),
    report,
  };
  const server = createServer(createListener(parts));
  server.on("upgrade", createUpgrades(parts));
  return {
    server,
    health,
    measures: async () => ({
      answers: tally.read(),
      spool: { ...(await copying.pending()), written: spool.written, lost: spool.lost },
      routes: index.current().routeCount,
      staleSeconds: staleMs() / 1000,
      cache: pages.cached(),
    }),
    leave() {
      isLeaving = true;
    },
    lastChange: () => index.lastChange(),
    preview(siteId, page) {
      const site = index.current().siteById(siteId);
      return site && documentOf(site, page, deliveryPort, { isElsewhere: true });
    },
    async stop() {
      await index.stop();
      spool.close();
      visitors.stop();
      await front.close();
      await frontTally.stop();
      await copying.stop();
      await asking.close();
      lock.release();
    },
  };
}

async function databaseAnswers(store: Store): Promise<boolean> {
  let timer: NodeJS.Timeout | undefined;
  const late = new Promise<boolean>((resolve) => {
    timer = setTimeout(() => resolve(false), 2_000);
  });
  const asked = ping(store).then(
    () => true,
    () => false,
  );
  const answer = await Promise.race([asked, late]);
  clearTimeout(timer);
  return answer;
}
