import assert from "node:assert/strict";
import { describe, test } from "node:test";
import { createVisitorKeys, type DaySalt, type SaltKeeping } from "./visitor-key.ts";

const DAY = 86_400_000;
const NOON = Date.UTC(2026, 10, 20, 12);
const gone = (): Promise<string> => Promise.reject(new Error("no database"));
const settled = (): Promise<void> => new Promise((resolve) => setImmediate(resolve));

function keeping(first?: DaySalt): SaltKeeping & { kept: DaySalt | undefined } {
  return {
    kept: first,
    read() {
      return this.kept;
    },
    write(salt) {
      this.kept = salt;
    },
  };
}

/** A database that keeps the salt of the first who comes. */
function database(): (now: number, fresh: string) => Promise<string> {
  const salts = new Map<number, string>();
  return async (now, fresh) => {
    const day = Math.floor(now / DAY);
    if (!salts.has(day)) salts.set(day, fresh);
    return salts.get(day)!;
  };
}

async function process(fetch: (now: number, fresh: string) => Promise<string>, kept = keeping()) {
  const keys = createVisitorKeys("secret", fetch, kept);
  keys.epoch(NOON);
  await settled();
  return { keys, kept };
}

describe("a day's visitor keys", () => {
  test("are the same in all processes, and other ones the next day", async () => {
    const fetch = database();
    const [one, other] = [await process(fetch), await process(fetch)];
    const key = one.keys.key("192.0.2.1", "agent", NOON);
    assert.equal(other.keys.key("192.0.2.1", "agent", NOON), key);
    assert.notEqual(one.keys.key("192.0.2.1", "agent", NOON + DAY), key);
  });

  test("are the same after midnight when the database is away, and stay so when it is back", async () => {
    const shared = database();
    let isAway = false;
    const fetch = (now: number, fresh: string): Promise<string> => (isAway ? gone() : shared(now, fresh));
    const [one, other] = [await process(fetch), await process(fetch)];
    isAway = true;
    const next = one.keys.key("192.0.2.1", "agent", NOON + DAY);
    assert.equal(other.keys.key("192.0.2.1", "agent", NOON + DAY), next);
    await settled();
    isAway = false;
    const third = await process(shared, keeping(other.kept.kept));
    assert.equal(third.keys.key("192.0.2.1", "agent", NOON + DAY), next);
    for (const { keys } of [one, other, third]) keys.stop();
  });

  test("outlive a restart without the database", async () => {
    const before = await process(gone);
    const key = before.keys.key("192.0.2.1", "agent", NOON);
    const after = await process(gone, keeping(before.kept.kept));
    assert.equal(after.keys.key("192.0.2.1", "agent", NOON), key);
    before.keys.stop();
    after.keys.stop();
  });

  test("let nobody go back: what is kept today makes none of yesterday's", async () => {
    const { keys, kept } = await process(gone);
    const yesterday = keys.key("192.0.2.1", "agent", NOON);
    keys.key("192.0.2.1", "agent", NOON + DAY);
    keys.stop();
    const later = createVisitorKeys("secret", gone, keeping(kept.kept));
    assert.notEqual(later.key("192.0.2.1", "agent", NOON), yesterday);
    later.stop();
  });
});
