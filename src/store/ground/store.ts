import { QueryTypes, Sequelize, type Transaction } from "sequelize";
import { addressesOf, connectingTo } from "./connection.ts";
import { defineModels, type Models } from "./models.ts";

/** The database: models, plain queries, transactions. The only place that knows SQL is this folder. */
export interface Store extends Models {
  sequelize: Sequelize;
  /** Where the database is found, as connection.ts reads it. */
  url: string;
  /** Runs a query with named parameters and answers its rows. */
  rows<T extends object>(
    sql: string,
    parameters?: Record<string, unknown>,
    transaction?: Transaction,
  ): Promise<T[]>;
  transaction<T>(work: (transaction: Transaction) => Promise<T>): Promise<T>;
  /** The pool's connections at this moment, and how many ask for one. */
  connections(): { using: number; idle: number; waiting: number };
  close(): Promise<void>;
}

/** How long the database may work on a statement, and how long a statement may wait for what another one holds. */
interface Timeouts {
  statementMs: number;
  lockMs: number;
}

/** While somebody waits for an answer: what is locked holds up those who need it, and them not for long. */
const USUAL: Timeouts = { statementMs: 60_000, lockMs: 5_000 };
/** For long work, which nobody sits before. */
export const LONG_WORK: Timeouts = { statementMs: 15 * 60_000, lockMs: 60_000 };

interface PoolFigures {
  using: number;
  available: number;
  waiting: number;
}

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
  const { usual, isPooled } = addressesOf(url);
  const { connectionString, stream } = connectingTo(usual);
  const sequelize = new Sequelize(connectionString, {
    dialect: "postgres",
    logging: false,
    pool: { max: poolSize, min: 0, idle: 10_000, acquire: 12_000 },
    dialectOptions: {
      connectionTimeoutMillis: 8_000,
      // A pooler's sessions are everybody's: there each transaction says itself what holds in it.
      ...(isPooled ? { clientMinMessages: false } : { options }),
      ...(stream ? { stream } : {}),
    },
    ...(isPooled ? { keepDefaultTimezone: true } : {}),
    retry: { max: 0 },
  });
  const locally = Object.entries(settings)
    .map(([name, value]) => `SET LOCAL ${name} = '${value}'`)
    .join("; ");
  return {
    ...defineModels(sequelize),
    sequelize,
    url,
    rows: <T extends object>(sql: string, bind: Record<string, unknown> = {}, transaction?: Transaction) =>
      sequelize.query<T>(sql, { bind, type: QueryTypes.SELECT, transaction }),
    transaction: (work) =>
      sequelize.transaction(async (transaction) => {
        if (isPooled) await sequelize.query(locally, { transaction });
        return work(transaction);
      }),
    connections() {
      // Of the library's own pool, which its types do not tell of.
      const { pool } = (sequelize as unknown as { connectionManager: { pool: PoolFigures } })
        .connectionManager;
      return { using: pool.using, idle: pool.available, waiting: pool.waiting };
    },
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
