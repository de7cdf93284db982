import assert from "node:assert/strict";
import { after, before, describe, test } from "node:test";
import fc from "fast-check";
import type { LedgerLink, LinkBulkAnswer } from "../../../core/ledger/ledger.ts";
import { testDesk, type Answered, type TestDesk } from "../../../../tests/support/desk.ts";

let garden: TestDesk;
const LINKS = "/sites/garden/links";
const PAGES = [
  '<p><a href="https://shop.example/a?tag=1">one</a> and <a href="/two">two</a></p><h2>Part</h2><p><a href="https://gdn.example/go">three</a></p>',
  '<p><a href="https://shop.example/a?tag=1" rel="ugc" target="_top">four</a></p><ul><li><a href="https://news.example/x#y" data-override="nofollow=on">five</a></li></ul>',
  '<p>No link of its own, but <strong>bold</strong> <a href="mailto:a@shop.example">six</a>.</p>',
];

before(async () => {
  garden = await testDesk();
  await garden.call("POST", "/sites/garden/routes", {
    kind: "short",
    host: "gdn.example",
    address: "/go",
    destination: "https://shop.example/a?tag=1",
  });
  for (const [index, html] of PAGES.entries()) {
    const { body } = await garden.call("POST", "/sites/garden/pages", {
      path: `/p${index}`,
      title: `Page ${index}`,
      html,
      publish: true,
    });
    if (index === 1)
      await garden.call("PUT", `/sites/garden/pages/${body.id}`, {
        version: body.version,
        html: `${html}<p>In the draft alone: <a href="https://shop.example/b">seven</a></p>`,
      });
  }
  await garden.call("PUT", "/sites/garden/navigation", {
    version: 0,
    items: [
      { id: "a", label: "Shop", kind: "address", address: "https://shop.example/a?tag=1", target: "same" },
      { id: "b", label: "Two", kind: "address", address: "/two" },
    ],
  });
});
after(async () => {
  assert.deepEqual(garden.failures, []);
  await garden.close();
});

/** All that authors wrote and readers get. */
async function everything(): Promise<unknown> {
  const pages = await garden.store.rows(
    "SELECT id, html, published->>'html' AS published, published_version = version AS same FROM pages ORDER BY id",
  );
  const navigation = await garden.store.rows("SELECT items FROM navigations");
  const routes = await garden.store.rows(
    "SELECT address, destination FROM routes WHERE deleted_at IS NULL AND kind = 'short' AND address = '/go'",
  );
  return { pages, navigation, routes };
}
const bulk = (body: object): Promise<Answered> => garden.call("POST", `${LINKS}/bulk`, body);

/** Asserts that what was said to change stands in drafts and navigation now. */
async function assertDone({ changes, refused }: LinkBulkAnswer): Promise<void> {
  const { body } = await garden.call("GET", `${LINKS}?edition=written&limit=500`);
  const stands = new Set(
    body.items.map(({ pageId, anchor, href, override }: LedgerLink) =>
      [pageId, anchor, override === null ? href : `${href} · by hand: ${override}`].join(),
    ),
  );
  for (const { id, words, after, place, edition } of changes)
    if (place !== "route" && edition !== "published" && !refused.some(({ where }) => where.includes(words)))
      assert.ok(stands.has([id, words, after].join()), `${words} ${after}`);
}

const action = fc.oneof(
  fc.record({
    do: fc.constant("override"),
    set: fc.oneof(
      fc.record({ nofollow: fc.constantFrom("on", "off", "clear") }),
      fc.record({
        target: fc.constantFrom("new", "same", "clear"),
        sponsored: fc.constantFrom("on", "clear"),
      }),
    ),
  }),
  fc.constant({ do: "clear-overrides" }),
  fc.record({
    do: fc.constant("destination"),
    find: fc.constantFrom("https://shop.example/a?tag=1", "/two", "https://nowhere.example/"),
    replace: fc.constantFrom("https://new.example/", "/p0", "not an address at all "),
  }),
  fc.record({
    do: fc.constant("host"),
    find: fc.constantFrom("shop.example", "news.example", "gdn.example"),
    replace: fc.constantFrom("other.example", "https://other.example:8443/"),
  }),
  fc.record({
    do: fc.constant("parameter"),
    name: fc.constantFrom("tag", "ref"),
    value: fc.constantFrom("9", "a b&c", null),
    add: fc.boolean(),
  }),
);
const filter = fc.constantFrom(
  {},
  { place: "page" },
  { host: "shop.example" },
  { page: "/p1" },
  { byHand: "1" },
);

describe("changing many links", () => {
  test("whatever is done to whichever of them, the preview says it, and one undo takes all of it back", async () => {
    await fc.assert(
      fc.asyncProperty(
        action,
        filter,
        fc.boolean(),
        fc.boolean(),
        async (doing, chosen, published, routes) => {
          const before = await everything();
          const asked = { filter: chosen, action: doing, published, routes };
          const preview = await bulk({ ...asked, dryRun: true });
          assert.equal(preview.status, 200, JSON.stringify(preview.body));
          assert.deepEqual(await everything(), before, "a preview changes nothing");
          const done = await bulk(asked);
          assert.equal(done.status, 200, JSON.stringify(done.body));
          assert.deepEqual([done.body.links, done.body.pages], [preview.body.links, preview.body.pages]);
          assert.deepEqual(done.body.changes, preview.body.changes);
          if (done.body.batch === null) {
            assert.deepEqual(await everything(), before, "nothing was to be done");
            return;
          }
          await assertDone(done.body);
          const undone = await garden.call("POST", `${LINKS}/bulk/${done.body.batch}/undo`);
          assert.deepEqual([undone.status, undone.body.left], [200, []]);
          assert.deepEqual(await everything(), before, "all of it is back");
        },
      ),
      { numRuns: 40, endOnFailure: true },
    );
  });

  test("only start tags of the chosen links change", async () => {
    const { body } = await garden.call("GET", `${LINKS}?page=/p0`);
    const chosen = body.items.find(({ anchor }: LedgerLink) => anchor === "one");
    const done = await bulk({
      ids: [chosen.id],
      action: { do: "destination", find: chosen.href, replace: "https://new.example/?x=1&y" },
      routes: false,
    });
    assert.equal(done.body.links, 1);
    const pageId = chosen.pageId;
    const { body: page } = await garden.call("GET", `/sites/garden/pages/${pageId}`);
    assert.equal(
      page.html.replaceAll("&amp;", "&"),
      PAGES[0]!.replace("https://shop.example/a?tag=1", "https://new.example/?x=1&y"),
    );
    await garden.call("POST", `${LINKS}/bulk/${done.body.batch}/undo`);
  });

  describe("raw links become short links, made where there was none", () => {
    const filter = { host: "news.example", place: "page" };
    const count = async (): Promise<number> => (await garden.call("GET", "/sites/garden/routes")).body.total;
    const newsLink = async (): Promise<LedgerLink> =>
      (await garden.call("GET", `${LINKS}?host=news.example&place=page`)).body.items[0];

    test("and the undo takes those away again", async () => {
      const before = [await everything(), await count()];
      const preview = await bulk({ filter, action: { do: "shorten" }, dryRun: true });
      assert.deepEqual([preview.body.links, await count()], [1, before[1]]);
      const { body } = await bulk({ filter, action: { do: "shorten" } });
      assert.equal(await count(), Number(before[1]) + 1);
      assert.equal((await newsLink()).kind, "route");
      const undone = await garden.call("POST", `${LINKS}/bulk/${body.batch}/undo`);
      assert.deepEqual(undone.body, { restored: 1, left: [] });
      assert.deepEqual([await everything(), await count()], before);
      assert.equal((await newsLink()).kind, "external");
    });

    test("save for those that are used by now", async () => {
      const { body } = await bulk({ filter, action: { do: "shorten" } });
      const short = (await newsLink()).shortLink!;
      const used = await garden.call("POST", "/sites/garden/pages", {
        path: "/uses-it",
        title: "Uses it",
        html: `<p><a href="${short.url}">the news</a></p>`,
      });
      const undone = await garden.call("POST", `${LINKS}/bulk/${body.batch}/undo`);
      assert.match(undone.body.left[0], /^\/\S+ stands in a text$/);
      assert.equal((await garden.call("GET", `/sites/garden/routes/${short.id}`)).status, 200);
      await garden.call("DELETE", `/sites/garden/pages/${used.body.id}`);
      await garden.call("DELETE", `/sites/garden/routes/${short.id}`);
    });
  });

  test("links that are gone meanwhile are left out; nobody may do it who only reads", async () => {
    const gone = await bulk({ ids: ["999999999"], action: { do: "shorten" } });
    assert.deepEqual([gone.status, gone.body.links, gone.body.batch], [200, 0, null]);
    const reader = { name: "Ann", role: "reader" as const };
    const refused = await garden.call(
      "POST",
      `${LINKS}/bulk`,
      { filter: {}, action: { do: "shorten" } },
      { actor: reader },
    );
    assert.equal(refused.status, 403);
  });
});

describe("who may", () => {
  const reads: string[] = [
    "/links",
    "/links/facets",
    "/links/groups?by=page",
    "/links/report",
    "/links/views",
  ];
  const alsoReads: string[] = ["/rules", "/rules/versions", "/rules/schedule"];
  for (const path of [...reads, ...alsoReads])
    test(`a reader may look at ${path}`, async () => {
      const answer = await garden.call("GET", `/sites/garden${path}`, undefined, {
        actor: { name: "Ann", role: "reader" },
      });
      assert.equal(answer.status, 200);
    });

  const writes: [method: string, path: string, body: object | undefined][] = [
    ["PUT", "/rules", { version: 0, rules: [] }],
    ["PUT", "/rules/schedule", { version: 0, rules: [], at: "2099-01-01T00:00:00Z" }],
    ["DELETE", "/rules/schedule", undefined],
    ["POST", "/rules/versions/1/restore", { version: 0 }],
    ["POST", "/links/rebuild", undefined],
    ["POST", "/links/bulk/1/undo", undefined],
    ["POST", "/links/views", { name: "x", query: "" }],
    ["DELETE", "/links/views/1", undefined],
  ];
  for (const [method, path, body] of writes)
    test(`a reader may not ${method} ${path}`, async () => {
      const answer = await garden.call(method, `/sites/garden${path}`, body, {
        actor: { name: "Ann", role: "reader" },
      });
      assert.equal(answer.status, 403);
    });
});
