import assert from "node:assert/strict";
import { after, before, describe, test } from "node:test";
import { testDesk, type Answered, type TestDesk } from "../../../tests/support/desk.ts";

let garden: TestDesk;
before(async () => {
  garden = await testDesk();
});
after(async () => {
  assert.deepEqual(garden.failures, []);
  await garden.close();
});

const post = (path: string, body: unknown): Promise<Answered> =>
  garden.call("POST", `/sites/garden${path}`, body);
const get = async (path: string) => (await garden.call("GET", `/sites/garden${path}`)).body;
const put = (path: string, body: unknown): Promise<Answered> =>
  garden.call("PUT", `/sites/garden${path}`, body);
const newPage = async (path: string, html: string, publish = true) =>
  (await post("/pages", { path, title: `Page ${path}`, html, publish })).body;

describe("inside links follow their page", () => {
  test("when its path changes: for readers at once, for the author when the page is opened, stored text unchanged", async () => {
    const target = await newPage("/there", "<h2>Part</h2>");
    const page = await newPage(
      "/here",
      '<p><a href="/there#part">that page</a> and <a href="https://garden.example/there?x=1">again</a></p>',
    );
    const stored = page.html;
    const moved = (await put(`/pages/${target.id}`, { path: "/moved", version: 1 })).body;
    assert.match(
      await get(`/pages/${page.id}/delivered`),
      /href="\/there#part"/,
      "readers still find it at the old path",
    );
    await post(`/pages/${target.id}/publish`, { version: moved.version });
    const delivered = await get(`/pages/${page.id}/delivered`);
    assert.match(delivered, /href="\/moved#part">that page/);
    assert.match(delivered, /href="https:\/\/garden\.example\/moved\?x=1">again/);
    const opened = await get(`/pages/${page.id}`);
    assert.match(opened.html, /href="\/moved#part"/);
    assert.match(JSON.stringify(opened.body), /"href":"\/moved#part"/);
    const [row] = await garden.store.rows<{ html: string }>("SELECT html FROM pages WHERE id = $id::bigint", {
      id: page.id,
    });
    assert.equal(row!.html, stored);
  });
  test("and a link that is set anew leads where it says", async () => {
    await newPage("/there", "<p>another page has the path now</p>");
    const page = await newPage("/third", '<p><a href="/there">the new one</a></p>');
    assert.match(await get(`/pages/${page.id}/delivered`), /href="\/there"/);
  });
});

describe("versions of a page", () => {
  test("each publication is kept; an earlier one becomes the draft again, and readers get nothing new by it", async () => {
    const page = await newPage("/kept", "<p>First words</p>");
    const published = await get(`/pages/${page.id}`);
    const saved = (
      await put(`/pages/${page.id}`, {
        html: '<p>Second words, and <a href="/kept">a link</a></p>',
        version: 1,
      })
    ).body;
    const second = (await post(`/pages/${page.id}/publish`, { version: saved.version })).body;
    assert.deepEqual(
      [second.publishedAt, second.url],
      [published.publishedAt, published.url],
      "neither date nor address moved",
    );
    const { items } = await get(`/pages/${page.id}/revisions`);
    assert.deepEqual(
      items.map((one: { kind: string; createdBy: string }) => [one.kind, one.createdBy]),
      [
        ["published", "Ida"],
        ["published", "Ida"],
      ],
    );
    const first = await get(`/pages/${page.id}/revisions/${items[1].id}`);
    assert.equal(first.html, "<p>First words</p>");

    const stale = await post(`/pages/${page.id}/revisions/${items[1].id}/restore`, { version: 1 });
    assert.equal(stale.status, 409);
    const restored = (
      await post(`/pages/${page.id}/revisions/${items[1].id}/restore`, { version: second.version })
    ).body;
    assert.deepEqual([restored.html, restored.changed], ["<p>First words</p>", true]);
    assert.match(await get(`/pages/${page.id}/delivered`), /Second words/);
    const kinds = (await get(`/pages/${page.id}/revisions`)).items.map(({ kind }: { kind: string }) => kind);
    assert.ok(kinds.includes("aside"), "the draft that was replaced is kept");
    assert.equal((await garden.call("GET", `/sites/garden/pages/${page.id}/revisions/999999`)).status, 404);
  });
  test("a text is set aside for one who lost a choice between two", async () => {
    const page = await newPage("/aside", "<p>Theirs</p>", false);
    assert.equal((await post(`/pages/${page.id}/aside`, { title: "Mine", html: "<p>Mine</p>" })).status, 204);
    const [kept] = (await get(`/pages/${page.id}/revisions`)).items;
    assert.deepEqual([kept.kind, kept.title], ["aside", "Mine"]);
    assert.equal((await get(`/pages/${page.id}`)).html, "<p>Theirs</p>");
  });
  test("who has the page open is told to the others", async () => {
    const page = await newPage("/open", "<p>x</p>", false);
    const visit = async (tab: string, name: string) =>
      (
        await garden.call(
          "POST",
          `/sites/garden/pages/${page.id}/visit`,
          { tab },
          { actor: { name, role: "editor" } },
        )
      ).body;
    assert.deepEqual((await visit("t1", "Ida")).others, []);
    assert.deepEqual((await visit("t2", "Jo")).others, ["Ida"]);
    assert.deepEqual((await visit("t1", "Ida")).others, ["Jo"]);
    assert.equal((await visit("t3", "Ida")).version, 1);
  });
});

describe("shared blocks and navigation", () => {
  test("a block is written, saved and published as a page is, and is none", async () => {
    const placement = { place: "sidebar", shown: "pages", on: ["/reviews/*"] };
    const { status, body } = await post("/blocks", {
      title: "Note",
      placement,
      html: '<p><a href="/kept">x</a></p>',
    });
    assert.deepEqual([status, body.kind, body.status, body.placement], [201, "block", "draft", placement]);
    const saved = (
      await put(`/pages/${body.id}`, { placement: { ...placement, shown: "all", on: [] }, version: 1 })
    ).body;
    const published = (await post(`/pages/${body.id}/publish`, { version: saved.version })).body;
    assert.equal(published.status, "published");
    assert.deepEqual(
      (await get("/blocks")).items.map(({ title }: { title: string }) => title),
      ["Note"],
    );
    assert.equal(
      (await get("/pages?limit=500")).items.filter(({ id }: { id: string }) => id === body.id).length,
      0,
    );
    assert.equal(
      (await post("/blocks", { title: "Note", placement: { place: "attic", shown: "all" } })).status,
      422,
    );
  });
  test("the navigation is replaced over the version it was read at", async () => {
    const page = await newPage("/nav", "<p>x</p>");
    const items = [
      {
        id: "1",
        label: "Top",
        kind: "heading",
        address: "shop.example/x",
        children: [{ id: "2", label: "Nav", kind: "page", page: page.id }],
      },
    ];
    assert.deepEqual(await get("/navigation"), { version: 0, items: [], updatedBy: "" });
    const { body } = await put("/navigation", { version: 0, items });
    assert.deepEqual(
      [body.version, body.items[0].address, body.items[0].children[0].children],
      [1, "https://shop.example/x", []],
    );
    const stale = await put("/navigation", { version: 0, items: [] });
    assert.deepEqual([stale.status, stale.body.current.version], [409, 1]);
    const wrong = await put("/navigation", {
      version: 1,
      items: [{ id: "1", label: "", kind: "page", children: [] }],
    });
    assert.deepEqual(
      [wrong.status, wrong.body.errors.map(({ path }: { path: string }) => path)],
      [422, ["items.0.label", "items.0.page"]],
    );
  });
});

describe("a site's variables and snippets", () => {
  test("variables are set over a version, and fill texts and addresses on delivery only", async () => {
    const site = (await garden.call("GET", "/sites/garden")).body;
    const changed = await garden.call("PATCH", "/sites/garden", {
      variables: { Account: "G-7", badge: "a & b" },
      paidLimit: 2,
      version: site.version,
    });
    assert.deepEqual(
      [changed.status, changed.body.variables, changed.body.paidLimit],
      [200, { account: "G-7", badge: "a & b" }, 2],
    );
    assert.equal(
      (await garden.call("PATCH", "/sites/garden", { name: "x", version: site.version })).status,
      409,
    );
    assert.equal(
      (await garden.call("PATCH", "/sites/garden", { variables: { "9x": "y" }, version: site.version + 1 }))
        .status,
      422,
    );
    const page = await newPage(
      "/filled",
      '<p>{{badge}} <a href="https://n.example/?id={{account}}">the lamp</a></p>',
    );
    assert.equal(
      await get(`/pages/${page.id}/delivered`),
      '<p>a &amp; b <a href="https://n.example/?id=G-7">the lamp</a></p>',
    );
    assert.match(page.html, /\{\{badge\}\}/);
  });
  test("a partner's snippet: links and pictures are taken over, scripts and handlers not, placeholders filled", async () => {
    const html =
      '<script src="https://n.example/t.js"></script><a href="https://n.example/c?id=YOUR_ACCOUNT_ID&s=YOUR_TAG" onclick="track()" target="_blank"><img src="https://n.example/banner.png" width="300" height="250" alt="Lamps"></a><iframe src="https://n.example/f"></iframe>';
    const { status, body } = await post("/snippets", { html });
    assert.equal(status, 200);
    assert.deepEqual([body.links, body.pictures], [1, 1]);
    assert.deepEqual(body.placeholders, [
      { text: "YOUR_ACCOUNT_ID", variable: "account" },
      { text: "YOUR_TAG" },
    ]);
    assert.match(JSON.stringify(body.body), /id=\{\{account\}\}/);
    assert.deepEqual(body.dropped.map((what: string) => what.split(" (")[0]).sort(), [
      "the attribute onclick on <a>",
      "the element <iframe>",
      "the element <script>",
    ]);
  });
  test("what is typed as words is searched in files too", async () => {
    await garden.call("POST", "/sites/garden/files?name=star-chart.txt", undefined, { raw: "a chart" });
    assert.deepEqual(
      (await post("/paste", { text: "star chart".replace(" ", "-") })).body.files.map(
        ({ path }: { path: string }) => path,
      ),
      ["/files/star-chart.txt"],
    );
  });
  test("looks tell of drafts, redirects and files", async () => {
    await newPage("/only-draft", "<p>x</p>", false);
    await post("/routes", { kind: "redirect", address: "/went", destination: "/kept" });
    const { items } = (
      await post("/looks", { addresses: ["/only-draft", "/went", "/files/star-chart.txt", "/nowhere"] })
    ).body;
    assert.deepEqual(
      items.map(({ kind, draft, redirect }: { kind: string; draft?: boolean; redirect?: boolean }) => [
        kind,
        draft ?? redirect,
      ]),
      [
        ["page", true],
        ["route", true],
        ["file", undefined],
        ["broken", undefined],
      ],
    );
  });
});

describe("large and crooked texts", () => {
  test("two thousand links are taken, found and delivered", async () => {
    const html = Array.from(
      { length: 2000 },
      (_, at) => `<p><a href="https://shop.example/${at}">lamp ${at}</a></p>`,
    ).join("");
    const page = await newPage("/many", html);
    assert.equal(page.links, 2000);
    assert.equal((await get(`/pages/${page.id}/delivered`)).match(/<a /g).length, 2000);
  });
  test("a page of nearly five megabytes is taken, one of more is refused with its reason", async () => {
    const paragraph = `<p>${"word ".repeat(1990)}</p>`;
    const html = paragraph.repeat(Math.floor(4_900_000 / paragraph.length));
    const { status } = await post("/pages", { path: "/huge", title: "Huge", html });
    assert.equal(status, 201);
    const refused = await post("/pages", {
      path: "/too-huge",
      title: "Too huge",
      html: html + paragraph.repeat(20),
    });
    assert.deepEqual([refused.status, refused.body.errors[0].path], [422, "html"]);
  });
  for (const [says, html, kept] of [
    ["broken nesting", "<p><b>bold <a href='/kept'>link</b> more</a></p>", /<a href="\/kept">/],
    ["right to left and combining", "<p>שלום e\u0301 مرحبا</p>", /שלום e\u0301 مرحبا/],
    ["pictographs", "<p>👩‍🚀🌒</p>", /👩‍🚀🌒/],
    ["a half surrogate pair", "<p>x\uD83D</p>", /x\uFFFD/],
    ["thousandfold nesting", `${"<blockquote>".repeat(1000)}deep${"</blockquote>".repeat(1000)}`, /deep/],
  ] as const) {
    test(`${says} gives a clean result`, async () => {
      const { status, body } = await post("/pages", {
        path: `/crooked-${says.replaceAll(" ", "-")}`,
        title: says,
        html,
      });
      assert.equal(status, 201);
      assert.match(body.html, kept);
    });
  }
  test("an emoji in a path is a path like any other", async () => {
    const { status, body } = await post("/pages", {
      path: "/🌒",
      title: "Moon",
      html: "<p>x</p>",
      publish: true,
    });
    assert.deepEqual([status, body.path], [201, "/🌒"]);
  });
  test("the preview is the whole document, in a frame of ours only", async () => {
    const page = await newPage("/shown", "<p>Shown words</p>", false);
    const { headers, body } = await garden.call("GET", `/sites/garden/pages/${page.id}/document?draft=1`);
    assert.match(body, /Shown words/);
    assert.equal(headers.get("x-frame-options"), "SAMEORIGIN");
    assert.match(headers.get("content-security-policy")!, /sandbox allow-same-origin$/);
  });
});
