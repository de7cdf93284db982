import assert from "node:assert/strict";
import { after, before, describe, test, type TestContext } from "node:test";
import { until } from "../../../tests/support/ask.ts";
import { testDesk, OWNER, type TestDesk } from "../../../tests/support/desk.ts";
import { Stopped, type Progress } from "../../threads/progress.ts";
import { requestId, withRequestId } from "../ground/request-id.ts";
import { Problem } from "../ground/problem.ts";
import type { JobKind, JobWork } from "./job-kind.ts";
import { createJobs, type Jobs } from "./jobs.ts";
import { settle } from "./settle.ts";
import { startJobs } from "./start-jobs.ts";

type Run = (work: JobWork<unknown>, progress: Progress) => Promise<unknown>;

let garden: TestDesk;
let jobs: Jobs;
before(async () => {
  garden = await testDesk();
  // The desk's own process takes no part: these tests have processes of their own.
  await garden.endJobs();
  jobs = createJobs(garden.store);
});
after(() => garden.close());

const reports: unknown[] = [];

/** A process that takes part in the work, and knows what to do for each kind. */
function aProcess(t: TestContext, runs: Record<string, Run>, endMs?: number): { stop(): Promise<void> } {
  const kinds = Object.entries(runs).map(([name, run]): [string, JobKind<unknown, never, unknown>] => [
    name,
    { name, run: (_desk, work, progress) => run(work, progress) },
  ]);
  const desk = { ...garden.desk, report: (_: string, error: unknown) => void reports.push(error) };
  const started = startJobs(desk, new Map(kinds) as never, endMs);
  t.after(() => started.stop());
  return started;
}
const kindOf = (name: string, oneOf?: () => string): JobKind<never, unknown, unknown> => ({
  name,
  run: () => Promise.reject(new Error("the process knows")),
  ...(oneOf ? { oneOf } : {}),
});
const begin = (name: string, input: unknown = null, file?: Uint8Array) =>
  jobs.start(OWNER, garden.site, kindOf(name), input, file);
const stateOf = async (id: string) => (await jobs.find("Ida", id))?.state;

describe("long work", () => {
  test("gets its input and file back, tells how far it is, and keeps what it came to", async (t) => {
    const file = crypto.getRandomValues(new Uint8Array(60_000));
    aProcess(t, {
      async counting({ input, file: bytes, actor, site }, progress) {
        for (let n = 1; n <= 3; n += 1) await progress.step(n, 3);
        return { input, same: Buffer.from(file).equals(await bytes()), by: actor, at: site.key };
      },
    });
    const job = await begin("counting", { words: "ä \u0000 “x”" }, file);
    assert.deepEqual([job.state, job.name], ["running", "counting"]);
    await until("it is done", async () => (await stateOf(job.id)) === "done");
    const found = (await jobs.find("Ida", job.id))!;
    assert.deepEqual([found.done, found.total], [3, 3]);
    assert.deepEqual(found.result, {
      input: { words: "ä \u0000 “x”" },
      same: true,
      by: OWNER,
      at: "garden",
    });
    await until(
      "its file is gone",
      async () => (await garden.store.rows("SELECT 1 FROM job_files")).length === 0,
    );
    assert.deepEqual(
      (await jobs.list("Ida", garden.site)).map(({ name, state }) => [name, state]),
      [["counting", "done"]],
    );
    assert.deepEqual(await jobs.list("Otto", garden.site), []);
  });

  test("is known by the request that asked for it, also where that is another process", async (t) => {
    aProcess(t, { noting: async () => requestId() ?? "none" });
    const asked = await withRequestId("request-9", () => begin("noting"));
    const unasked = await begin("noting");
    for (const [{ id }, wanted] of [
      [asked, "request-9"],
      [unasked, "none"],
    ] as const) {
      await until("it is done", async () => (await stateOf(id)) === "done");
      assert.equal((await jobs.find("Ida", id))!.result, wanted);
    }
  });

  test("is stopped by its starter alone, wherever it runs; and begun anew", async (t) => {
    let attempts = 0;
    aProcess(t, {
      async endless(_work, progress) {
        if ((attempts += 1) > 1) return "at last";
        for (let n = 0; ; n += 1) await progress.step(n, 0);
      },
    });
    const { id } = await begin("endless");
    await until("it runs", () => attempts === 1);
    assert.equal(await jobs.stop("Otto", id), false);
    assert.equal(await jobs.find("Otto", id), undefined);
    assert.equal(await jobs.stop("Ida", id), true);
    await until("it has stopped", async () => (await stateOf(id)) === "stopped");
    assert.equal(await jobs.retry("Otto", id), false);
    assert.equal(await jobs.retry("Ida", id), true);
    await until("it is done", async () => (await stateOf(id)) === "done");
    assert.equal(await jobs.retry("Ida", id), false);
  });

  test("that waits for its turn is stopped at once, and never begun", async (t) => {
    const job = await begin("waiting");
    await jobs.stop("Ida", job.id);
    assert.equal(await stateOf(job.id), "stopped");
    let begun = false;
    aProcess(t, { waiting: async () => void (begun = true), other: async () => "other" });
    const other = await begin("other");
    await until("another is done", async () => (await stateOf(other.id)) === "done");
    assert.equal(begun, false);
  });

  test("that is refused says why and is not tried again", async (t) => {
    let attempts = 0;
    aProcess(t, {
      async refused() {
        attempts += 1;
        throw new Problem(422, "No", "Not like this.", { errors: [{ path: "a", message: "b" }] });
      },
    });
    const { id } = await begin("refused");
    await until("it has failed", async () => (await stateOf(id)) === "failed");
    const { problem } = (await jobs.find("Ida", id))! as { problem: { detail: string; errors: unknown } };
    assert.deepEqual([problem.detail, problem.errors], ["Not like this.", [{ path: "a", message: "b" }]]);
    assert.equal(attempts, 1);
  });

  test("that fails is tried again, and told without its inside when it goes on failing", async (t) => {
    reports.splice(0);
    let attempts = 0;
    aProcess(t, {
      async shaky() {
        if ((attempts += 1) < 2) throw new Error("secret inside");
        return attempts;
      },
    });
    const { id } = await begin("shaky");
    await until("it has failed once", () => attempts === 1);
    await until("that is told", async () => /again/.test((await jobs.find("Ida", id))!.note));
    await until("it is done at the second try", async () => (await stateOf(id)) === "done");
    assert.equal((await jobs.find("Ida", id))!.result, 2);
    assert.equal(reports.length, 1);
  });

  test("of one queue goes one after the other; others go on beside", async (t) => {
    const running = new Set<string>();
    let most = 0;
    const run: Run = async ({ input }, progress) => {
      running.add(String(input));
      most = Math.max(most, running.size);
      for (let n = 0; n < 20; n += 1) await progress.step(n, 20);
      await new Promise((resolve) => setTimeout(resolve, 40));
      running.delete(String(input));
    };
    aProcess(t, { alone: run });
    const alone = await Promise.all(
      [1, 2, 3].map((n) =>
        jobs.start(
          OWNER,
          garden.site,
          kindOf("alone", () => "the one"),
          n,
        ),
      ),
    );
    for (const { id } of alone) await until("it is done", async () => (await stateOf(id)) === "done");
    assert.equal(most, 1);
  });
});

describe("a process that ends", () => {
  test("hands back what it was doing, and another goes on with it at once", async (t) => {
    const began: string[] = [];
    const first = aProcess(t, {
      async long(_work, progress) {
        began.push("first");
        for (let n = 0; ; n += 1) await progress.step(n, 0);
      },
    });
    const { id } = await begin("long");
    await until("it runs", () => began.length === 1);
    await first.stop();
    assert.deepEqual([await stateOf(id), began], ["running", ["first"]]);
    aProcess(t, { long: async () => began.push("second") });
    await until("it is done", async () => (await stateOf(id)) === "done");
    assert.deepEqual(began, ["first", "second"]);
  });

  test("does not wait for work that does not hear: it goes on elsewhere", async (t) => {
    let release: () => void = () => undefined;
    const deaf: Run = async () => {
      await new Promise<void>((resolve) => (release = resolve));
      return "too late";
    };
    const first = aProcess(t, { deaf }, 200);
    const { id } = await jobs.start(
      OWNER,
      garden.site,
      kindOf("deaf", () => "of the deaf"),
      null,
    );
    await until("it runs", async () => {
      const [row] = await garden.store.rows<{ worker: string | null }>(
        "SELECT worker FROM jobs WHERE id = $id",
        {
          id,
        },
      );
      return row!.worker !== null;
    });
    await first.stop();
    aProcess(t, { deaf: async () => "elsewhere" });
    await until("it is done", async () => (await stateOf(id)) === "done");
    release();
    await new Promise((resolve) => setTimeout(resolve, 300));
    assert.equal((await jobs.find("Ida", id))!.result, "elsewhere");
  });

  test("without a word is noticed, its job is taken on, and whatever it still does is refused", async (t) => {
    let attempts = 0;
    let release: () => void = () => undefined;
    let late: unknown;
    const run: Run = async (_work, progress) => {
      if ((attempts += 1) > 1) return "of the second";
      await new Promise<void>((resolve) => (release = resolve));
      late = await garden.store
        .transaction((transaction) => settle(garden.desk, progress, "of the first", transaction))
        .catch((error: unknown) => error);
      return "of the first";
    };
    aProcess(t, { taken: run });
    aProcess(t, { taken: run });
    const { id } = await begin("taken");
    await until("it runs", () => attempts === 1);
    // As if its process were gone: what it tells from now on goes under another number.
    await garden.store.rows(
      "UPDATE jobs SET attempt = attempt + 1, told_at = now() - interval '1 minute' WHERE id = $id",
      { id },
    );
    await until("it is done", async () => (await stateOf(id)) === "done");
    release();
    await until("the first is too late", () => late !== undefined);
    assert.ok(late instanceof Stopped);
    assert.equal((await jobs.find("Ida", id))!.result, "of the second");
  });

  test("after its work was kept leaves nothing to do a second time", async (t) => {
    let times = 0;
    aProcess(t, {
      async once(_work, progress) {
        await garden.store.transaction((transaction) =>
          settle(garden.desk, progress, { times: (times += 1) }, transaction),
        );
        throw new Error("the process dies here");
      },
    });
    const { id } = await begin("once");
    await until("it is done", async () => (await stateOf(id)) === "done");
    await new Promise((resolve) => setTimeout(resolve, 3_500));
    assert.equal(times, 1);
    assert.deepEqual((await jobs.find("Ida", id))!.result, { times: 1 });
  });

  test("each time over the same job: that one is given up, with a sentence", async (t) => {
    const { id } = await begin("deadly");
    await garden.store.rows(
      "UPDATE graphile_worker._private_jobs SET attempts = max_attempts WHERE key = $id",
      { id },
    );
    aProcess(t, { deadly: async () => "never" });
    await until("it is given up", async () => (await stateOf(id)) === "failed");
    assert.match(JSON.stringify((await jobs.find("Ida", id))!.problem), /process that worked on it ended/);
  });
});
