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

/** Opens a pool of connections; nothing is asked of the database before the first query. */
export function openStore(url: string, poolSize = 10): Store {
  const sequelize = new Sequelize(url, {
    dialect: "postgres",
    logging: false,
    pool: { max: poolSize, min: 0, idle: 10_000, acquire: 10_000 },
    // Room to count in: with the 4 MB that are usual, groups of some ten thousand are sorted on the disk.
    dialectOptions: { connectionTimeoutMillis: 3_000, options: "-c work_mem=32MB" },
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

/** The name of the unique index that a write ran into; undefined when the error is another. */
export function violatedIndex(error: unknown): string | undefined {
  const cause = (error as { parent?: { code?: string; constraint?: string } }).parent;
  return cause?.code === "23505" ? cause.constraint : undefined;
}
