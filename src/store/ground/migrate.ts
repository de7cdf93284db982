import { LOCKS } from "./locks.ts";
import { createHash } from "node:crypto";
import type { Sequelize, Transaction } from "sequelize";
import { SequelizeStorage, Umzug } from "umzug";
import { firstSlice } from "./migrations/001-first-slice.ts";
import { writing } from "./migrations/002-writing.ts";
import { routesInFull } from "./migrations/003-routes.ts";
import { ledger } from "./migrations/004-ledger.ts";
import { programs } from "./migrations/005-programs.ts";
import { nothingLost } from "./migrations/006-nothing-lost.ts";
import { decimals } from "./migrations/007-decimals.ts";
import { ampersands } from "./migrations/008-ampersands.ts";
import { ends } from "./migrations/009-ends.ts";
import { credits } from "./migrations/010-credits.ts";
import { country } from "./migrations/011-country.ts";
import { jobs } from "./migrations/012-jobs.ts";
import { account } from "./migrations/013-account.ts";
import { peopleOfSites } from "./migrations/014-people.ts";
import { secondFactor } from "./migrations/015-second-factor.ts";
import { siteSettings } from "./migrations/016-site-settings.ts";
import { years } from "./migrations/017-years.ts";
import { jobRequests } from "./migrations/018-job-requests.ts";
import { readers } from "./migrations/019-readers.ts";
import { pictureForms } from "./migrations/020-picture-forms.ts";
import { repeats } from "./migrations/021-repeats.ts";
import { origins } from "./migrations/022-origins.ts";
import { front } from "./migrations/023-front.ts";
import { swaps } from "./migrations/024-swaps.ts";
import { edges } from "./migrations/025-edges.ts";
import { here } from "./migrations/026-here.ts";
import type { Migration } from "./migration.ts";
import { migrateQueue } from "../jobs/queue.ts";
import type { Store } from "./store.ts";

export const MIGRATIONS: readonly Migration[] = [
  firstSlice,
  writing,
  routesInFull,
  ledger,
  programs,
  nothingLost,
  decimals,
  ampersands,
  ends,
  credits,
  country,
  jobs,
  account,
  peopleOfSites,
  secondFactor,
  siteSettings,
  years,
  jobRequests,
  readers,
  pictureForms,
  repeats,
  origins,
  front,
  swaps,
  edges,
  here,
];
/** What migrating came to. */
export interface Migrated {
  /** Names of the steps that ran now. */
  ran: string[];
  /** In plain sentences: steps that ran here in another text than they have now, and steps that are not known. */
  differences: string[];
}

/** Brings the schema up to date; several processes may do so at once, one waits for the other. */
export async function migrate(
  { sequelize, url }: Pick<Store, "sequelize" | "url">,
  steps = MIGRATIONS,
): Promise<Migrated> {
  return sequelize.transaction(async (transaction) => {
    const run = (sql: string, replacements: Record<string, unknown> = {}): Promise<unknown> =>
      sequelize.query(sql, { replacements, transaction });
    // A large table may take its time, and so may the process that migrates already.
    await run("SET LOCAL statement_timeout = 0");
    await run("SET LOCAL lock_timeout = 0");
    await run("SELECT pg_advisory_xact_lock(:lock)", { lock: LOCKS.migration });
    const umzug = new Umzug({
      migrations: steps.map(({ name, statements }) => ({
        name,
        up: async () => {
          await sequelize.transaction(async (step) => {
            await sequelize.query("SET LOCAL statement_timeout = 0", { transaction: step });
            for (const statement of statements) await sequelize.query(statement, { transaction: step });
          });
        },
      })),
      storage: new SequelizeStorage({ sequelize, tableName: "migrations" }),
      logger: undefined,
    });
    await migrateQueue(url);
    const ran = (await umzug.up()).map(({ name }) => name);
    return { ran, differences: await compareChecksums(sequelize, transaction, steps) };
  });
}

/** The names of the steps that ran in a database; none where there is no schema yet. */
export async function ranMigrations({ sequelize }: Pick<Store, "sequelize">): Promise<string[]> {
  const [[there]] = (await sequelize.query("SELECT to_regclass('migrations') IS NOT NULL AS is")) as [
    { is: boolean }[],
    unknown,
  ];
  if (!there!.is) return [];
  const [rows] = (await sequelize.query("SELECT name FROM migrations ORDER BY name")) as [
    { name: string }[],
    unknown,
  ];
  return rows.map(({ name }) => name);
}

/** A step's text in short. */
export function checksum({ statements }: Migration): string {
  return createHash("sha256").update(statements.join("\n;\n")).digest("hex").slice(0, 32);
}

// Steps that ran before there were checksums were brought level by 006, and are marked as they are now.
async function compareChecksums(
  sequelize: Sequelize,
  transaction: Transaction,
  steps: readonly Migration[],
): Promise<string[]> {
  const query = async (sql: string, bind: unknown[] = []): Promise<{ name: string; checksum: string }[]> =>
    (await sequelize.query(sql, { bind, transaction }))[0] as { name: string; checksum: string }[];
  await query(
    "CREATE TABLE IF NOT EXISTS migration_checksums (name text PRIMARY KEY, checksum text NOT NULL)",
  );
  const known = new Map(steps.map((migration) => [migration.name, checksum(migration)]));
  const kept = new Map(
    (await query("SELECT name, checksum FROM migration_checksums")).map((row) => [row.name, row.checksum]),
  );
  const differences: string[] = [];
  for (const { name } of await query("SELECT name FROM migrations ORDER BY name")) {
    const now = known.get(name);
    const then = kept.get(name);
    if (now === undefined)
      differences.push(
        `The step ${name} of the schema ran in this database and is not known here: it is of a newer version.`,
      );
    else if (then === undefined) await query("INSERT INTO migration_checksums VALUES ($1, $2)", [name, now]);
    else if (then !== now)
      differences.push(
        `The step ${name} of the schema ran in this database in another text than it has now; the schema may differ.`,
      );
  }
  return differences;
}
