import assert from "node:assert/strict";
import { after, before, describe, test } from "node:test";
import Papa from "papaparse";
import type { LedgerLink } from "../../core/ledger/ledger.ts";
import { until } from "../../../tests/support/ask.ts";
import { testDesk, type Answered, type TestDesk } from "../../../tests/support/desk.ts";

let garden: TestDesk;
const LINKS = "/sites/garden/links";

async function page(path: string, html: string, more: object = {}): Promise<{ id: string; version: number }> {
  const { status, body } = await garden.call("POST", "/sites/garden/pages", {
    path,
    title: `Page ${path}`,
    html,
    publish: true,
    ...more,
  });
  assert.equal(status, 201, JSON.stringify(body));
  return body;
}
async function links(query = ""): Promise<LedgerLink[]> {
  const { status, body } = await garden.call("GET", `${LINKS}?${query}`);
  assert.equal(status, 200, JSON.stringify(body));
  return body.items;
}
const bulk = async (body: object): Promise<Answered> => garden.call("POST", `${LINKS}/bulk`, body);
async function htmlOf(id: string): Promise<string> {
  return (await garden.call("GET", `/sites/garden/pages/${id}`)).body.html;
}
async function deliveredOf(id: string): Promise<string> {
  return (await garden.call("GET", `/sites/garden/pages/${id}/delivered`)).body;
}

const RULES = [
  {
    name: "Shop is paid",
    match: { programs: ["Shop"] },
    set: { sponsored: "on", nofollow: "on" },
    mode: "overwrite",
  },
  { name: "Outside in a new tab", match: { destination: "external" }, set: { target: "new" } },
];

let lamps: { id: string; version: number };
before(async () => {
  garden = await testDesk();
  const { body: site } = await garden.call("GET", "/sites/garden");
  const changed = await garden.call("PATCH", "/sites/garden", {
    version: site.version,
    disclosure: { text: "Some links here are paid.", place: false },
  });
  assert.equal(changed.status, 200, JSON.stringify(changed.body));
  const shop = {
    name: "Shop",
    network: "Net",
    domains: ["shop.example", "*.shop.example"],
    needsReferrer: true,
  };
  assert.equal(
    (await garden.call("POST", "/sites/garden/programs", { ...shop, state: "approved" })).status,
    201,
  );
  assert.equal((await garden.call("PUT", "/sites/garden/rules", { version: 0, rules: RULES })).status, 200);
  await garden.call("POST", "/sites/garden/routes", {
    kind: "short",
    host: "gdn.example",
    address: "/lamp",
    destination: "https://shop.example/lamp?tag=7",
  });
  lamps = await page(
    "/lamps",
    '<p><a href="https://shop.example/lamp?tag=7">A lamp</a> <a href="https://gdn.example/lamp">Short</a> <a href="https://news.example/a" rel="ugc">News</a> <a href="/moved">Inside</a> <a href="/nowhere">Lost</a></p>',
    { category: "reviews" },
  );
  await page("/moved", '<p><a href="https://news.example/a">More news</a></p>');
  await garden.call("PUT", "/sites/garden/navigation", {
    version: 0,
    items: [
      { id: "a", label: "Shop", kind: "address", address: "https://shop.example/" },
      { id: "b", label: "Moved", kind: "address", address: "/moved" },
    ],
  });
  await garden.call("POST", "/sites/garden/blocks", {
    title: "Foot",
    placement: { place: "footer", shown: "all" },
    html: '<p><a href="https://news.example/b" target="_top">Foot news</a></p>',
    publish: true,
  });
});
after(() => garden.close());

describe("the ledger", () => {
  test("has every link of pages, blocks and navigation, as stored and as delivered", async () => {
    const all = await links();
    assert.deepEqual(
      all.map(({ place, anchor, kind, host, treatment }) => [place, anchor, kind, host, treatment]),
      [
        ["navigation", "Shop", "external", "shop.example", "sponsored"],
        ["navigation", "Moved", "page", "", "plain"],
        ["page", "A lamp", "external", "shop.example", "sponsored"],
        ["page", "Short", "route", "shop.example", "sponsored"],
        ["page", "News", "external", "news.example", "ugc"],
        ["page", "Inside", "page", "", "plain"],
        ["page", "Lost", "broken", "", "plain"],
        ["page", "More news", "external", "news.example", "plain"],
        ["block", "Foot news", "external", "news.example", "plain"],
      ],
    );
    const [, , lamp, short, news] = all;
    assert.deepEqual(lamp!.delivered, { rel: ["nofollow", "sponsored", "noopener"], target: "_blank" });
    assert.deepEqual(lamp!.rules, ["Shop is paid", "Outside in a new tab"]);
    assert.deepEqual([lamp!.rule, lamp!.programs], ["Shop is paid", ["Shop"]]);
    assert.deepEqual(lamp!.shortLink && [lamp!.shortLink.url, lamp!.shortLink.used], [
      "https://gdn.example/lamp",
      false,
    ]);
    assert.deepEqual(
      [short!.destination, short!.shortLink?.used, short!.clicks],
      ["https://shop.example/lamp?tag=7", true, 0],
    );
    assert.deepEqual(
      [news!.stored, news!.edition, news!.live],
      [{ rel: ["ugc"], target: null }, "both", true],
    );
    assert.deepEqual(all.find(({ anchor }) => anchor === "Lost")!.findings, ["broken"]);
  });

  const narrowed: [query: string, anchors: string[]][] = [
    ["host=shop.example", ["Shop", "A lamp", "Short"]],
    ["page=/moved", ["More news"]],
    ["program=Shop&place=page", ["A lamp", "Short"]],
    ["rel=ugc", ["News"]],
    ["rel=none&place=page", ["Inside", "Lost"]],
    ["target=new&place=navigation", ["Shop"]],
    ["treatment=plain&place=page", ["More news"]],
    ["kind=broken", ["Lost"]],
    ["health=bad", ["Lost"]],
    ["category=reviews&reach=internal", ["Inside", "Lost"]],
    ["rule=Shop%20is%20paid&place=navigation", ["Shop"]],
    ["finding=any&kind=page", []],
    ["q=MORE%20news", ["More news"]],
    ["q=100%25", []],
    ["short=1", ["A lamp"]],
    ["sort=-host&limit=2", ["Shop", "A lamp"]],
  ];
  for (const [query, anchors] of narrowed)
    test(`narrowed by ${query}`, async () =>
      assert.deepEqual(
        (await links(query)).map(({ anchor }) => anchor),
        anchors,
      ));

  test("counts what it can be narrowed by", async () => {
    const { body } = await garden.call("GET", `${LINKS}/facets?place=page`);
    assert.deepEqual(body.host, [
      { value: "news.example", links: 2 },
      { value: "shop.example", links: 2 },
    ]);
    assert.deepEqual(body.treatment, [
      { value: "sponsored", links: 2 },
      { value: "plain", links: 1 },
      { value: "ugc", links: 1 },
    ]);
    assert.deepEqual(body.place, [{ value: "page", links: 6 }]);
    assert.deepEqual(body.program, [{ value: "Shop", links: 2 }]);
  });

  test("every count is what narrowing to it leaves", async () => {
    for (const narrowed of ["", "place=page", "reach=external&anchor=text"]) {
      const { current, ...facets } = (await garden.call("GET", `${LINKS}/facets?${narrowed}`)).body;
      assert.equal(current, true);
      for (const [facet, counts] of Object.entries(
        facets as Record<string, { value: string; links: number }[]>,
      ))
        for (const { value, links: count } of counts) {
          const query = new URLSearchParams(narrowed);
          query.set(facet, value);
          const { body } = await garden.call("GET", `${LINKS}?${query}&limit=1`);
          if (!new URLSearchParams(narrowed).has(facet))
            assert.equal(body.total, count, `${facet}=${value} of ${narrowed || "all"}`);
        }
    }
  });

  test("goes by host and by page, in parts", async () => {
    const { body } = await garden.call("GET", `${LINKS}/groups?by=host&limit=1`);
    assert.deepEqual(
      [body.total, body.items[0].value, body.items[0].links, body.items[0].sponsored],
      [2, "news.example", 3, 0],
    );
    const next = await garden.call("GET", `${LINKS}/groups?by=host&limit=1&cursor=${body.nextCursor}`);
    assert.deepEqual([next.body.items[0].value, next.body.items[0].sponsored], ["shop.example", 3]);
    const pages = await garden.call("GET", `${LINKS}/groups?by=page&place=page`);
    assert.deepEqual(
      pages.body.items.map(({ value, links: count }: { value: string; links: number }) => [value, count]),
      [
        ["/lamps", 5],
        ["/moved", 1],
      ],
    );
  });

  test("comes as CSV that no spreadsheet runs", async () => {
    const made = await page("/formula", '<p><a href="https://news.example/f">=1+1</a></p>');
    const { body, type } = await garden.call("GET", `${LINKS}/export?page=/formula`);
    assert.match(type, /^text\/csv/);
    const [row] = Papa.parse<Record<string, string>>(body, { header: true }).data;
    assert.deepEqual(
      [row!.page, row!.anchor, row!.rel, row!.target],
      ["/formula", "'=1+1", "noopener", "_blank"],
    );
    await garden.call("DELETE", `/sites/garden/pages/${made.id}`);
    assert.deepEqual(await links("page=/formula"), []);
  });

  test("follows other rules, routes and pages", async () => {
    const off = await garden.call("PUT", "/sites/garden/rules", { version: 1, rules: [RULES[1]] });
    assert.equal(off.status, 200);
    assert.deepEqual(
      (await links("host=shop.example&place=page")).map(({ treatment, findings }) => [
        treatment,
        findings.includes("paid-unmarked"),
      ]),
      [
        ["plain", true],
        ["plain", true],
      ],
    );
    await garden.call("PUT", "/sites/garden/rules", { version: 2, rules: RULES });
    assert.deepEqual(
      (await links("host=shop.example&place=page")).map(({ treatment }) => treatment),
      ["sponsored", "sponsored"],
    );
    const made = await garden.call("POST", "/sites/garden/routes", {
      kind: "redirect",
      address: "/nowhere",
      destination: "https://news.example/found",
    });
    const [lost] = await links("q=lost");
    assert.deepEqual(
      [lost!.kind, lost!.host, lost!.treatment, lost!.findings[0]],
      ["route", "news.example", "plain", "redirected"],
    );
    await garden.call("DELETE", `/sites/garden/routes/${made.body.id}`);
    assert.deepEqual((await links("q=lost"))[0]!.kind, "broken");
  });

  test("shows the draft and what readers get apart when they differ", async () => {
    const { version } = (await garden.call("GET", `/sites/garden/pages/${lamps.id}`)).body;
    await garden.call("PUT", `/sites/garden/pages/${lamps.id}`, {
      version,
      html: '<p><a href="https://draft.example/">Only drafted</a></p>',
    });
    assert.deepEqual(
      (await links("page=/lamps")).map(({ anchor, edition }) => [anchor, edition]),
      [["Only drafted", "draft"]],
    );
    assert.equal((await links("page=/lamps&edition=readers")).length, 5);
    const back = await garden.call("PUT", `/sites/garden/pages/${lamps.id}`, {
      version: version + 1,
      html: '<p><a href="https://shop.example/lamp?tag=7">A lamp</a> <a href="https://gdn.example/lamp">Short</a> <a href="https://news.example/a" rel="ugc">News</a> <a href="/moved">Inside</a></p>',
    });
    await garden.call("POST", `/sites/garden/pages/${lamps.id}/publish`, { version: back.body.version });
    assert.equal((await links("page=/lamps")).length, 4);
  });

  test("read anew from nothing it is the same", async () => {
    const bare = async (): Promise<unknown> => (await links("limit=500")).map(({ id: _, ...link }) => link);
    const before = await bare();
    await garden.store.rows("DELETE FROM ledger_sources");
    await garden.store.rows("DELETE FROM ledger_states");
    const { status, headers } = await garden.call("POST", `${LINKS}/rebuild`);
    assert.equal(status, 202);
    const job = headers.get("location")!.replace("/api/v1", "");
    await until("it is read", async () => (await garden.call("GET", job)).body.state === "done");
    assert.deepEqual(await bare(), before);
  });

  test("the report counts what readers get, over time", async () => {
    const { body } = await garden.call("GET", `${LINKS}/report`);
    assert.deepEqual(body.total, { sponsored: 3, ugc: 1, nofollow: 0, plain: 2 });
    assert.equal(body.hosts.length, 2);
    assert.deepEqual(
      body.days.map(({ sponsored }: { sponsored: number }) => sponsored),
      [3],
    );
  });
});

describe("many at once", () => {
  test("a preview changes nothing; the change goes to drafts alone; one undo takes it back", async () => {
    const action = { do: "host", find: "news.example", replace: "press.example" };
    const before = await htmlOf(lamps.id);
    const preview = await bulk({ filter: {}, action, dryRun: true });
    assert.equal(preview.status, 200, JSON.stringify(preview.body));
    assert.deepEqual([preview.body.links, preview.body.pages, preview.body.batch], [3, 3, null]);
    assert.deepEqual(preview.body.changes[0].before.replace("news", "press"), preview.body.changes[0].after);
    assert.equal(await htmlOf(lamps.id), before);

    const { body } = await bulk({ filter: {}, action });
    assert.deepEqual([body.links, body.routes, body.refused], [3, 0, []], JSON.stringify(body));
    assert.match(await htmlOf(lamps.id), /press\.example\/a" rel="ugc"/);
    assert.match(await deliveredOf(lamps.id), /news\.example/, "readers get what was published");
    assert.equal((await links("host=press.example")).length, 3);

    const undone = await garden.call("POST", `${LINKS}/bulk/${body.batch}/undo`);
    assert.deepEqual(undone.body, { restored: 3, left: [] });
    assert.equal(await htmlOf(lamps.id), before);
    assert.equal((await links("host=press.example")).length, 0);
    assert.equal((await garden.call("POST", `${LINKS}/bulk/${body.batch}/undo`)).status, 404);
  });

  test("what readers get changes when the person says so, draft and revision with it", async () => {
    const action = { do: "parameter", name: "tag", value: "9", add: false };
    const { body } = await bulk({ filter: { page: "/lamps" }, action, published: true });
    assert.deepEqual([body.links, body.routes, body.refused], [1, 1, []], JSON.stringify(body));
    const { body: now } = await garden.call("GET", `/sites/garden/pages/${lamps.id}`);
    assert.deepEqual([now.changed, /tag=9/.test(now.html)], [false, true]);
    assert.match(await deliveredOf(lamps.id), /lamp\?tag=9/);
    const routes = await garden.call("GET", "/sites/garden/routes?kind=short");
    assert.equal(routes.body.items[0].destination, "https://shop.example/lamp?tag=9");
    const undone = await garden.call("POST", `${LINKS}/bulk/${body.batch}/undo`);
    assert.deepEqual(undone.body, { restored: 2, left: [] });
    assert.match(await deliveredOf(lamps.id), /lamp\?tag=7/);
    assert.equal((await garden.call("GET", `/sites/garden/pages/${lamps.id}`)).body.changed, false);
  });

  test("overrides are set and cleared; what somebody changed since is left by the undo", async () => {
    const chosen = (await links("host=shop.example")).map(({ id }) => id);
    const { body } = await bulk({
      ids: chosen,
      action: { do: "override", set: { sponsored: "off", target: "same" } },
    });
    assert.deepEqual(
      [body.links, body.refused.map(({ where }: { where: string }) => where)],
      [3, ["Navigation: Shop"]],
    );
    assert.match(await htmlOf(lamps.id), /data-override="sponsored=off target=same"/);
    assert.deepEqual(
      (await links("host=shop.example&place=page")).map(({ delivered }) => delivered.target),
      [null, null],
    );
    const { version } = (await garden.call("GET", `/sites/garden/pages/${lamps.id}`)).body;
    await garden.call("PUT", `/sites/garden/pages/${lamps.id}`, { version, title: "Lamps, again" });
    const undone = await garden.call("POST", `${LINKS}/bulk/${body.batch}/undo`);
    assert.deepEqual(undone.body, { restored: 1, left: ["/lamps"] });
    const cleared = await bulk({ filter: { byHand: "1" }, action: { do: "clear-overrides" } });
    assert.equal(cleared.body.links, 2);
    assert.deepEqual(await links("byHand=1"), []);
  });

  test("a published text that differs from its draft changes with it, and comes back", async () => {
    const made = await page("/two", '<p><a href="https://old.example/x">See</a></p>');
    await garden.call("PUT", `/sites/garden/pages/${made.id}`, {
      version: made.version,
      html: '<p>Newer: <a href="https://old.example/x">See</a></p>',
    });
    const action = { do: "destination", find: "https://old.example/x", replace: "https://new.example/y" };
    const ids = (await links("page=/two")).map(({ id }) => id);
    const { body } = await bulk({ ids, action, published: true });
    assert.deepEqual([body.links, body.pages, body.refused], [2, 1, []]);
    assert.match(await deliveredOf(made.id), /^<p><a href="https:\/\/new\.example\/y"/);
    assert.match(await htmlOf(made.id), /Newer: <a href="https:\/\/new\.example\/y"/);
    assert.equal((await garden.call("GET", `/sites/garden/pages/${made.id}`)).body.changed, true);
    await garden.call("POST", `${LINKS}/bulk/${body.batch}/undo`);
    assert.match(await deliveredOf(made.id), /^<p><a href="https:\/\/old\.example\/x"/);
    assert.match(await htmlOf(made.id), /Newer: <a href="https:\/\/old\.example\/x"/);
  });

  const bad: [says: string, body: object, path: string][] = [
    ["no choice of links", { action: { do: "shorten" } }, ""],
    ["an action that there is not", { filter: {}, action: { do: "erase" } }, "action.do"],
    ["nothing to set", { filter: {}, action: { do: "override", set: {} } }, "action.set"],
    ["no new host", { filter: {}, action: { do: "host", find: "a.example", replace: "" } }, "action.replace"],
  ];
  for (const [says, body, path] of bad)
    test(`refused: ${says}`, async () => {
      const answer = await bulk(body);
      assert.equal(answer.status, 422);
      assert.ok(
        answer.body.errors.some((error: { path: string }) => error.path === path),
        JSON.stringify(answer.body),
      );
    });

  test("a host that is none is refused at its field, whichever it is", async () => {
    for (const [find, replace, path] of [
      ["news.example", "no host", "action.replace"],
      ["news.example", "https://a@b.example/", "action.replace"],
      ["://", "other.example", "action.find"],
    ] as const) {
      const { status, body } = await bulk({
        filter: {},
        action: { do: "host", find, replace },
        dryRun: true,
      });
      assert.equal(status, 422);
      assert.deepEqual(
        body.errors.map((error: { path: string }) => error.path),
        [path],
      );
    }
  });

  test("no failure was swallowed", () => assert.deepEqual(garden.failures, []));
});
