import assert from "node:assert/strict";
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { after, before, test } from "node:test";
import { freshStore } from "../../../tests/support/database.ts";
import { operator, type Said } from "../../../tests/support/operator.ts";
import { actorOfToken } from "../../desk/people/tokens.ts";

const folder = mkdtempSync(join(tmpdir(), "maprope-operator-"));
let fresh: Awaited<ReturnType<typeof freshStore>>;
before(async () => {
  fresh = await freshStore();
});
after(async () => {
  await fresh.drop();
  rmSync(folder, { recursive: true, force: true });
});
const said = (name: string, ...args: string[]): Promise<Said> =>
  operator(folder, { DATABASE_URL: fresh.url, MAPROPE_SITE_PORT: "4602" }, name, ...args);

test("a site with its hosts", async () => {
  const made = await said(
    "site",
    "new",
    "moss",
    "--name",
    "Moss",
    "--host",
    "moss.example",
    "--short",
    "ms.example",
  );
  assert.deepEqual(made, { status: 0, out: "moss answers at https://moss.example/", error: "" });
  assert.equal((await said("site", "list")).out, "moss  Moss  moss.example (primary), ms.example (short)");
});

test("a token of the installation, for a site and for some days, until it is ended", async () => {
  const made = await said("token", "new", "nightly", "--role", "reader", "--site", "moss", "--days", "30");
  assert.equal(made.status, 0, made.error);
  const actor = await actorOfToken({ store: fresh.store }, made.out, undefined, "127.0.0.1");
  assert.equal(actor?.name, "token nightly");
  const [listed] = (await said("token", "list")).out.split("\n");
  const [, id] = /^(\d+) {2}nightly {2}reader of sites \d+ {2}until 20\d\d-\S+ {2}last used \S+ from /.exec(
    listed!,
  )!;
  assert.equal((await said("token", "end", id!)).status, 0);
  assert.equal((await said("token", "list")).out, "");
  assert.equal(await actorOfToken({ store: fresh.store }, made.out, undefined, "127.0.0.1"), undefined);
});

test("what cannot be done is said in one line, with its status", async () => {
  const cases: readonly (readonly [args: [string, ...string[]], status: number, says: RegExp])[] = [
    [["site"], 2, /say “site list”/],
    [["site", "new", "fern"], 2, /say “site list”/],
    [["site", "new", "Fern!", "--host", "fern.example"], 2, /A key is lower-case/],
    [["site", "new", "fern", "--host", "no host"], 2, /./],
    [["site", "new", "fern", "--host", "moss.example"], 1, /belongs to another site/],
    [["site", "list", "--loud"], 2, /say “site list”/],
    [["token"], 2, /say “token list”/],
    [["token", "new"], 2, /say “token list”/],
    [["token", "new", "x", "--role", "king"], 2, /./],
    [["token", "new", "x", "--site", "fern"], 1, /no site fern/],
    [["token", "new", "x", "--days", "soon"], 2, /say “token list”/],
    [["token", "end", "77"], 1, /This token/],
    [["secret"], 2, /say “secret rotate”/],
    [["backup"], 2, /say “backup FILE”/],
    [["restore"], 2, /say “restore FILE”/],
  ];
  for (const [[name, ...args], status, says] of cases) {
    const answer = await said(name, ...args);
    assert.equal(answer.status, status, [name, ...args].join(" "));
    assert.match(answer.error, says);
    assert.equal(answer.error.split("\n").length, 1);
  }
});
