import assert from "node:assert/strict";
import { describe, test } from "node:test";
import type { Page } from "../../../core/pages/page.ts";
import { ApiProblem } from "../../../ui/client/api-problem.ts";
import type { Backup } from "./backup.ts";
import { BACKUP_MS, DraftMachine, MAX_MS, REST_MS, RETRY_MS } from "./draft-machine.ts";
import type { AdoptedFrom } from "./draft-view.ts";
import { keptChange, type WrittenChange } from "./written-change.ts";

const FIRST = {
  id: "6",
  kind: "page",
  version: 3,
  path: "/first",
  title: "First",
  description: "",
  category: "",
  inNavigation: false,
  placement: null,
  html: "<p>first</p>",
} as unknown as Page;

/** A world with a clock of its own, a server that answers when it is told to, and a store that remembers. */
function aWorld(recovered?: Backup) {
  let now = 1_000_000;
  let timers: { at: number; work: () => void }[] = [];
  const sent: { change: Record<string, unknown>; version: number; answer: (page: Page | Error) => void }[] =
    [];
  const kept: Backup[] = [];
  const told: [Page, AdoptedFrom][] = [];
  let forgotten = 0;
  const machine = new DraftMachine(FIRST, recovered, {
    save: (change: WrittenChange, version) =>
      new Promise((resolve, reject) =>
        sent.push({
          change: keptChange(change),
          version,
          answer: (page) => (page instanceof Error ? reject(page) : resolve(page)),
        }),
      ),
    keep: (backup) => kept.push(backup),
    forget: () => void (forgotten += 1),
    adopted: (page, from) => told.push([page, from]),
    wordsOf: (error) => (error as Error).message,
    now: () => now,
    later(ms, work) {
      const timer = { at: now + ms, work };
      timers.push(timer);
      return () => void (timers = timers.filter((one) => one !== timer));
    },
  });
  const settle = (): Promise<void> => new Promise((resolve) => setImmediate(resolve));
  return {
    machine,
    sent,
    kept,
    told,
    forgotten: () => forgotten,
    /** Lets time pass, and whatever it brings happen. */
    async pass(ms: number): Promise<void> {
      const end = now + ms;
      for (;;) {
        const next = timers.filter(({ at }) => at <= end).sort((a, b) => a.at - b.at)[0];
        if (!next) break;
        timers = timers.filter((one) => one !== next);
        now = next.at;
        next.work();
        await settle();
      }
      now = end;
      await settle();
    },
    /** The server answers the newest save: it is there, as the next version. */
    async saves(change: Partial<Page> = {}): Promise<void> {
      const { version, change: written, answer } = sent.at(-1)!;
      answer({ ...FIRST, ...written, ...change, version: version + 1 } as Page);
      await settle();
    },
    async refuses(error: Error): Promise<void> {
      sent.at(-1)!.answer(error);
      await settle();
    },
  };
}

const body = (text: string) => () => JSON.stringify({ type: "doc", text });
const shown = ({ machine }: ReturnType<typeof aWorld>) => machine.view().state;

describe("a draft saves itself", () => {
  test("when the typing rests, once, with all that was typed", async () => {
    const world = aWorld();
    world.machine.edit({ title: "Fi" });
    await world.pass(REST_MS - 100);
    world.machine.edit({ title: "Firs" });
    world.machine.edit({ path: "/firs" });
    await world.pass(REST_MS - 1);
    assert.deepEqual([world.sent.length, shown(world)], [0, "waiting"]);
    await world.pass(1);
    assert.deepEqual(
      world.sent.map(({ change, version }) => [change, version]),
      [[{ title: "Firs", path: "/firs" }, 3]],
    );
    await world.saves();
    assert.deepEqual([shown(world), world.machine.version, world.forgotten()], ["saved", 4, 1]);
    assert.equal(world.machine.isAllSaved(), true);
  });

  test("also while somebody types without a pause, and never two saves at a time", async () => {
    const world = aWorld();
    for (let ms = 0; ms <= MAX_MS; ms += 100) {
      world.machine.edit({ title: `T${ms}` });
      await world.pass(100);
    }
    assert.equal(world.sent.length, 1);
    for (let ms = 0; ms <= MAX_MS; ms += 100) {
      world.machine.edit({ title: `U${ms}` });
      await world.pass(100);
    }
    assert.equal(world.sent.length, 1, "the first is still on its way");
    await world.saves();
    assert.deepEqual([world.sent.length, world.sent[1]!.version], [2, 4]);
  });

  test("what is typed while a save is on its way goes over the version that it makes", async () => {
    const world = aWorld();
    world.machine.edit({ title: "One" });
    await world.pass(REST_MS);
    world.machine.edit({ title: "Two" });
    await world.saves();
    assert.deepEqual([shown(world), world.machine.view().fields.title], ["waiting", "Two"]);
    await world.pass(REST_MS);
    assert.deepEqual([world.sent[1]!.change, world.sent[1]!.version], [{ title: "Two" }, 4]);
  });

  test("a key that changes nothing of what is shown tells nobody", () => {
    const world = aWorld();
    let told = 0;
    world.machine.subscribe(() => (told += 1));
    world.machine.edit({ body: body("a") });
    world.machine.edit({ body: body("ab") });
    world.machine.edit({ body: body("abc") });
    assert.equal(told, 1, "that it waits");
  });
});

describe("a draft keeps in this browser what is not saved", () => {
  test("soon after each key, the text written out as it is then", async () => {
    const world = aWorld();
    world.machine.edit({ body: body("a") });
    await world.pass(BACKUP_MS - 1);
    world.machine.edit({ body: body("ab") });
    assert.equal(world.kept.length, 0);
    await world.pass(1);
    assert.deepEqual([world.kept[0]!.version, world.kept[0]!.bodyText], [3, body("ab")()]);
  });

  test("with what is on its way, which may or may not arrive", async () => {
    const world = aWorld();
    world.machine.edit({ title: "One" });
    await world.pass(REST_MS);
    world.machine.edit({ path: "/two" });
    const backup = world.machine.backupNow();
    assert.deepEqual(backup.change, { title: "One", path: "/two" });
    assert.deepEqual(backup.sending, { change: { title: "One" } });
  });
});

describe("a save that fails", () => {
  test("is tried again by itself, with what was typed since", async () => {
    const world = aWorld();
    world.machine.edit({ title: "One" });
    await world.pass(REST_MS);
    await world.refuses(new Error("the network is gone"));
    assert.deepEqual([shown(world), world.machine.view().failure], ["failed", "the network is gone"]);
    await world.pass(RETRY_MS);
    assert.deepEqual(world.sent[1]!.change, { title: "One" });
    await world.saves();
    assert.deepEqual([shown(world), world.machine.view().failure], ["saved", undefined]);
  });

  test("for a field says so there, and waits for another word", async () => {
    const world = aWorld();
    world.machine.edit({ path: "nowhere" });
    await world.pass(REST_MS);
    const errors = [{ path: "path", message: "It starts with a slash." }];
    await world.refuses(new ApiProblem(422, { detail: "No.", errors }));
    assert.deepEqual(world.machine.view().fieldErrors, { path: "It starts with a slash." });
    await world.pass(60_000);
    assert.equal(world.sent.length, 1);
    world.machine.edit({ path: "/nowhere" });
    await world.pass(REST_MS);
    await world.saves();
    assert.deepEqual(world.machine.view().fieldErrors, {});
  });

  test("since it had arrived before is no conflict", async () => {
    const world = aWorld();
    world.machine.edit({ title: "One" });
    await world.pass(REST_MS);
    await world.refuses(new ApiProblem(409, { current: { ...FIRST, title: "One", version: 4 } }));
    assert.deepEqual([shown(world), world.machine.version], ["saved", 4]);
    assert.equal(world.machine.view().conflict, undefined);
  });
});

describe("somebody else's save", () => {
  const theirs = { ...FIRST, title: "Theirs", version: 9 } as Page;
  async function inConflict() {
    const world = aWorld();
    world.machine.edit({ title: "Mine" });
    await world.pass(REST_MS);
    await world.refuses(new ApiProblem(409, { detail: "Stale.", current: theirs }));
    assert.equal(world.machine.view().conflict, theirs);
    return world;
  }

  test("may be written over: mine goes over their version", async () => {
    const world = await inConflict();
    assert.deepEqual(world.machine.unsaved(), { title: "Mine" });
    world.machine.resolve(theirs, true);
    await world.pass(0);
    assert.deepEqual([world.sent[1]!.change, world.sent[1]!.version], [{ title: "Mine" }, 9]);
    assert.equal(world.machine.view().conflict, undefined);
  });

  test("may be taken: it stands in the editor, and mine waits no more", async () => {
    const world = await inConflict();
    world.machine.resolve(theirs, false);
    await world.pass(60_000);
    assert.deepEqual([world.sent.length, world.machine.isAllSaved()], [1, true]);
    assert.deepEqual(world.told, [[theirs, "others"]]);
    assert.equal(world.machine.view().fields.title, "Theirs");
  });
});

describe("what a tab that crashed had not saved", () => {
  const backup = (change: Record<string, unknown>, more: Partial<Backup> = {}): Backup => ({
    version: 3,
    at: 1,
    change,
    ...more,
  });

  test("goes on over the version that it was written on", async () => {
    const left = backup({ title: "Left" });
    const world = aWorld(left);
    assert.equal(world.machine.view().fields.title, "Left");
    assert.equal(world.machine.recover(left, FIRST), "goes on");
    await world.pass(0);
    assert.deepEqual([world.sent[0]!.change, world.sent[0]!.version], [{ title: "Left" }, 3]);
  });

  test("has arrived, when the page is as it says", () => {
    const left = backup({ title: "First" });
    const world = aWorld(left);
    assert.equal(world.machine.recover(left, FIRST), "arrived");
    assert.deepEqual([world.forgotten(), world.machine.isAllSaved()], [1, true]);
  });

  test("goes on over its own last save, which arrived after all", async () => {
    const left = backup(
      { title: "First", path: "/later" },
      { version: 2, sending: { change: { title: "First" } } },
    );
    const world = aWorld(left);
    assert.equal(world.machine.recover(left, FIRST), "goes on");
    await world.pass(0);
    assert.equal(world.sent[0]!.version, 3);
  });

  test("meets what somebody has saved since, and nothing is written", async () => {
    const left = backup({ title: "Left" }, { version: 2 });
    const world = aWorld(left);
    assert.equal(world.machine.recover(left, FIRST), "conflict");
    await world.pass(60_000);
    assert.deepEqual([world.sent.length, world.machine.view().conflict], [0, FIRST]);
  });
});
