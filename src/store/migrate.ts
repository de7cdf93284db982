import type { Sequelize } from "sequelize";
import { SequelizeStorage, Umzug } from "umzug";
import { firstSlice } from "./migrations/001-first-slice.ts";
import { writing } from "./migrations/002-writing.ts";
import { routesInFull } from "./migrations/003-routes.ts";
import { ledger } from "./migrations/004-ledger.ts";
import { programs } from "./migrations/005-programs.ts";
import { nothingLost } from "./migrations/006-nothing-lost.ts";

/** A step of the schema: its statements run in one transaction. */
export interface Migration {
  name: string;
  statements: readonly string[];
}

const MIGRATIONS: readonly Migration[] = [firstSlice, writing, routesInFull, ledger, programs, nothingLost];
const MIGRATION_LOCK = 731_600;

/** Brings the schema up to date; several processes may do so at once, one waits for the other. Answers what ran. */
export async function migrate(sequelize: Sequelize): Promise<string[]> {
  return sequelize.transaction(async (transaction) => {
    await sequelize.query("SELECT pg_advisory_xact_lock(:lock)", {
      replacements: { lock: MIGRATION_LOCK },
      transaction,
    });
    const umzug = new Umzug({
      migrations: MIGRATIONS.map(({ name, statements }) => ({
        name,
        up: async () => {
          await sequelize.transaction(async (step) => {
            for (const statement of statements) await sequelize.query(statement, { transaction: step });
          });
        },
      })),
      storage: new SequelizeStorage({ sequelize, tableName: "migrations" }),
      logger: undefined,
    });
    return (await umzug.up()).map(({ name }) => name);
  });
}
