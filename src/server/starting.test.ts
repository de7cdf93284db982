import assert from "node:assert/strict";
import { spawnSync } from "node:child_process";
import { chmodSync, mkdirSync, mkdtempSync, rmSync, statSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { after, before, describe, test } from "node:test";
import { freshStore } from "../../tests/support/database.ts";
import { loadDemo } from "../../demo/load.ts";
import { takeDemoPeople } from "../../demo/people.ts";
import { firstOwner } from "../desk/people/first-owner.ts";
import { testDesk, OWNER } from "../../tests/support/desk.ts";
import { addPerson } from "../desk/people/people.ts";
import { inTurn } from "../store/ground/turns.ts";
import { knownSecret, ownFolder, reachable } from "./starting.ts";
import { openStore } from "../store/ground/store.ts";

const SENTENCE = /^[A-Z“][^\n]*\.$/;
describe("a start that goes wrong", () => {
  let fresh: Awaited<ReturnType<typeof freshStore>>;
  before(async () => {
    fresh = await freshStore();
  });
  after(() => fresh.drop());

  const sentenceOf = (work: Promise<unknown>): Promise<string> =>
    work.then(
      () => "nothing was refused",
      (error: Error) => error.message,
    );

  test("a database that is not there, does not answer or does not let in", async () => {
    const cases: readonly (readonly [url: string, says: RegExp])[] = [
      [fresh.url.replace(/\/[^/]*$/, "/not_there"), /no database “not_there”/],
      [fresh.url.replace(/:[^:@]*@/, ":wrong@"), /name and password/],
      ["postgres://a:b@127.0.0.1:1/c", /does not answer/],
    ];
    for (const [url, says] of cases) {
      const store = openStore(url, 1);
      const message = await sentenceOf(reachable(store));
      await store.close();
      assert.match(message, says);
      assert.match(message, SENTENCE);
    }
  });

  test("another secret than the installation's is refused; a new one takes over beside the old", async () => {
    await knownSecret(fresh.store, ["first"]);
    await knownSecret(fresh.store, ["first"]);
    const message = await sentenceOf(knownSecret(fresh.store, ["second"]));
    assert.match(message, /another secret/);
    assert.match(message, SENTENCE);
    await knownSecret(fresh.store, ["second", "first"]);
    await knownSecret(fresh.store, ["second"]);
    assert.match(await sentenceOf(knownSecret(fresh.store, ["first"])), /another secret/);
  });

  test("two fresh processes at once make one first owner", async () => {
    const garden = await testDesk();
    const notes = await Promise.all(
      [1, 2].map(async () => {
        const said: string[] = [];
        await inTurn(garden.store, async () => void said.push(...(await firstOwner(garden.desk))));
        return said;
      }),
    );
    assert.equal(notes.flat().length, 1);
    assert.equal(await garden.store.people.count(), 1);
    await garden.close();
  });

  test("a data folder is for its owner alone, and another user's is refused", (context) => {
    const folder = mkdtempSync(join(tmpdir(), "maprope-own-"));
    try {
      const inside = join(folder, "data");
      ownFolder(inside);
      assert.equal(statSync(inside).mode & 0o777, 0o700);
      chmodSync(inside, 0o755);
      ownFolder(inside);
      assert.equal(statSync(inside).mode & 0o777, 0o710);
      if (process.getuid?.() !== 0) return context.skip("only root has another user at hand");
      chmodSync(folder, 0o755);
      mkdirSync(join(folder, "roots"), { mode: 0o700 });
      const asked = spawnSync("runuser", [
        "-u",
        "nobody",
        "--",
        process.execPath,
        "-e",
        `require("fs").accessSync(${JSON.stringify(join(folder, "roots"))}, 7)`,
      ]);
      assert.notEqual(asked.status, 0);
    } finally {
      rmSync(folder, { recursive: true, force: true });
    }
  });
});

describe("the demo", () => {
  test("is never loaded beside other people or sites, and takes away only what is its own", async () => {
    const garden = await testDesk();
    await addPerson(garden.desk, {
      email: "ida@garden.example",
      name: "Ida",
      role: OWNER.role,
      password: "three old spades",
    });
    assert.equal(await loadDemo(garden.desk, 4602, Date.now()), false);
    assert.deepEqual(
      (await garden.store.people.findAll()).map(({ email }) => email),
      ["ida@garden.example"],
    );
    await addPerson(garden.desk, {
      email: "mara@lowlantern.example",
      name: "Mara",
      role: "owner",
      password: "x",
    });
    assert.equal(await takeDemoPeople(garden.desk), 1);
    assert.deepEqual(
      (await garden.store.people.findAll()).map(({ email }) => email),
      ["ida@garden.example"],
    );
    assert.deepEqual(
      (await garden.store.sites.findAll()).map(({ key }) => key),
      ["garden"],
    );
    await garden.close();
  });
});
