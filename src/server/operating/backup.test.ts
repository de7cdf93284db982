import assert from "node:assert/strict";
import {
  copyFileSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  rmSync,
  statSync,
  truncateSync,
  writeFileSync,
} from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { after, before, describe, test } from "node:test";
import { ask, until } from "../../../tests/support/ask.ts";
import { createDatabase, type TestDatabase } from "../../../tests/support/database.ts";
import { testDelivery } from "../../../tests/support/delivery.ts";
import { OWNER } from "../../../tests/support/desk.ts";
import { operator, type Said } from "../../../tests/support/operator.ts";
import { deskWithProgram } from "../../../tests/support/program.ts";
import { writeSpoolLine } from "../../core/clicks/spool-line.ts";
import { createSpoolCopier } from "../../delivery/clicks/spool-copier.ts";
import { openSpool } from "../../delivery/clicks/spool.ts";
import { sealWith } from "../../desk/ground/seal.ts";
import { showCredentials } from "../../desk/programs/credentials.ts";
import { openSite } from "../../desk/sites/open-site.ts";
import { openStore } from "../../store/ground/store.ts";
import { knownSecret } from "../starting.ts";

const SECRET = "a secret of the tests";
const ACCOUNT = { name: "ida", password: "moss & lantern" };

describe("a backup, restored into an empty installation", () => {
  const folder = mkdtempSync(join(tmpdir(), "maprope-backup-"));
  const [here, there] = [join(folder, "here"), join(folder, "there")];
  const file = join(folder, "kept.tar");
  let made: Awaited<ReturnType<typeof deskWithProgram>>;
  let empty: TestDatabase;
  let route: string;
  let before_: { page: string; redirect: string | undefined };

  const keep = (...args: string[]): Promise<Said> =>
    operator(folder, { DATABASE_URL: made.garden.url, MAPROPE_DATA: here }, "backup", ...args);
  const restore = (of: string, settings = {}): Promise<Said> =>
    operator(
      folder,
      { DATABASE_URL: empty.url, MAPROPE_DATA: there, MAPROPE_SECRET: SECRET, ...settings },
      "restore",
      of,
    );
  /** A whole segment of so many clicks, in a folder. */
  function segmentIn(spool: string, clicks: number): void {
    const written = openSpool(spool);
    const at = Date.now();
    const click = { kind: "click", at, route, class: "person", device: "desktop", visitor: "v" } as const;
    written.append(writeSpoolLine({ ...click, referrer: "", page: "" }).repeat(clicks), clicks);
    written.close();
  }

  before(async () => {
    made = await deskWithProgram();
    const { call, store, site } = made.garden;
    await knownSecret(store, [SECRET]);
    route = (
      await call("POST", "/sites/garden/routes", {
        kind: "short",
        address: "/to/lamps",
        destination: "https://harbour.example/lamps?a=1&b=2",
      })
    ).body.id;
    const { id, version } = (
      await call("POST", "/sites/garden/pages", {
        path: "/moss",
        title: "Moss & more",
        html: '<p>Soft <a href="https://harbour.example/">lamps</a> – ü.</p>',
      })
    ).body;
    assert.equal((await call("POST", `/sites/garden/pages/${id}/publish`, { version })).status, 200);
    const { id: program } = made.harbour;
    const kept = await call("PUT", `/sites/garden/programs/${program}/credentials`, ACCOUNT);
    assert.ok(kept.status < 300, JSON.stringify(kept.body));
    // Three clicks that the database has and whose file is still there, and two that it has not.
    segmentIn(join(folder, "copied"), 3);
    const [copied] = readdirSync(join(folder, "copied"));
    mkdirSync(join(here, "spool"), { recursive: true });
    copyFileSync(join(folder, "copied", copied!), join(here, "spool", copied!));
    assert.equal(await createSpoolCopier(store, join(folder, "copied")).copy(), 3);
    segmentIn(join(here, "spool"), 2);
    const delivery = await testDelivery(made.garden.url);
    before_ = await asked(delivery.port);
    await delivery.end();
    assert.equal(site.key, "garden");
    empty = await createDatabase();
  });
  after(async () => {
    await made.garden.close();
    await empty.drop();
    rmSync(folder, { recursive: true, force: true });
  });

  async function asked(port: number): Promise<{ page: string; redirect: string | undefined }> {
    const page = await ask(port, "/moss");
    assert.equal(page.status, 200);
    // A robot: what is asked here does not count among the readers.
    const { headers } = await ask(port, "/to/lamps", { headers: { "User-Agent": "examplebot/1.0" } });
    return { page: page.body, redirect: headers.location };
  }

  test("is one file for its owner alone, and is never written over another", async () => {
    const kept = await keep(file);
    assert.equal(kept.status, 0, kept.error);
    assert.match(kept.out, /1 sites, 1 pages, 1 routes, [34] clicks, 2 files of waiting clicks/);
    assert.equal(statSync(file).mode & 0o777, 0o600);
    assert.deepEqual(readdirSync(folder).sort(), ["copied", "here", "kept.tar"]);
    const again = await keep(file);
    assert.deepEqual(
      [again.status, again.error],
      [1, `maprope: There is a file ${file} already; name another.`],
    );
    assert.ok(!readFileSync(file).includes(SECRET), "the secret is in it");
  });

  test("is refused where it does not fit, and nothing is there then", async () => {
    const text = join(folder, "text.tar");
    writeFileSync(text, "This is a letter.");
    const part = join(folder, "part.tar");
    copyFileSync(file, part);
    truncateSync(part, statSync(file).size - 20_000);
    const cases: readonly (readonly [of: string, settings: object, says: RegExp])[] = [
      [text, {}, /no backup/],
      [part, {}, /no backup|could not do it/],
      [join(folder, "none.tar"), {}, /There is no file/],
      [file, { MAPROPE_SECRET: "another" }, /needs the secret of then/],
      [file, { DATABASE_URL: made.garden.url }, /in use already/],
      [file, { MAPROPE_DATA: here }, /Clicks of another installation wait/],
    ];
    for (const [of, settings, says] of cases) {
      const refused = await restore(of, settings);
      assert.equal(refused.status, 1, String(says));
      assert.match(refused.error, says);
      assert.deepEqual(
        readdirSync(join(there)).filter((name) => name !== "in-use"),
        [],
      );
    }
    const store = openStore(empty.url, 1);
    const [tables] = await store.rows<{ n: string }>(
      "SELECT count(*)::text AS n FROM pg_tables WHERE schemaname = 'public'",
    );
    await store.close();
    assert.equal(tables!.n, "0");
  });

  test("has the same pages to the byte, redirects, credentials and each click once", async () => {
    const restored = await restore(file);
    assert.equal(restored.status, 0, restored.error);
    assert.match(restored.out, /routes {2}1$/m);
    assert.match(restored.out, /files of waiting clicks {2}1$/m);
    const store = openStore(empty.url, 2);
    const delivery = await testDelivery(empty.url, there);
    assert.deepEqual(await asked(delivery.port), before_);
    const total = async (): Promise<number> => {
      const [row] = await store.rows<{ n: string }>(
        "SELECT count(*)::text AS n FROM clicks WHERE class = 'person'",
      );
      return Number(row!.n);
    };
    await until("the clicks that waited are counted", async () => (await total()) >= 5);
    await delivery.end();
    assert.equal(await total(), 5);
    const desk = { store, seal: sealWith([SECRET]) };
    const site = await openSite(desk, made.garden.site.id);
    assert.deepEqual(await showCredentials(desk, OWNER, site, made.harbour.id), ACCOUNT);
    await store.close();
  });
});
