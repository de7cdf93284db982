import { QueryTypes, Sequelize, type Transaction } from "sequelize";
import { defineModels, type Models } from "./models.ts";

/** The database: models, plain queries, transactions. The only place that knows SQL is this folder. */
export interface Store extends Models {
  sequelize: Sequelize;
  url: string;
  /** Runs a query with named parameters and answers its rows. */
  rows<T extends object>(
    sql: string,
    parameters?: Record<string, unknown>,
    transaction?: Transaction,
  ): Promise<T[]>;
  transaction<T>(work: (transaction: Transaction) => Promise<T>): Promise<T>;
  close(): Promise<void>;
}

/** How long the database may work on a statement, and how long a statement may wait for what another one holds. */
interface Patience {
  statementMs: number;
  lockMs: number;
}

/** While somebody waits for an answer: what is locked holds up those who need it, and them not for long. */
const USUAL: Patience = { statementMs: 60_000, lockMs: 5_000 };
/** For long work, which nobody sits before. */
export const LONG_WORK: Patience = { statementMs: 15 * 60_000, lockMs: 60_000 };

/** Opens a pool of connections; nothing is asked of the database before the first query. */
export function openStore(url: string, poolSize = 10, timeout = USUAL): Store {
  // Room to count in: with the 4 MB that are usual, groups of some ten thousand are sorted on the disk.
  const settings = {
    work_mem: "32MB",
    statement_timeout: timeout.statementMs,
    lock_timeout: timeout.lockMs,
    idle_in_transaction_session_timeout: 10 * 60_000,
  };
  const options = Object.entries(settings)
    .map(([name, value]) => `-c ${name}=${value}`)
    .join(" ");
  const sequelize = new Sequelize(url, {
    dialect: "postgres",
    logging: false,
    pool: { max: poolSize, min: 0, idle: 10_000, acquire: 10_000 },
    dialectOptions: { connectionTimeoutMillis: 3_000, options },
    retry: { max: 0 },
  });
  return {
    ...defineModels(sequelize),
    sequelize,
    url,
    rows: <T extends object>(sql: string, bind: Record<string, unknown> = {}, transaction?: Transaction) =>
      sequelize.query<T>(sql, { bind, type: QueryTypes.SELECT, transaction }),
    transaction: (work) => sequelize.transaction(work),
    close: () => sequelize.close(),
  };
}

/** True when a statement was given up because it took, or waited, too long (SQLSTATE 57014 and 55P03): nothing is wrong with it. */
export function isTooLate(error: unknown): boolean {
  const { code } = ((error as { parent?: unknown } | undefined)?.parent ?? {}) as { code?: string };
  return code === "57014" || code === "55P03" || code === "40P01";
}

/** The name of the unique index that a write ran into; undefined when the error is another. */
export function violatedIndex(error: unknown): string | undefined {
  const cause = (error as { parent?: { code?: string; constraint?: string } }).parent;
  return cause?.code === "23505" ? cause.constraint : undefined;
}
