import assert from "node:assert/strict";
import { after, before, test } from "node:test";
import { until } from "../../tests/support/ask.ts";
import { testDesk, type TestDesk } from "../../tests/support/desk.ts";
import { pageInputSchema } from "../core/pages/page.ts";
import { rebuildTask } from "./ledger/follow-ledger.ts";
import { createPageTask, savePageTask } from "./pages/page-tasks.ts";
import { importRoutesTask } from "./routes/transfer/import-routes.ts";
import { tryRulesTask } from "./rules/try-rules.ts";
import { Stopped, UNWATCHED } from "../threads/progress.ts";
import { Problem } from "./ground/problem.ts";
import type { DeskThread } from "./jobs/desk-thread.ts";
import { startDeskThread } from "./start-desk-thread.ts";

let garden: TestDesk;
let thread: DeskThread;
const reports: unknown[] = [];
before(async () => {
  garden = await testDesk();
  for (let page = 0; page < 30; page += 1)
    await garden.call("POST", "/sites/garden/pages", {
      path: `/p${page}`,
      title: `P ${page}`,
      html: '<p><a href="https://a.example/">a</a></p>'.repeat(300),
    });
  thread = startDeskThread({ databaseUrl: garden.url, deliveryPort: 4601 }, (message, error) =>
    reports.push([message, error]),
  );
});
after(async () => {
  await thread.end();
  assert.deepEqual([reports, garden.failures], [[], []]);
  await garden.close();
});

const rules = [
  {
    name: "Out",
    enabled: true,
    match: { destination: "external" as const },
    set: { nofollow: "on" as const },
    mode: "fill" as const,
  },
];

test("a set is tried off the thread that asks, which learns how far it is", async () => {
  const steps: number[] = [];
  const tried = await thread.run(
    tryRulesTask,
    garden.site.id,
    { rules },
    { signal: UNWATCHED.signal, step: async (done) => void steps.push(done) },
  );
  assert.deepEqual([tried.links, tried.changed], [9_000, 9_000]);
  assert.ok(steps.length > 1 && steps.at(-1)! > 0);
});

test("it stops when asked, and goes on with what is asked next", async () => {
  const control = new AbortController();
  const watching = { signal: control.signal, step: async () => {} };
  const stopped = thread.run(rebuildTask, garden.site.id, null, watching);
  control.abort();
  await assert.rejects(stopped, Stopped);
  const tried = await thread.run(tryRulesTask, garden.site.id, { rules }, UNWATCHED);
  assert.equal(tried.links, 9_000);
});

test("what is refused there is refused here", async () => {
  await assert.rejects(thread.run(rebuildTask, "999999", null, UNWATCHED), { status: 404 });
});

test("it follows what others change, without being asked", async () => {
  await garden.call("PUT", "/sites/garden/rules", { version: 0, rules });
  await until("the ledger follows the rules", async () => {
    const [row] = await garden.store.rows<{ plain: number }>(
      "SELECT count(*)::int AS plain FROM ledger_links WHERE treatment = 'plain'",
    );
    return row!.plain === 0;
  });
});

test("a long page is saved there as it is here, and what is refused comes back with its fields", async () => {
  const actor = { name: "Ida", role: "editor" as const };
  const input = {
    path: "/there",
    title: "There",
    html: '<p><a href="https://a.example/">a</a> <a href="javascript:x()">b</a></p>',
  };
  const saved = await thread.run(
    createPageTask,
    garden.site.id,
    { actor, page: pageInputSchema.parse(input) },
    UNWATCHED,
  );
  assert.equal(saved.html, '<p><a href="https://a.example/">a</a> b</p>');
  assert.equal(saved.dropped?.length, 1);
  const change = { version: saved.version + 7, title: "Late" };
  const late = thread.run(savePageTask, garden.site.id, { actor, id: saved.id, change }, UNWATCHED);
  await assert.rejects(late, (error) => {
    assert.ok(error instanceof Problem);
    assert.deepEqual([error.status, (error.more.current as { id: string }).id], [409, saved.id]);
    return true;
  });
  const file = {
    bytes: new TextEncoder().encode("kind,address,destination\nredirect,nowhere,/x\n"),
    json: false,
  };
  const query = { atomic: "1" as const };
  const refused = thread.run(importRoutesTask, garden.site.id, { actor, file, query }, UNWATCHED);
  await assert.rejects(refused, (error) => {
    assert.ok(error instanceof Problem);
    assert.deepEqual([error.status, error.errors.map(({ path }) => path)], [422, ["line 2"]]);
    return true;
  });
});
