import { randomBytes } from "node:crypto";
import pg from "pg";
import { migrate } from "../../src/store/ground/migrate.ts";
import { openStore, type Store } from "../../src/store/ground/store.ts";

/** A fresh, migrated database on the test run's own PostgreSQL. */
export async function freshStore(): Promise<{ store: Store; url: string; drop(): Promise<void> }> {
  const admin = process.env.TEST_POSTGRES_URL;
  if (!admin) throw new Error("TEST_POSTGRES_URL is not set: these tests are run by “npm test”.");
  const name = `t_${randomBytes(6).toString("hex")}`;
  await query(admin, `CREATE DATABASE ${name}`);
  const url = admin.replace(/\/[^/]*$/, `/${name}`);
  const store = openStore(url, 6);
  await migrate(store);
  return {
    store,
    url,
    async drop() {
      await store.close();
      await query(admin, `DROP DATABASE ${name} WITH (FORCE)`);
    },
  };
}

async function query(url: string, sql: string): Promise<void> {
  const client = new pg.Client({ connectionString: url });
  await client.connect();
  await client.query(sql);
  await client.end();
}
