import assert from "node:assert/strict";
import { after, before, describe, test } from "node:test";
import { testDesk, type TestDesk } from "../../../tests/support/desk.ts";
import { copyBatch } from "../../store/clicks/click-spool.ts";
import { settleDay, unsettledDays } from "../../store/clicks/click-settling.ts";
import { UNWATCHED } from "../../threads/progress.ts";
import { catchUpLedger } from "../ledger/follow-ledger.ts";
import { openSite } from "../sites/open-site.ts";

const HEAD = "order_id,date,program,sub_id,sale_amount,commission,currency,status";
const COLUMNS = {
  reference: "order_id",
  at: "date",
  program: "program",
  subId: "sub_id",
  amount: "sale_amount",
  commission: "commission",
  currency: "currency",
  state: "status",
  dates: "ymd",
  decimal: ".",
};
let garden: TestDesk;
let page: { id: string };
let harbour: { id: string };
let route: { id: string };

before(async () => {
  garden = await testDesk();
  harbour = (
    await garden.call("POST", "/sites/garden/programs", {
      name: "Harbour",
      network: "Salt",
      state: "approved",
      trackingId: "GD",
      template: "{destination}?p={id}&s={sub}",
      domains: ["harbour.example"],
    })
  ).body;
  await garden.call("POST", "/sites/garden/programs", {
    name: "Quiet",
    network: "Salt",
    state: "approved",
    domains: ["quiet.example"],
  });
  page = (
    await garden.call("POST", "/sites/garden/pages", {
      path: "/lamps",
      title: "Lamps",
      html: "<p>x</p>",
      publish: true,
    })
  ).body;
  const { body: link } = await garden.call("POST", `/sites/garden/programs/${harbour.id}/link`, {
    destination: "https://harbour.example/a",
    page: page.id,
  });
  assert.equal(link.subId, "lamps-1");
  await garden.call("POST", "/sites/garden/pages", {
    path: "/hand",
    title: "By hand",
    html: '<p><a href="https://harbour.example/b?p=GD&amp;s=by-hand">x</a></p>',
    publish: true,
  });
  route = (
    await garden.call("POST", "/sites/garden/routes", {
      kind: "short",
      host: "gdn.example",
      address: "/a",
      destination: "https://harbour.example/a?p=GD&s=short-a",
    })
  ).body;
  await catchUpLedger(garden.desk, await openSite(garden.desk, "garden"), UNWATCHED);
  const click = (at: string, from: string) => ({
    kind: "click" as const,
    at: Date.parse(at),
    route: route.id,
    site: garden.site.id,
    class: "person" as const,
    device: "phone" as const,
    visitor: at,
    referrer: "",
    page: from,
  });
  await copyBatch(garden.store, {
    segment: "x",
    from: 0,
    to: 1,
    records: [
      click("2026-11-02T10:00:00Z", "/lamps"),
      click("2026-11-02T10:00:01Z", ""),
      click("2026-11-03T10:00:00Z", "/lamps"),
      click("2026-11-03T10:00:09Z", "/lamps"),
      ...Array.from({ length: 25 }, (_, at) => click(`2026-10-09T10:00:${10 + at}Z`, "/hand")),
    ],
  });
  for (const day of await unsettledDays(garden.store)) await settleDay(garden.store, day);
});
after(async () => {
  assert.deepEqual(garden.failures, []);
  await garden.close();
});

const send = (rows: readonly string[], query = "", columns: object | null = COLUMNS) =>
  garden.call(
    "POST",
    `/sites/garden/earnings/import?network=Salt${query}${columns ? `&columns=${encodeURIComponent(JSON.stringify(columns))}` : ""}`,
    undefined,
    { raw: [HEAD, ...rows].join("\n"), headers: { "Content-Type": "text/csv" } },
  );
const asked = async (query: string) =>
  (await garden.call("GET", `/sites/garden/earnings?from=2026-11-01&to=2026-11-30&${query}`)).body;

const ROWS = [
  "A-1,2026-11-02,Harbour,lamps-1,100.00,6.00,EUR,approved",
  "A-2,2026-11-03,Harbour,by-hand,50.00,3.00,EUR,pending",
  "A-3,2026-11-03,Harbour,short-a,50.00,3.00,USD,approved",
  "A-4,2026-11-04,quiet,other,10.00,1.00,EUR,approved",
  "A-5,2026-11-04,Nobody,other,10.00,1.00,EUR,approved",
];

describe("a network's report", () => {
  test("tried first, changes nothing", async () => {
    const { status, body } = await send(ROWS, "&dryRun=1");
    assert.equal(status, 200, JSON.stringify(body));
    assert.deepEqual(
      [body.created, body.matchedToPages, body.matchedToPrograms, body.unmatched],
      [5, 2, 4, 1],
    );
    assert.deepEqual(
      (await asked("by=program")).items.filter(({ money }: { money: unknown[] }) => money.length > 0),
      [],
    );
  });

  test("is counted once, however often it is imported, with the columns remembered", async () => {
    assert.equal((await send(ROWS)).body.created, 5);
    const again = (await send([...ROWS, ...ROWS], "", null)).body;
    assert.deepEqual([again.rows, again.created, again.changed, again.unchanged], [10, 0, 0, 5]);
  });

  test("is matched to page, link and program; currencies stand apart; clicks beside", async () => {
    const { items, total, unmatched } = await asked("by=program");
    const row = (label: string) => items.find((one: { label: string }) => one.label === label);
    assert.deepEqual(
      row("Harbour").money.map(({ currency, approved, pending, epc }: Record<string, string>) => [
        currency,
        approved,
        pending,
        epc,
      ]),
      [
        ["EUR", "6.00", "3.00", "225.00"],
        ["USD", "3.00", "0.00", "75.00"],
      ],
    );
    assert.deepEqual([row("Harbour").clicks, row("Harbour").conversion], [4, 0.75]);
    assert.equal(row("no program found").money[0].approved, "1.00");
    assert.equal(unmatched, 1);
    assert.deepEqual(
      total.money.map(({ currency, approved }: Record<string, string>) => [currency, approved]),
      [
        ["EUR", "8.00"],
        ["USD", "3.00"],
      ],
    );
    const pages = (await asked("by=page")).items;
    assert.deepEqual(
      pages.map(
        ({ label, clicks, money }: { label: string; clicks: number; money: { approved: string }[] }) => [
          label,
          clicks,
          money[0]?.approved,
        ],
      ),
      [
        ["Lamps", 3, "6.00"],
        ["no page known", 1, "2.00"],
        ["By hand", 0, "0.00"],
      ],
    );
    const days = (await asked(`by=day&program=${harbour.id}`)).items;
    assert.deepEqual(
      days.map(({ key, clicks }: { key: string; clicks: number }) => [key, clicks]),
      [
        ["2026-11-02", 2],
        ["2026-11-03", 2],
      ],
    );
    assert.deepEqual((await asked("by=subId")).items.map(({ key }: { key: string }) => key).sort(), [
      "by-hand",
      "lamps-1",
      "other",
      "short-a",
    ]);
  });

  test("says how many clicks the network counted, of a day and label once, beside ours", async () => {
    const columns = { ...COLUMNS, clicks: "clicks" };
    const report = (clicks: string): Promise<{ status: number; body: Record<string, unknown> }> =>
      garden.call(
        "POST",
        `/sites/garden/earnings/import?network=Salt&columns=${encodeURIComponent(JSON.stringify(columns))}`,
        undefined,
        {
          raw: [
            `${HEAD},clicks`,
            `,2026-11-02,Harbour,lamps-1,,,,,"${clicks}"`,
            ",2026-11-02,Harbour,lamps-1,,,,,5",
            ",2026-11-03,Harbour,short-a,,,,,7",
            ",2026-11-03,Harbour,short-a,,,,,many",
            "A-1,2026-11-02,Harbour,lamps-1,100.00,6.00,EUR,approved,",
          ].join("\n"),
          headers: { "Content-Type": "text/csv" },
        },
      );
    await report("90");
    const { body } = await report("1,200");
    assert.deepEqual([body.clickRows, body.unchanged, body.refused], [3, 1, 1]);
    assert.match(JSON.stringify(body.refusals), /“many” is no number of clicks/);
    const byPage = await asked("by=page");
    const lamps = byPage.items.find(({ label }: { label: string }) => label === "Lamps");
    assert.deepEqual([lamps.clicks, lamps.theirClicks, byPage.total.theirClicks], [3, 1205, 1212]);
    const byDay = await asked("by=day");
    assert.deepEqual(
      byDay.items.map(({ key, clicks, theirClicks }: Record<string, unknown>) => [key, clicks, theirClicks]),
      [
        ["2026-11-02", 2, 1205],
        ["2026-11-03", 2, 7],
        ["2026-11-04", 0, null],
      ],
    );
    assert.deepEqual(
      (await asked("by=month")).items.map(({ key }: { key: string }) => key),
      ["2026-11"],
    );
  });

  test("takes back what was reversed, by word or below zero, and never brings it back", async () => {
    const reversed = await send(["A-1,2026-11-05,Harbour,lamps-1,-100.00,-6.00,EUR,approved"]);
    assert.deepEqual([reversed.body.created, reversed.body.changed], [0, 1]);
    assert.equal((await send([ROWS[0]!])).body.unchanged, 1, "an older report does not undo it");
    assert.equal((await send(["A-2,2026-11-03,Harbour,by-hand,50.00,3.00,EUR,approved"])).body.changed, 1);
    const { total } = await asked("by=program");
    assert.deepEqual(total.money[0], {
      currency: "EUR",
      approved: "5.00",
      pending: "0.00",
      reversed: "6.00",
      sales: 3,
      leads: 0,
      reversals: 1,
      epc: "0.41",
    });
  });

  test("names each line that it cannot take, and takes the others", async () => {
    const { body } = await send([
      "B-1,02.11.2026,Harbour,x,1,1,EUR,approved",
      "B-2,2026-11-02,Harbour,x,1,one,EUR,approved",
      '"B-3",2026-11-02,"Harbour\nof two lines",x,1,1.00,EUR,approved',
      "B-4,2026-11-02,Harbour,x,1,1.00,ZZZ,approved",
      "B-5,2026-11-02,Harbour,x,1,1.00,EUR,perhaps",
    ]);
    assert.deepEqual(
      [body.created, body.refused, body.refusals.map(({ line }: { line: number }) => line)],
      [1, 4, [2, 3, 6, 7]],
    );
    for (const { message } of body.refusals) assert.ok(message.length > 10);
  });

  test("with a byte order mark, semicolons, decimal commas and Latin-1 is read as it is", async () => {
    const text = "\uFEFFBestellung;Datum;Provision;Händler\r\nC-1;04.11.2026;1.234,50;Harbour\r\n";
    const columns = {
      reference: "Bestellung",
      at: "Datum",
      commission: "Provision",
      program: "Händler",
      fixedCurrency: "EUR",
      dates: "dmy",
      decimal: ",",
    };
    for (const raw of [
      Buffer.from(text, "utf8"),
      Buffer.from(text.slice(1).replace("C-1", "C-2"), "latin1"),
    ]) {
      const { body } = await garden.call(
        "POST",
        `/sites/garden/earnings/import?network=Other&columns=${encodeURIComponent(JSON.stringify(columns))}`,
        undefined,
        { raw, headers: { "Content-Type": "text/csv" } },
      );
      // The program that it names is of another network.
      assert.deepEqual([body.created, body.unmatched], [1, 1], JSON.stringify(body));
    }
    const [read] = await garden.store.rows<{ sum: string; word: string }>(
      "SELECT sum(commission)::text AS sum, min(program_word) AS word FROM conversions WHERE network = 'Other'",
    );
    assert.deepEqual(read, { sum: "246900", word: "Harbour" });
  });

  test("whose columns are not known, or not there, is refused in words", async () => {
    const look = await garden.call("POST", "/sites/garden/earnings/look?network=Fresh", undefined, {
      raw: `${HEAD}\n${ROWS[0]}`,
      headers: { "Content-Type": "text/csv" },
    });
    assert.deepEqual(look.body.columns, COLUMNS);
    assert.deepEqual([look.body.remembered, look.body.dateOrders], [false, ["ymd"]]);
    const missing = await send(ROWS, "", { ...COLUMNS, commission: "provision" });
    assert.match(missing.body.detail, /no column “provision”/);
    for (const columns of [
      { ...COLUMNS, dates: "never" },
      { ...COLUMNS, currency: undefined },
    ])
      assert.ok((await send(ROWS, "", columns)).body.errors[0].path.startsWith("columns."));
    const unknown = await garden.call("POST", "/sites/garden/earnings/import?network=Unheard", undefined, {
      raw: HEAD,
      headers: { "Content-Type": "text/csv" },
    });
    assert.equal(unknown.body.errors[0].path, "columns");
    const empty = await garden.call("POST", "/sites/garden/earnings/look?network=Fresh", undefined, {
      raw: "\n\n",
      headers: { "Content-Type": "text/csv" },
    });
    assert.equal(empty.status, 422);
  });
});

describe("rows without a program", () => {
  const span = "from=2026-06-01&to=2026-06-30";
  const rows = [
    "U-1,2026-06-02,Quiet Shop Ltd,one,100.00,6.00,EUR,approved",
    "U-2,2026-06-03,QUIET SHOP LTD,two,50.00,3.00,EUR,reversed",
    "U-3,2026-06-03,Quiet Shop Ltd,lamps-1,50.00,3.00,EUR,approved",
    "U-4,2026-06-04,,three,10.00,1.00,EUR,pending",
  ];
  const unmatched = async () =>
    (await garden.call("GET", `/sites/garden/earnings/unmatched?${span}`)).body.items.map(
      (one: { word: string; rows: number; money: unknown[]; subIds: string[] }) => [
        one.word,
        one.rows,
        one.subIds,
        one.money,
      ],
    );
  const quiet = async () =>
    (await garden.call("GET", "/sites/garden/programs?q=quiet")).body.items.find(
      ({ name }: { name: string }) => name === "Quiet",
    );
  const call = async (reportNames: string[], status = 200): Promise<unknown> => {
    const { id, version } = await quiet();
    const answer = await garden.call("PATCH", `/sites/garden/programs/${id}`, { reportNames, version });
    assert.equal(answer.status, status, JSON.stringify(answer.body));
    return answer.body.errors;
  };

  test("are told by what the report calls it, given to a program, remembered, and taken back", async () => {
    await send(rows);
    const nameless = ["", 1, ["three"], [{ currency: "EUR", amount: "1.00" }]];
    assert.deepEqual(await unmatched(), [
      ["QUIET SHOP LTD", 2, ["one", "two"], [{ currency: "EUR", amount: "6.00" }]],
      nameless,
    ]);
    await call(["Quiet Shop Ltd"]);
    assert.deepEqual(await unmatched(), [nameless]);
    const next = (await send(["U-5,2026-06-05,quiet shop ltd,four,1.00,1.00,EUR,approved"])).body;
    assert.equal(next.matchedToPrograms, 1);
    await call([]);
    assert.deepEqual(await unmatched(), [
      ["QUIET SHOP LTD", 3, ["four", "one", "two"], [{ currency: "EUR", amount: "7.00" }]],
      nameless,
    ]);
    const [sale] = await garden.store.rows<{ program: string }>(
      "SELECT program_id::text AS program FROM conversions WHERE reference = 'U-3'",
    );
    assert.equal(sale!.program, harbour.id, "a sub-ID that was issued says more than a word");
  });

  test("belong to one program: a word that means another already is refused", async () => {
    assert.deepEqual(await call(["harbour"], 422), [
      { path: "reportNames", message: "In reports “harbour” is Harbour already." },
    ]);
  });

  test("become those of a program that is written down later", async () => {
    await call([]);
    const { id } = (
      await garden.call("POST", "/sites/garden/programs", {
        name: "Quiet Shop Ltd",
        domains: ["late.example"],
      })
    ).body;
    assert.deepEqual(
      (await unmatched()).map(([word]: [string]) => word),
      [""],
    );
    await garden.call("DELETE", `/sites/garden/programs/${id}`);
  });
});

describe("earnings", () => {
  test("name the pages that send many clicks and earn nothing", async () => {
    const october = async (by: string) =>
      (await garden.call("GET", `/sites/garden/earnings?from=2026-10-01&to=2026-10-31&by=${by}`)).body;
    const { silent, left, items } = await october("page");
    assert.deepEqual([silent, left], [["By hand"], 0]);
    assert.deepEqual(
      items.map(({ label, clicks, theirClicks }: Record<string, unknown>) => [label, clicks, theirClicks]),
      [["By hand", 25, null]],
    );
    assert.deepEqual((await asked("by=page")).silent, [], "in November nobody came often");
  });

  test("are exported as CSV that no spreadsheet runs", async () => {
    await send(["D-1,2026-11-06,Harbour,=1+1,1,1.00,EUR,approved"]);
    const { body, type } = await garden.call(
      "GET",
      "/sites/garden/earnings/export?from=2026-11-01&to=2026-11-30&by=subId",
    );
    assert.match(type, /text\/csv/);
    assert.match(body, /^subId,clicks,network_clicks,currency,approved/);
    assert.ok(!/^=1/m.test(body));
  });

  test("of a span that cannot be are refused at the field", async () => {
    for (const [query, path] of [
      ["from=2026-11-30&to=2026-11-01", "to"],
      ["from=1990-01-01", "from"],
      ["from=yesterday", "from"],
      ["by=moon", "by"],
    ] as const) {
      const { status, body } = await garden.call("GET", `/sites/garden/earnings?${query}`);
      assert.ok([400, 422].includes(status), query);
      assert.equal(body.errors[0].path, path);
    }
  });
});
