import assert from "node:assert/strict";
import { after, before, describe, test } from "node:test";
import { mkdtempSync, readFileSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { createDatabase } from "../../../tests/support/database.ts";
import { OWNER, testDesk, type TestDesk } from "../../../tests/support/desk.ts";
import { createSite } from "../../desk/sites/sites.ts";
import { openStore } from "../../store/ground/store.ts";
import { readConfig } from "../config.ts";
import { doctorCommand, migrateCommand } from "./doctor-command.ts";
import { examine } from "./doctor.ts";
import { operate } from "./operate.ts";
import { knownSecret } from "../starting.ts";
import { versionAbove } from "../version.ts";

const folder = mkdtempSync(join(tmpdir(), "maprope-doctor-"));
let garden: TestDesk;
before(async () => {
  garden = await testDesk();
  await knownSecret(garden.store, ["the secret"]);
  const hosts = [{ name: "harbour.coop", role: "primary" as const }];
  await createSite(garden.desk, OWNER, { key: "harbour", name: "Harbour", hosts });
});
after(async () => {
  await garden.close();
  rmSync(folder, { recursive: true, force: true });
});

const settings = (env = {}): Record<string, string> => ({
  DATABASE_URL: garden.url,
  MAPROPE_DATA: folder,
  MAPROPE_SECRET: "the secret",
  ...env,
});
async function said(
  env: object,
  work = doctorCommand,
): Promise<{ status: number; out: string; error: string }> {
  const lines = { out: [] as string[], error: [] as string[] };
  const io = { out: (line: string) => lines.out.push(line), error: (line: string) => lines.error.push(line) };
  const status = await operate(folder, settings(env), (on) => work([], on), io, {
    onlyLooks: work === doctorCommand,
  });
  return { status, out: lines.out.join("\n"), error: lines.error.join("\n") };
}

describe("the doctor", () => {
  test("says of each part how it is, and changes nothing", async () => {
    const found = await examine(readConfig(settings(), folder), garden.store, {
      resolve: async (name) => assert.equal(name, "harbour.coop", "no other name is asked for"),
    });
    assert.deepEqual(
      found.map(({ what, isWell }) => [what, isWell]),
      [
        ["configuration", true],
        ["disk", true],
        ["database", true],
        ["clock", true],
        ["schema", true],
        ["secret", true],
        ["mail", true],
        ["host", true],
        ["host", true],
        ["host", true],
      ],
    );
    for (const { says } of found) assert.match(says, /\.$/);
  });

  test("what is not well is told with what to do, and its status says so", async () => {
    const lost = await examine(readConfig(settings({ MAPROPE_SECRET: "another" }), folder), garden.store, {
      now: () => Date.now() + 60_000,
      resolve: () => Promise.reject(new Error("ENOTFOUND")),
    });
    const ill = lost.filter(({ isWell }) => !isWell);
    assert.deepEqual(
      ill.map(({ what }) => what),
      ["clock", "secret", "host"],
    );
    const gone = await said({ DATABASE_URL: "postgres://a:b@127.0.0.1:1/c" });
    assert.equal(gone.status, 1);
    assert.match(gone.out, /to do {2}database +The database on 127\.0\.0\.1:1 does not answer/);
    assert.match(gone.error, /1 of 3 is to be corrected\./);
  });

  test("a database without a schema is told, and migrating makes one", async () => {
    const { url, drop } = await createDatabase();
    try {
      const before = await said({ DATABASE_URL: url });
      assert.match(before.out, /to do {2}schema +\d+ steps behind; run “maprope migrate”/);
      assert.deepEqual((await said({ DATABASE_URL: url }, migrateCommand)).status, 0);
      const store = openStore(url, 1);
      const found = await examine(readConfig(settings({ DATABASE_URL: url }), folder), store);
      await store.close();
      assert.equal(found.find(({ what }) => what === "schema")!.isWell, true);
    } finally {
      await drop();
    }
  });
});

test("the version is the package's", () => {
  const { version } = JSON.parse(readFileSync(new URL("../../../package.json", import.meta.url), "utf8"));
  assert.equal(versionAbove(import.meta.dirname), version);
  assert.throws(() => versionAbove("/"), /No package\.json/);
});
