import { join, resolve } from "node:path";
import { createCollector, type Collected } from "../../delivery/clicks/collect/collector.ts";
import { createSpoolText } from "../../delivery/clicks/collect/spool-text.ts";
import { lockFolder } from "../../delivery/clicks/folder-lock.ts";
import { createSpoolCopier } from "../../delivery/clicks/spool-copier.ts";
import { createVisitorKeys, saltFile } from "../../delivery/clicks/visitor-key.ts";
import { NO_PROXY } from "../../incoming/proxy-trust.ts";
import { visitorSalt } from "../../store/clicks/click-spool.ts";
import { LONG_WORK, openStore, type Store } from "../../store/ground/store.ts";
import { hostsBySite, noteCollected } from "../../store/routes/edges.ts";
import { knownSecrets } from "../secret.ts";
import { reachable } from "../starting.ts";
import { EDGE_NAME } from "./edge-command.ts";
import { argumentsOf, WrongUsage, type Operating } from "./operate.ts";
import { untilTold } from "./until-told.ts";

const USAGE = "say “collect LOG --name NAME [--pid FILE] [--once]”.";
const OPTIONS = { name: { type: "string" }, pid: { type: "string" }, once: { type: "boolean" } } as const;
const LOOK_MS = 500;
const HOSTS_MS = 30_000;
const HEARTBEAT_MS = 5_000;

/** Brings an edge's log into a spool of its own, and that into the database. */
export async function collectCommand(
  args: readonly string[],
  { store, config, say }: Operating,
): Promise<void> {
  const { what: log, which, values } = argumentsOf(args, OPTIONS, USAGE);
  const { name, pid = "/run/nginx.pid", once = false } = values;
  if (log === undefined || which !== undefined || name === undefined || !EDGE_NAME.test(name))
    throw new WrongUsage(USAGE);
  const [secret] = knownSecrets(config);
  if (secret === undefined)
    throw new Error(
      "There is no secret here: set MAPROPE_SECRET to that of the installation, or readers count twice.",
    );
  await reachable(store);
  const folder = join(config.dataFolder, "collected", name);
  const lock = await lockFolder(folder);
  const report = (message: string): void => say(message);
  const visitors = createVisitorKeys(
    secret,
    (now, fresh) => visitorSalt(store, now, fresh),
    saltFile(join(folder, "visitor-salt.json"), report),
  );
  const hosts = keptHosts(store);
  await Promise.all([visitors.ready(Date.now()), hosts.refresh()]);
  const collector = createCollector({
    log: resolve(log),
    spool: join(folder, "spool"),
    state: join(folder, "collected.json"),
    pidFile: resolve(pid),
    toSpool: createSpoolText({
      visitors,
      hostsOf: (site) => hosts.of(site),
      plainAddress: (address) => NO_PROXY.address(address, ""),
    }),
    report,
  });
  // Two segments at once, each with a look-up beside its transaction.
  const copying = openStore(store.url, 4, LONG_WORK);
  const copier = createSpoolCopier(copying, join(folder, "spool"));
  const told = untilTold();
  let notedAt = 0;
  let isAway = false;
  const copy = async (turn: Collected, isLast: boolean): Promise<void> => {
    try {
      await copier.copy();
      if (isLast || Date.now() - notedAt >= HEARTBEAT_MS) {
        await noteCollected(store, { name, ...turn, now: Date.now() });
        notedAt = Date.now();
      }
      await hosts.refresh();
      isAway = false;
    } catch (error) {
      if (once) throw error;
      // Told once for each outage; the clicks wait in the spool.
      if (!isAway) say(`Clicks wait on this machine: ${(error as Error).message}`);
      isAway = true;
    }
  };
  say(`The clicks of ${name} are collected from ${log}.`);
  try {
    for (;;) {
      const isLast = once || told.isTold;
      const turn = await collector.turn(Date.now());
      await copy(turn, isLast);
      if (once && turn.fault !== "") throw new Error(turn.fault);
      if (isLast) return;
      await told.rest(LOOK_MS);
    }
  } finally {
    visitors.stop();
    await copying.close();
    lock.release();
  }
}

// By the hosts of its site, a click from one of its own pages is known.
function keptHosts(store: Store) {
  let known = new Map<string, string[]>();
  let at = 0;
  return {
    of: (site: string): readonly string[] => known.get(site) ?? [],
    async refresh(): Promise<void> {
      if (Date.now() - at < HOSTS_MS) return;
      known = await hostsBySite(store);
      at = Date.now();
    },
  };
}
