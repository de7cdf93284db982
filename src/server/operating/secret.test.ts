import assert from "node:assert/strict";
import { existsSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { after, before, test } from "node:test";
import { OWNER } from "../../../tests/support/desk.ts";
import { operator, type Said } from "../../../tests/support/operator.ts";
import { deskWithProgram } from "../../../tests/support/program.ts";
import { sealWith } from "../../desk/ground/seal.ts";
import { aboutSecondFactor } from "../../desk/people/second-factor.ts";
import { addPerson } from "../../desk/people/people.ts";
import { keepCredentials, showCredentials } from "../../desk/programs/credentials.ts";
import { beginSecondFactor } from "../../store/people/second-factor.ts";
import { secondFactorOf } from "../../store/people/second-factor.ts";
import { changeKeptSecret, knownSecrets } from "../secret.ts";
import { knownSecret } from "../starting.ts";

const ACCOUNT = { name: "ida", password: "moss & lantern" };
const folder = mkdtempSync(join(tmpdir(), "maprope-secret-"));
const FIRST = "the first secret";
let made: Awaited<ReturnType<typeof deskWithProgram>>;
let person: string;

before(async () => {
  made = await deskWithProgram();
  const { store, site } = made.garden;
  const desk = { store, seal: sealWith([FIRST]) };
  await knownSecret(store, [FIRST]);
  await keepCredentials(desk, OWNER, site, made.harbour.id, ACCOUNT);
  await addPerson(desk, {
    email: "ida@garden.example",
    password: "three old spades",
    name: "Ida Fern",
    role: "owner",
  });
  [{ id: person }] = (await store.rows<{ id: string }>("SELECT id::text FROM people")) as [{ id: string }];
  const secret = desk.seal.close("JBSWY3DPEHPK3PXP", aboutSecondFactor(person));
  await store.transaction((transaction) => beginSecondFactor(store, { person, secret }, transaction));
  writeFileSync(join(folder, "secret"), FIRST);
});
after(async () => {
  await made.garden.close();
  rmSync(folder, { recursive: true, force: true });
});

const rotate = (settings = {}): Promise<Said> =>
  operator(folder, { DATABASE_URL: made.garden.url, MAPROPE_DATA: folder, ...settings }, "secret", "rotate");

/** Asserts that one secret alone opens all there is. */
async function opensAll(secret: string): Promise<void> {
  const { store, site } = made.garden;
  const desk = { store, seal: sealWith([secret]) };
  assert.deepEqual(await showCredentials(desk, OWNER, site, made.harbour.id), ACCOUNT);
  const [row] = await secondFactorOf(store, { person });
  assert.equal(desk.seal.open(row!.secret!, aboutSecondFactor(person)), "JBSWY3DPEHPK3PXP");
  await knownSecret(store, [secret]);
}

test("the data folder's secret is changed, and opens everything alone", async () => {
  const done = await rotate();
  assert.equal(done.status, 0, done.error);
  assert.match(done.out, /^2 sealed anew\./);
  const second = readFileSync(join(folder, "secret"), "utf8");
  assert.notEqual(second, FIRST);
  assert.ok(!existsSync(join(folder, "secret.before")));
  await opensAll(second);
});

test("a change that was stopped half way is known to every start, and is gone on with", async () => {
  const first = readFileSync(join(folder, "secret"), "utf8");
  changeKeptSecret(folder);
  const known = knownSecrets({ secret: undefined, secretsBefore: [], dataFolder: folder });
  assert.deepEqual(known, [readFileSync(join(folder, "secret"), "utf8"), first]);
  const done = await rotate();
  assert.equal(done.status, 0, done.error);
  const second = readFileSync(join(folder, "secret"), "utf8");
  assert.equal(second, known[0]);
  await opensAll(second);
});

test("one that the settings name is told how to be changed, and then changed", async () => {
  const now = readFileSync(join(folder, "secret"), "utf8");
  const told = await rotate({ MAPROPE_SECRET: now });
  assert.equal(told.status, 1);
  assert.match(told.error, /Set MAPROPE_SECRET to a new one, such as [\w-]{43}, and MAPROPE_SECRET_BEFORE/);
  const done = await rotate({ MAPROPE_SECRET: "the newest secret", MAPROPE_SECRET_BEFORE: now });
  assert.equal(done.status, 0, done.error);
  await opensAll("the newest secret");
});

test("what no known secret opens is named", async () => {
  const refused = await rotate({ MAPROPE_SECRET: "a stranger", MAPROPE_SECRET_BEFORE: "another" });
  assert.equal(refused.status, 1);
  assert.match(refused.error, /another secret/);
});
