import assert from "node:assert/strict";
import { after, before, test } from "node:test";
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { freshStore } from "../../../tests/support/database.ts";
import { lookAtLink } from "../../desk/people/links.ts";
import { addPerson } from "../../desk/people/people.ts";
import { operate } from "./operate.ts";
import { personCommand } from "./person-command.ts";

let fresh: Awaited<ReturnType<typeof freshStore>>;
const folder = mkdtempSync(join(tmpdir(), "maprope-operator-"));
before(async () => {
  fresh = await freshStore();
  await addPerson(
    { store: fresh.store },
    {
      email: "ida@garden.example",
      password: "three old spades",
      name: "Ida Fern",
      role: "owner",
    },
  );
});
after(async () => {
  await fresh.drop();
  rmSync(folder, { recursive: true, force: true });
});

async function said(args: string[], env = {}): Promise<{ status: number; out: string; error: string }> {
  const lines = { out: [] as string[], error: [] as string[] };
  const io = { out: (line: string) => lines.out.push(line), error: (line: string) => lines.error.push(line) };
  const settings = { DATABASE_URL: fresh.url, MAPROPE_PORT: "4999", ...env };
  const status = await operate(folder, settings, (on) => personCommand(args, on), io);
  return { status, out: lines.out.join("\n"), error: lines.error.join("\n") };
}

test("a link for who lost their password, and for somebody new, on the machine itself", async () => {
  const reset = await said(["reset", "Ida@garden.example "]);
  assert.equal(reset.status, 0);
  const [, token] = /http:\/\/127\.0\.0\.1:4999\/welcome#([\w-]{43}) /.exec(reset.out)!;
  assert.equal((await lookAtLink({ store: fresh.store }, token!)).name, "Ida Fern");
  const invited = await said(["invite", "otto@garden.example", "--name", "Otto", "--role", "editor"]);
  assert.match(invited.out, /^otto@garden\.example signs in with http/);
  assert.deepEqual((await said(["list"])).out.split("\n"), [
    "ida@garden.example  Ida Fern  owner of every site",
    "otto@garden.example  Otto  editor of every site  not come in yet",
  ]);
});

test("what cannot be done is said in one line, with its status", async () => {
  const cases: readonly (readonly [args: string[], status: number, says: RegExp])[] = [
    [[], 2, /say “person list”/],
    [["reset"], 2, /say “person list”/],
    [["reset", "nobody@garden.example"], 1, /This person does not exist/],
    [["invite", "no mail"], 2, /not a mail address/],
    [["invite", "a@garden.example", "--role", "king"], 2, /say “person list”/],
    [["invite", "ida@garden.example"], 1, /Somebody else/],
    [["list", "--loud"], 2, /say “person list”/],
  ];
  for (const [args, status, says] of cases) {
    const answer = await said(args);
    assert.deepEqual([answer.status, answer.out], [status, ""], args.join(" "));
    assert.match(answer.error, says);
  }
  const elsewhere = await said(["list"], { DATABASE_URL: "postgres://a:b@127.0.0.1:1/c" });
  assert.deepEqual([elsewhere.status, /does not answer/.test(elsewhere.error)], [1, true]);
});
