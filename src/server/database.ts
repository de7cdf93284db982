import { startPostgres } from "../../scripts/postgres.mjs";
import { ensureDatabase } from "../store/ground/ensure-database.ts";
import type { Config } from "./config.ts";
import { ownFolder } from "./starting.ts";

/** What is undone at the end, the last thing first. */
export type Ends = (() => unknown)[];

/**
 * The address of the database: the one that `DATABASE_URL` names, or that of a PostgreSQL of our own in the data folder. One
 * that was started for this ends with `ends`.
 */
export async function databaseOf(config: Config, ends: Ends): Promise<string> {
  if (config.databaseUrl) return config.databaseUrl;
  ownFolder(config.dataFolder);
  const postgres = await startPostgres(config.dataFolder);
  if (!postgres.reused) ends.push(() => postgres.stop());
  await ensureDatabase(postgres.url("postgres"), "maprope");
  return postgres.url("maprope");
}
