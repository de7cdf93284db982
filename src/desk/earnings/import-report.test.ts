import assert from "node:assert/strict";
import { after, before, test } from "node:test";
import { testDesk, type TestDesk } from "../../../tests/support/desk.ts";
import { reportColumnsSchema } from "../../core/earnings/earning.ts";
import { Stopped, UNWATCHED, type Progress } from "../../threads/progress.ts";
import { importReport } from "./import-report.ts";

const COLUMNS = reportColumnsSchema.parse({
  reference: "id",
  at: "date",
  commission: "commission",
  currency: "currency",
  state: "state",
  dates: "ymd",
  decimal: ".",
});
let garden: TestDesk;
before(async () => {
  garden = await testDesk();
});
after(() => garden.close());

const imported = (network: string, rows: readonly string[], progress: Progress = UNWATCHED) =>
  importReport(
    garden.desk,
    garden.site,
    {
      network,
      bytes: Buffer.from(["id,date,commission,currency,state", ...rows].join("\n")),
      columns: COLUMNS,
      dryRun: false,
      by: "Ida",
    },
    progress,
  );
const kept = (network: string) =>
  garden.store.rows<{ reference: string; commission: string; state: string }>(
    "SELECT reference, commission::text, state FROM conversions WHERE network = $network ORDER BY reference",
    { network },
  );
const row = (reference: string, commission: string, state = "approved"): string =>
  `${reference},2026-11-02,${commission},EUR,${state}`;

test("of a reference that stands in a report several times, the last row counts, once", async () => {
  const first = await imported("Salt", [row("a", "1.00", "pending"), row("b", "2.00"), row("a", "3.00")]);
  assert.deepEqual([first.rows, first.created, first.changed, first.unchanged], [3, 2, 0, 0]);
  assert.equal(first.unmatched, 2, "each reference is counted once");
  assert.deepEqual(await kept("Salt"), [
    { reference: "a", commission: "300", state: "approved" },
    { reference: "b", commission: "200", state: "approved" },
  ]);
});

test("what was kept before is changed by the last row, though an earlier one says the same or less", async () => {
  const again = await imported("Salt", [
    row("b", "9.00"),
    row("b", "2.00"),
    row("a", "4.00"),
    row("c", "5.00"),
    row("a", "3.50", "reversed"),
  ]);
  assert.deepEqual([again.created, again.changed, again.unchanged], [1, 1, 1]);
  assert.deepEqual(await kept("Salt"), [
    { reference: "a", commission: "350", state: "reversed" },
    { reference: "b", commission: "200", state: "approved" },
    { reference: "c", commission: "500", state: "approved" },
  ]);
});

test("two reports of one network at the same time count nothing twice", async () => {
  const rows = Array.from({ length: 40 }, (_, at) => row(`r${at}`, "1.00"));
  const results = await Promise.all([imported("Row", rows), imported("Row", rows), imported("Row", rows)]);
  assert.equal(
    results.reduce((sum, { created }) => sum + created, 0),
    40,
  );
  assert.equal((await kept("Row")).length, 40);
});

test("stopped half-way, in the midst of writing, nothing has happened", async () => {
  let steps = 0;
  const stopping: Progress = {
    signal: new AbortController().signal,
    step: (done, total) => {
      assert.ok(done <= total);
      return (steps += 1) > 2 ? Promise.reject(new Stopped()) : UNWATCHED.step(done, total);
    },
  };
  const many = Array.from({ length: 60_000 }, (_, at) => row(`n${at}`, "1.00"));
  await assert.rejects(imported("New", many, stopping), Stopped);
  assert.deepEqual(await kept("New"), []);
  const after = await imported("New", many);
  assert.equal(after.created, 60_000, "the connection is fit for use, and nobody waits");
});
