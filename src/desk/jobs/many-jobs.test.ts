import assert from "node:assert/strict";
import { after, before, describe, test } from "node:test";
import { strToU8, zipSync } from "fflate";
import { until } from "../../../tests/support/ask.ts";
import { OWNER, testDesk, type TestDesk } from "../../../tests/support/desk.ts";
import { Stopped, UNWATCHED } from "../../threads/progress.ts";
import { importPages } from "../pages/transfer/import-pages.ts";

let garden: TestDesk;
before(async () => {
  garden = await testDesk();
});
after(() => garden.close());

async function jobOf(path: string, body: unknown, raw?: Uint8Array) {
  const begun = await garden.call("POST", path, body, {
    headers: { Prefer: "respond-async" },
    ...(raw ? { raw: raw as BodyInit } : {}),
  });
  assert.equal(begun.status, 202);
  return until("it is over", async () => {
    const { body: now } = await garden.call("GET", `/jobs/${begun.body.id}`);
    return now.state !== "running" && now;
  });
}

const ARCHIVE = zipSync({
  "tide/ebb.md": strToU8("---\ntitle: Ebb\n---\n\nThe [flood](/tide/flood).\n"),
  "tide/flood.html": strToU8("<title>Flood</title><p>It comes <img src='mark.svg'>.</p>"),
  "tide/mark.svg": strToU8('<svg xmlns="http://www.w3.org/2000/svg"><path d="M0 0h1v1z"/></svg>'),
  "tide/bad.md": new Uint8Array([0xff, 0xfe, 0x00]),
});

describe("many at once, as a job", () => {
  test("routes are changed in one step with its undo, and a dry run leaves them", async () => {
    for (const n of [1, 2, 3])
      await garden.call("POST", "/sites/garden/routes", {
        kind: "redirect",
        address: `/ebb/${n}`,
        destination: "/",
        tags: ["ebb"],
      });
    const action = { do: "tag", tag: "flood" };
    const filter = { tag: "ebb" };
    const path = "/sites/garden/routes/bulk";
    const tried = await jobOf(path, { filter, action, dryRun: true });
    assert.deepEqual([tried.state, tried.result.changed, tried.result.batch], ["done", 3, null]);
    assert.equal((await garden.call("GET", "/sites/garden/routes?tag=flood")).body.total, 0);
    const done = await jobOf(path, { filter, action });
    assert.deepEqual([done.name, done.result.changed], ["routes.bulk", 3]);
    assert.equal((await garden.call("GET", "/sites/garden/routes?tag=flood")).body.total, 3);
    const undone = await garden.call("POST", `${path}/${done.result.batch}/undo`);
    assert.equal(undone.body.restored, 3);
    const refused = await jobOf(path, { action });
    assert.deepEqual([refused.state, refused.problem.errors[0].path], ["failed", "ids"]);
    const { body: kept } = await garden.call("GET", "/sites/garden/jobs");
    assert.deepEqual(
      kept.items.map(({ state }: { state: string }) => state),
      ["failed", "done", "done"],
    );
    const again = await garden.call("POST", `/jobs/${refused.id}/retry`);
    assert.deepEqual([again.status, again.body.id], [200, refused.id]);
  });

  test("pages come in from an archive that is kept with the job", async () => {
    const path = "/sites/garden/import?name=tide.zip";
    const tried = await jobOf(`${path}&dryRun=1`, undefined, ARCHIVE);
    assert.deepEqual(outcomes(tried.result.files), ["created", "created", "refused", "uploaded"]);
    assert.equal((await garden.call("GET", "/sites/garden/pages?q=Ebb")).body.total, 0);
    const done = await jobOf(path, undefined, ARCHIVE);
    assert.deepEqual([done.done <= done.total, done.name], [true, "pages.import"]);
    assert.deepEqual(outcomes(done.result.files), ["created", "created", "refused", "uploaded"]);
  });

  test("an import that is cut off halfway makes nothing twice when it is begun again", async () => {
    const archive = zipSync({
      "rope/one.md": strToU8("# One\n\nFirst.\n"),
      "rope/two.md": strToU8("# Two\n\nSecond.\n"),
      "rope/knot.txt": strToU8("a knot"),
    });
    const options = { dryRun: false, publish: false };
    const cut = {
      ...UNWATCHED,
      step: (done: number) => (done < 2 ? Promise.resolve() : Promise.reject(new Stopped())),
    };
    await assert.rejects(
      importPages(garden.desk, OWNER, garden.site, "rope.zip", archive, options, cut),
      Stopped,
    );
    const counts = async () => {
      const [pages, files] = await Promise.all([
        garden.call("GET", "/sites/garden/pages?q=rope"),
        garden.call("GET", "/sites/garden/files?q=knot"),
      ]);
      return [pages.body.total, files.body.total];
    };
    assert.deepEqual(await counts(), [1, 1]);
    const { files } = await importPages(
      garden.desk,
      OWNER,
      garden.site,
      "rope.zip",
      archive,
      options,
      UNWATCHED,
    );
    assert.deepEqual(outcomes(files), ["created", "unchanged", "uploaded"]);
    assert.deepEqual(await counts(), [2, 1]);
  });
});

function outcomes(files: readonly { outcome: string }[]): string[] {
  return files.map(({ outcome }) => outcome).sort();
}
