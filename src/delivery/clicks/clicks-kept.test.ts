import assert from "node:assert/strict";
import { mkdtempSync, readdirSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { after, before, describe, test } from "node:test";
import { testDesk, type TestDesk } from "../../../tests/support/desk.ts";
import type { ClickClass, ClickRecord } from "../../core/clicks/record.ts";
import { MAX_MISSES } from "../../store/misses/miss-keeping.ts";
import { writeSpoolLine } from "../../core/clicks/spool-line.ts";
import { createSpoolCopier } from "./spool-copier.ts";
import { openSpool } from "./spool.ts";
import { keepClicks } from "./click-keeping.ts";
import { closeSegment, copyBatch } from "../../store/clicks/click-spool.ts";
import { dropOldMonths, ensureMonths } from "../../store/clicks/click-months.ts";
import { settleDay, unsettledDays } from "../../store/clicks/click-settling.ts";

const DAY = 86_400_000;
const NOW = Date.parse("2026-11-20T12:00:00Z");
const CLICKS = "/sites/garden/clicks";
let garden: TestDesk;
let lamp: string;
let rug: string;
let segment = 0;

before(async () => {
  garden = await testDesk();
  const make = async (address: string): Promise<string> =>
    (
      await garden.call("POST", "/sites/garden/routes", {
        kind: "short",
        host: "gdn.example",
        address,
        destination: "https://shop.example/",
      })
    ).body.id;
  lamp = await make("/lamp");
  rug = await make("/rug");
});
after(async () => {
  await garden.close();
  assert.deepEqual(garden.failures, []);
});

const click = (at: number, route: string, more: Partial<ClickRecord> = {}): ClickRecord => ({
  kind: "click",
  at,
  route,
  class: "person",
  device: "phone",
  visitor: "a",
  referrer: "",
  page: "",
  ...more,
});
async function copy(records: readonly ClickRecord[]): Promise<void> {
  assert.ok(await copyBatch(garden.store, { segment: `s${(segment += 1)}`, from: 0, to: 1, records }));
}
async function settle(): Promise<void> {
  for (const one of await unsettledDays(garden.store)) await settleDay(garden.store, one);
}
const asked = async (query: string) =>
  (await garden.call("GET", `${CLICKS}?from=2026-11-18&to=2026-11-20&${query}`)).body;
const rows = (body: { items: Record<string, unknown>[] }): unknown[] =>
  body.items
    .filter(({ clicks, bots }) => clicks !== 0 || bots !== 0)
    .map(({ key, clicks, visitors, bots }) => [key, clicks, visitors, bots]);

describe("clicks are counted by everything that is asked for", () => {
  before(async () => {
    const today = NOW;
    await copy([
      click(today, lamp, { visitor: "a", referrer: "forum.example" }),
      click(today + 1, lamp, { visitor: "a", referrer: "forum.example" }),
      click(today + 2, lamp, {
        visitor: "b",
        device: "desktop",
        page: "/resources",
        referrer: "garden.example",
      }),
      click(today + 3, rug, { visitor: "a" }),
      click(today + 4, rug, { visitor: "robot", class: "bot" }),
      click(today - DAY, lamp, { visitor: "a" }),
      click(today - 4 * DAY, lamp, { visitor: "c" }),
    ]);
    await settle();
  });

  test("by day, with a visitor counted once a day of the site", async () => {
    const body = await asked("by=day");
    assert.deepEqual(rows(body), [
      ["2026-11-19", 1, 1, 0],
      ["2026-11-20", 4, 2, 1],
    ]);
    assert.deepEqual(body.total, { clicks: 5, visitors: 3, bots: 1, prefetches: 0, heads: 0, asides: 0 });
  });

  const groupings: readonly (readonly [query: string, expected: () => unknown[]])[] = [
    [
      "by=route",
      () => [
        [lamp, 4, 3, 0],
        [rug, 1, 1, 1],
      ],
    ],
    [
      "by=referrer",
      () => [
        ["", 2, 2, 1],
        ["forum.example", 2, 1, 0],
        ["garden.example", 1, 1, 0],
      ],
    ],
    [
      "by=page",
      () => [
        ["", 4, 2, 1],
        ["/resources", 1, 1, 0],
      ],
    ],
    [
      "by=device",
      () => [
        ["phone", 4, 2, 1],
        ["desktop", 1, 1, 0],
      ],
    ],
    ["by=hour", () => [["12", 5, 3, 1]]],
    ["by=program", () => []],
  ];
  for (const [query, expected] of groupings)
    test(query, async () => assert.deepEqual(rows(await asked(query)), expected()));

  test("of one route alone", async () => {
    assert.deepEqual(rows(await asked(`by=device&route=${rug}`)), [["phone", 1, 1, 1]]);
    assert.deepEqual(rows(await asked(`by=day&route=${rug}`)), [["2026-11-20", 1, 1, 1]]);
  });

  test("beside the same number of days before", async () => {
    const { before: earlier, total } = await asked("by=day&compare=1");
    assert.deepEqual(
      [earlier.from, earlier.to, earlier.total.clicks, total.clicks],
      ["2026-11-15", "2026-11-17", 1, 5],
    );
  });

  test("robots, prefetches and HEAD can be looked at one by one", async () => {
    const { body } = await garden.call("GET", `${CLICKS}/latest?class=bot&from=2026-11-18&to=2026-11-20`);
    assert.deepEqual(
      body.items.map(({ address, class: group }: Record<string, string>) => [address, group]),
      [["gdn.example/rug", "bot"]],
    );
    assert.equal((await garden.call("GET", `${CLICKS}/latest?class=ghost`)).status, 400);
  });

  test("as CSV, every click or the counts, with nothing that a spreadsheet would run", async () => {
    await copy([click(NOW - DAY, rug, { referrer: "=1+1", visitor: "z" })]);
    const { status, type, body } = await garden.call("GET", `${CLICKS}/export?from=2026-11-19&to=2026-11-19`);
    assert.deepEqual([status, type], [200, "text/csv; charset=utf-8"]);
    const lines = String(body).trim().split("\r\n");
    assert.equal(lines[0], "time,route,address,who,device,referrer,page");
    assert.equal(lines.length, 3);
    assert.ok(lines.some((line) => line.includes("'=1+1")));
    const counts = await garden.call("GET", `${CLICKS}/export?by=device&from=2026-11-18&to=2026-11-20`);
    assert.match(
      String(counts.body),
      /^device,label,clicks,visitors,robots,prefetches,heads,asides\r\nphone,phone,5,/,
    );
  });

  test("a late click settles its day again, and copying a batch twice counts once", async () => {
    const records = [click(NOW - DAY, lamp, { visitor: "late" })];
    const batch = { segment: "late", from: 0, to: 10, records };
    assert.deepEqual(
      [await copyBatch(garden.store, batch), await copyBatch(garden.store, batch)],
      [true, false],
    );
    // A process that read the file before it was cleared away by another.
    await closeSegment(garden.store, "late");
    assert.equal(await copyBatch(garden.store, batch), false);
    await settle();
    assert.deepEqual(rows(await asked(`by=day&route=${lamp}`))[0], ["2026-11-19", 2, 2, 0]);
    assert.deepEqual(await unsettledDays(garden.store), []);
  });

  test("from a new zero, without deleting what was", async () => {
    const shown = async (): Promise<[number, string | null]> => {
      const { clicks, countedFrom } = (await garden.call("GET", `/sites/garden/routes/${lamp}`)).body;
      return [clicks, countedFrom];
    };
    const [all] = await shown();
    const zeroed = (await garden.call("POST", `/sites/garden/routes/${lamp}/zero`)).body;
    assert.equal(zeroed.clicks, 0);
    await copy([click(NOW, lamp)]);
    assert.equal((await shown())[0], 1);
    assert.notEqual((await shown())[1], null);
    assert.equal((await asked(`by=day&route=${lamp}`)).total.clicks, 6);
    const { items } = (await garden.call("GET", `/sites/garden/routes/${lamp}/history`)).body;
    assert.deepEqual(
      items.map(({ action }: { action: string }) => action),
      ["route.zero", "route.create"],
    );
    await garden.call("DELETE", `/sites/garden/routes/${lamp}/zero`);
    assert.deepEqual(await shown(), [all + 1, null]);
  });
});

describe("clicks are kept by month", () => {
  const months = async (): Promise<string[]> =>
    (
      await garden.store.rows<{ name: string }>(
        "SELECT relname AS name FROM pg_class WHERE relname ~ '^clicks_\\d{4}_\\d\\d$' ORDER BY 1",
      )
    ).map(({ name }) => name);

  test("a month has its partition when its first click comes, whoever asks for it first", async () => {
    const at = Date.parse("2025-02-28T23:59:59Z");
    await Promise.all([1, 2, 3].map(() => ensureMonths(garden.store, [at, at + 2_000])));
    await copy([click(at, lamp), click(at + 2_000, lamp)]);
    assert.deepEqual((await months()).slice(0, 2), ["clicks_2025_02", "clicks_2025_03"]);
  });

  test("after the site's months they are dropped, and their counts stay", async () => {
    await settle();
    const before = (await garden.call("GET", `${CLICKS}?from=2025-02-01&to=2025-03-31`)).body.total;
    assert.deepEqual([before.clicks, before.visitors], [2, 2]);
    const { version } = (await garden.call("GET", "/sites/garden")).body;
    assert.equal((await garden.call("PATCH", "/sites/garden", { version, clickMonths: 6 })).status, 200);
    assert.equal(await dropOldMonths(garden.store, NOW), 2);
    assert.deepEqual(await months(), ["clicks_2026_11"]);
    assert.deepEqual(
      (await garden.call("GET", `${CLICKS}?from=2025-02-01&to=2025-03-31`)).body.total,
      before,
    );
    await copy([click(Date.parse("2025-03-01T01:00:00Z"), lamp, { visitor: "very late" })]);
    await settle();
    const late = (await garden.call("GET", `${CLICKS}?from=2025-03-01&to=2025-03-01`)).body.total;
    assert.deepEqual([late.clicks, late.visitors], [2, 1], "what was counted is not lowered");
  });

  test("a site that keeps less loses its own alone", async () => {
    const { body: other } = await garden.call("POST", "/sites", {
      key: "shed",
      name: "Shed",
      hosts: [{ name: "shed.example", role: "primary" }],
    });
    const { body: route } = await garden.call("POST", "/sites/shed/routes", {
      kind: "redirect",
      address: "/x",
      destination: "https://shop.example/",
    });
    const at = NOW - 100 * DAY;
    await copy([click(at, lamp), click(at, route.id)]);
    await garden.call("PATCH", "/sites/shed", { version: other.version, clickMonths: 1 });
    await dropOldMonths(garden.store, NOW);
    const left = await garden.store.rows<{ route: string }>(
      "SELECT DISTINCT route_id::text AS route FROM clicks WHERE at < $before::timestamptz AND at > $after::timestamptz",
      {
        before: new Date(at + DAY).toISOString(),
        after: new Date(at - DAY).toISOString(),
      },
    );
    assert.deepEqual(left, [{ route: lamp }]);
    assert.equal((await garden.call("PATCH", "/sites/shed", { version: 2, clickMonths: 0 })).status, 422);
  });

  test("keeping settles what waits, by turns, and forgets what only robots missed", async () => {
    const miss = (key: string, group: ClickClass, at: number) => ({
      kind: "miss" as const,
      at,
      site: garden.site.id,
      host: "garden.example",
      key,
      class: group,
      referrer: "",
    });
    await copyBatch(garden.store, {
      segment: "misses",
      from: 0,
      to: 1,
      records: [
        miss("/old-robot", "bot", NOW - 200 * DAY),
        miss("/old-person", "person", NOW - 200 * DAY),
        miss("/old-person", "person", NOW - 199 * DAY),
        miss("/old-once", "person", NOW - 200 * DAY),
        miss("/new-once", "person", NOW),
        miss("/new-robot", "bot", NOW),
      ],
    });
    const keeping = keepClicks(garden.store);
    await copy([click(NOW, lamp)]);
    await keeping.turn(NOW);
    assert.deepEqual(await unsettledDays(garden.store), []);
    const left = await garden.store.rows<{ key: string }>("SELECT key FROM misses ORDER BY key");
    assert.deepEqual(
      left.map(({ key }) => key),
      ["/new-once", "/new-robot", "/old-person"],
    );
    await copy([click(NOW, lamp)]);
    await keeping.turn(NOW + 1);
    assert.equal((await unsettledDays(garden.store)).length, 1, "a day rests between two countings");
    await keeping.turn(NOW + 60_000);
    assert.deepEqual(await unsettledDays(garden.store), []);
  });

  test("misses have a bound: what was asked for again or led to from somewhere stays, single ones go, and it is told", async () => {
    const missed = (key: string, at: number, referrer = "") => ({
      kind: "miss" as const,
      at,
      site: garden.site.id,
      host: "garden.example",
      key,
      class: "person" as const,
      referrer,
    });
    const single = Array.from({ length: MAX_MISSES + 200 }, (_, n) => missed(`/random-${n}`, NOW + n));
    const kept = [
      missed("/asked-again", NOW - 50 * DAY),
      missed("/asked-again", NOW - 49 * DAY),
      missed("/led-to", NOW - 50 * DAY, "https://garden.example/resources"),
    ];
    await copyBatch(garden.store, { segment: "flood", from: 0, to: 1, records: [...kept, ...single] });
    const left = await garden.store.rows<{ key: string }>("SELECT key FROM misses WHERE resolved_at IS NULL");
    assert.ok(left.length <= MAX_MISSES, `${left.length} are left`);
    const keys = new Set(left.map(({ key }) => key));
    for (const { key } of kept) assert.ok(keys.has(key), key);
    const { body } = await garden.call("GET", "/sites/garden/misses/summary");
    assert.ok(body.letGo.misses >= 200);
  });
});

describe("a spool before a database that a standby may follow", () => {
  const folder = mkdtempSync(join(tmpdir(), "maprope-kept-"));
  after(() => rmSync(folder, { recursive: true, force: true }));
  const counted = async (): Promise<number> =>
    Number(
      (
        await garden.store.rows<{ n: string }>(
          "SELECT count(*)::text AS n FROM clicks WHERE page = '/spooled'",
        )
      )[0]!.n,
    );
  function spooled(records: number): void {
    const spool = openSpool(folder);
    const line = writeSpoolLine(click(Date.now(), lamp, { page: "/spooled" }));
    spool.append(line.repeat(records), records);
    spool.close();
  }

  test("what was copied stays for a while, and is copied again where another server knows less, each click once", async () => {
    const [before_, behind] = garden.url.split("/t_") as [string, string];
    const host = before_.split("@")[1]!;
    let started = "monday";
    const store = {
      ...garden.store,
      // The same server named twice stands for two; when it was started tells them apart.
      url: `${before_},${host}/t_${behind}`,
      rows: ((sql: string, ...more: [Record<string, unknown>]) =>
        sql.includes("pg_postmaster_start_time")
          ? Promise.resolve([{ at: started }])
          : garden.store.rows(sql, ...more)) as typeof garden.store.rows,
    };
    const copier = createSpoolCopier(store, folder);
    spooled(5);
    assert.equal(await copier.copy(), 5);
    assert.equal(await copier.copy(), 0);
    assert.equal(readdirSync(folder).length, 1);
    // The standby had got two batches less than the primary that is gone.
    await garden.store.rows("DELETE FROM clicks WHERE page = '/spooled' RETURNING page");
    await garden.store.rows("DELETE FROM spool_progress RETURNING segment");
    assert.equal(await copier.copy(), 0);
    started = "tuesday";
    assert.equal(await copier.copy(), 5);
    assert.equal(await copier.copy(), 0);
    assert.equal(await counted(), 5);
  });

  test("with one database alone, what was copied goes at once", async () => {
    spooled(2);
    await createSpoolCopier(garden.store, folder).copy();
    assert.deepEqual(readdirSync(folder), []);
  });
});
