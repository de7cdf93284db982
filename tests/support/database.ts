import { randomBytes } from "node:crypto";
import pg from "pg";
import { migrate } from "../../src/store/ground/migrate.ts";
import { openStore, type Store } from "../../src/store/ground/store.ts";

/** A database of the test run's own PostgreSQL, until it is dropped. */
export interface TestDatabase {
  url: string;
  drop(): Promise<void>;
}

/** A fresh, migrated database on the test run's own PostgreSQL. */
export async function freshStore(): Promise<TestDatabase & { store: Store }> {
  const { url, drop } = await createDatabase();
  const store = openStore(url, 6);
  await migrate(store);
  return {
    store,
    url,
    async drop() {
      await store.close();
      await drop();
    },
  };
}

/** A new database: an empty one, or a copy of `template`, which nobody may be connected to. */
export async function createDatabase(
  name = `t_${randomBytes(6).toString("hex")}`,
  template = "template1",
): Promise<TestDatabase> {
  const admin = adminUrl();
  await query(admin, `CREATE DATABASE ${name} TEMPLATE ${template}`);
  return {
    url: admin.replace(/\/[^/]*$/, `/${name}`),
    drop: () => query(admin, `DROP DATABASE ${name} WITH (FORCE)`),
  };
}

/** The address of the test run's own PostgreSQL, with the right to create databases. */
export function adminUrl(): string {
  const admin = process.env.TEST_POSTGRES_URL;
  if (!admin) throw new Error("TEST_POSTGRES_URL is not set: these tests are run by “npm test”.");
  return admin;
}

async function query(url: string, sql: string): Promise<void> {
  const client = new pg.Client({ connectionString: url });
  await client.connect();
  await client.query(sql);
  await client.end();
}
