import assert from "node:assert/strict";
import { describe, test } from "node:test";
import { until } from "../../../tests/support/ask.ts";
import { createJobs } from "./jobs.ts";
import { Problem } from "../ground/problem.ts";

describe("long work", () => {
  test("tells how far it is, lets others have their turn, and keeps what it came to", async () => {
    const jobs = createJobs((error) => assert.fail(String(error)));
    const steps: number[] = [];
    const job = jobs.start("ida", "counting", async (progress) => {
      for (let n = 1; n <= 3; n += 1) {
        await progress.step(n, 3);
        steps.push(n);
      }
      return { counted: 3 };
    });
    assert.deepEqual([job.state, job.done, steps], ["running", 1, []]);
    await until("it is done", () => jobs.find("ida", job.id)?.state === "done");
    const found = jobs.find("ida", job.id)!;
    assert.deepEqual([found.done, found.total, found.result], [3, 3, { counted: 3 }]);
  });

  test("is stopped at its next step, by its starter alone", async () => {
    const jobs = createJobs((error) => assert.fail(String(error)));
    let steps = 0;
    const job = jobs.start("ida", "endless", async (progress) => {
      for (;;) await progress.step((steps += 1), 0);
    });
    assert.equal(jobs.stop("otto", job.id), false);
    assert.equal(jobs.find("otto", job.id), undefined);
    assert.equal(jobs.stop("ida", job.id), true);
    await until("it has stopped", () => jobs.find("ida", job.id)?.state === "stopped");
    const then = steps;
    await new Promise((resolve) => setTimeout(resolve, 20));
    assert.equal(steps, then);
    assert.equal(jobs.find("ida", job.id)?.result, null);
  });

  test("that is refused says why; that fails is reported and told without its inside", async () => {
    const failures: unknown[] = [];
    const jobs = createJobs((error) => failures.push(error));
    const refused = jobs.start("ida", "refused", () =>
      Promise.reject(new Problem(422, "No", "Not like this.")),
    );
    const failed = jobs.start("ida", "failed", () => Promise.reject(new Error("secret inside")));
    await until("both have ended", () =>
      [refused, failed].every(({ id }) => jobs.find("ida", id)?.state === "failed"),
    );
    assert.equal((jobs.find("ida", refused.id)!.problem as { detail: string }).detail, "Not like this.");
    assert.doesNotMatch(JSON.stringify(jobs.find("ida", failed.id)!.problem), /secret/);
    assert.equal(failures.length, 1);
  });

  test("is forgotten when there is too much of it, running work never", async () => {
    const jobs = createJobs((error) => assert.fail(String(error)));
    const running = jobs.start(
      "ida",
      "running",
      (progress) => new Promise((resolve) => progress.signal.addEventListener("abort", resolve)),
    );
    const first = jobs.start("ida", "first", async () => 1);
    await until("the first is done", () => jobs.find("ida", first.id)?.state === "done");
    for (let n = 0; n < 260; n += 1) {
      const { id } = jobs.start("ida", "more", async () => n);
      await until(
        "it is done",
        () => jobs.find("ida", id) === undefined || jobs.find("ida", id)?.state === "done",
      );
    }
    assert.equal(jobs.find("ida", first.id), undefined);
    assert.equal(jobs.find("ida", running.id)?.state, "running");
    jobs.stop("ida", running.id);
  });
});
