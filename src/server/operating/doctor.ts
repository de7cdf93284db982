import { statfsSync } from "node:fs";
import { lookup } from "node:dns/promises";
import type { Store } from "../../store/ground/store.ts";
import { databaseFacts, secretMarks } from "../../store/ground/installation.ts";
import { MIGRATIONS, ranMigrations } from "../../store/ground/migrate.ts";
import { allSites, hostsOf } from "../../store/sites/sites.ts";
import type { Config } from "../config.ts";
import { createMailer } from "../../outgoing/mail.ts";
import { knownSecrets } from "../secret.ts";
import { markOf, reachable } from "../starting.ts";

/** What was looked at, whether it is well, and, where it is not, what to do. */
export interface Finding {
  what: string;
  isWell: boolean;
  says: string;
}

const MIN_FREE_BYTES = 2e9;
const MAX_CLOCK_MS = 2_000;
/** Names that lead nowhere outside by themselves. */
const LOCAL = /(?:^|\.)(?:localhost|example|test|invalid)$/;

/** Looks at all that an installation needs, and says of each how it is. Nothing is changed. */
export async function examine(
  config: Config,
  store: Store,
  {
    now = Date.now,
    resolve = lookup,
  }: { now?: () => number; resolve?: (name: string) => Promise<unknown> } = {},
): Promise<Finding[]> {
  const found: Finding[] = [];
  const well = (what: string, says: string): void => void found.push({ what, isWell: true, says });
  const ill = (what: string, says: string): void => void found.push({ what, isWell: false, says });
  well(
    "configuration",
    `workspace on ${config.host}:${config.port}, delivery on ${config.siteHost}:${config.sitePort}.`,
  );
  const { bavail, bsize } = statfsSync(config.dataFolder);
  const free = bavail * bsize;
  const gigabytes = `${(free / 1e9).toFixed(1)} GB free below ${config.dataFolder}`;
  if (free < MIN_FREE_BYTES) ill("disk", `${gigabytes}: clicks wait there; make room.`);
  else well("disk", `${gigabytes}.`);
  try {
    await reachable(store);
  } catch (error) {
    ill("database", (error as Error).message);
    return found;
  }
  const { version, bytes, at } = await databaseFacts(store);
  well("database", `PostgreSQL ${version}, ${(Number(bytes) / 1e6).toFixed(0)} MB.`);
  const ahead = Math.abs(at.getTime() - now());
  if (ahead > MAX_CLOCK_MS)
    ill(
      "clock",
      `${(ahead / 1000).toFixed(0)} s apart from the database's; let both follow the same time server.`,
    );
  else well("clock", "as the database's.");
  const ran = new Set(await ranMigrations(store));
  const missing = MIGRATIONS.filter(({ name }) => !ran.has(name)).length;
  if (missing > 0) ill("schema", `${missing} steps behind; run “maprope migrate”, or start it.`);
  else well("schema", "up to date.");
  if (missing === MIGRATIONS.length) return found;
  const [mark] = await secretMarks(store);
  if (mark && !knownSecrets(config).map(markOf).includes(mark.value))
    ill("secret", "not the one that this database belongs to; set MAPROPE_SECRET to that one.");
  else
    well(
      "secret",
      config.secret ? "from MAPROPE_SECRET." : "from the data folder; keep a copy of it elsewhere.",
    );
  if (config.mail === undefined) well("mail", "no mail server; links are handed over.");
  else {
    const fault = await createMailer(config.mail.url, config.mail.from)
      .check()
      .then(
        () => undefined,
        (error: Error) => error.message,
      );
    const server = new URL(config.mail.url).host;
    if (fault === undefined) well("mail", `${server} takes mail from ${config.mail.from}.`);
    else ill("mail", `${server} does not: ${fault}; correct MAPROPE_MAIL_URL.`);
  }
  const sites = await allSites(store);
  for (const { name } of await hostsOf(
    store,
    sites.map(({ id }) => id),
  )) {
    if (LOCAL.test(name)) well("host", `${name} is a name for trying.`);
    else if (await leadsSomewhere(name, resolve)) well("host", `${name} leads to an address.`);
    else ill("host", `${name} leads nowhere; let its DNS point to where readers reach this installation.`);
  }
  return found;
}

async function leadsSomewhere(name: string, resolve: (name: string) => Promise<unknown>): Promise<boolean> {
  try {
    await resolve(name);
    return true;
  } catch {
    return false; // that is what is told
  }
}
