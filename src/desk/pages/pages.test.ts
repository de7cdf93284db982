import assert from "node:assert/strict";
import { after, before, describe, test } from "node:test";
import { testDesk, type TestDesk } from "../../../tests/support/desk.ts";

let garden: TestDesk;
before(async () => {
  garden = await testDesk();
  await garden.call("PUT", "/sites/garden/rules", {
    version: 0,
    rules: [{ name: "new tab", match: { destination: "external" }, set: { target: "new" } }],
  });
});
after(() => garden.close());

const PAGES = "/sites/garden/pages";
const LINKED =
  '<p>See <a href="https://shop.example/lamp">the lamp</a> and <a href="/shed">the shed</a>.</p>';

describe("a page is written", () => {
  test("as a draft, with its links counted by kind", async () => {
    const { status, body } = await garden.call("POST", PAGES, {
      path: "/lamps",
      title: "Lamps",
      html: LINKED,
    });
    assert.equal(status, 201);
    assert.deepEqual(
      [body.status, body.links, body.outside, body.knots],
      ["draft", 2, 1, ["external", "broken"]],
    );
    assert.equal(body.html, LINKED);
    assert.deepEqual(body.dropped, []);
  });

  test("what HTML cannot stay is told", async () => {
    const { body } = await garden.call("POST", PAGES, {
      path: "/dirty",
      title: "Dirty",
      html: '<p onclick="x()">a<script>b</script></p>',
    });
    assert.equal(body.html, "<p>a</p>");
    assert.deepEqual(body.dropped, ["the attribute onclick on <p>", "the element <script>"]);
  });

  test("a save needs the version it was made on; a stale one carries the current page", async () => {
    const { body: made } = await garden.call("POST", PAGES, { path: "/saved", title: "Saved" });
    const saved = await garden.call("PUT", `${PAGES}/${made.id}`, {
      version: 1,
      title: "Saved again",
      html: "<p>x</p>",
    });
    assert.deepEqual([saved.status, saved.body.version, saved.body.title], [200, 2, "Saved again"]);
    const stale = await garden.call("PUT", `${PAGES}/${made.id}`, { version: 1, title: "Too late" });
    assert.deepEqual(
      [stale.status, stale.body.current.title, stale.body.current.version],
      [409, "Saved again", 2],
    );
    assert.equal((await garden.call("PUT", `${PAGES}/${made.id}`, { title: "No version" })).status, 422);
  });

  test("a path that another page has is refused at its field", async () => {
    for (const path of ["/lamps", "/lamps/", "/%6Camps"]) {
      const { status, body } = await garden.call("POST", PAGES, { path, title: "Again" });
      assert.deepEqual([status, body.errors[0].path], [422, "path"], path);
    }
  });
});

describe("a page is published", () => {
  test("readers get the published text until the next publication", async () => {
    const { body: made } = await garden.call("POST", PAGES, {
      path: "/two",
      title: "Two",
      html: "<p>first</p>",
      publish: true,
    });
    assert.deepEqual([made.status, made.changed], ["published", false]);
    const { body: saved } = await garden.call("PUT", `${PAGES}/${made.id}`, {
      version: 1,
      html: "<p>second</p>",
    });
    assert.equal(saved.changed, true);
    assert.equal((await garden.call("GET", `${PAGES}/${made.id}/delivered`)).body, "<p>first</p>");
    assert.equal((await garden.call("GET", `${PAGES}/${made.id}/delivered?draft=1`)).body, "<p>second</p>");
    const published = await garden.call("POST", `${PAGES}/${made.id}/publish`, { version: 2 });
    assert.deepEqual(
      [published.status, published.body.changed, published.body.publishedAt],
      [200, false, made.publishedAt],
    );
    assert.equal((await garden.call("GET", `${PAGES}/${made.id}/delivered`)).body, "<p>second</p>");
    assert.equal((await garden.call("POST", `${PAGES}/${made.id}/publish`, { version: 1 })).status, 409);
  });

  test("every publication is kept as a revision", async () => {
    const rows = await garden.store.rows<{ versions: number[] }>(
      "SELECT array_agg(r.version ORDER BY r.version) AS versions FROM revisions r JOIN pages p ON p.id = r.page_id WHERE p.path = '/two'",
    );
    assert.deepEqual(rows[0]?.versions, [1, 2]);
  });

  test("delivered HTML has the rules applied, and the stored body has not", async () => {
    const { body: made } = await garden.call("POST", PAGES, {
      path: "/rules",
      title: "Rules",
      html: `${LINKED}<p><a href="https://shop.example/" data-override="target=same">by hand</a></p>`,
      publish: true,
    });
    const { body: delivered, type } = await garden.call("GET", `${PAGES}/${made.id}/delivered`);
    assert.match(type, /^text\/html/);
    assert.match(
      delivered,
      /<a href="https:\/\/shop\.example\/lamp" rel="noopener" target="_blank">the lamp<\/a>/,
    );
    assert.match(delivered, /<a href="\/shed">the shed<\/a>/);
    assert.match(delivered, /<a href="https:\/\/shop\.example\/">by hand<\/a>/);
    assert.doesNotMatch((await garden.call("GET", `${PAGES}/${made.id}`)).body.html, /_blank/);
  });

  test("deleted and brought back, it is as it was", async () => {
    const { body: made } = await garden.call("POST", PAGES, {
      path: "/back",
      title: "Back",
      html: "<p>x</p>",
      publish: true,
    });
    assert.equal((await garden.call("DELETE", `${PAGES}/${made.id}`)).status, 204);
    assert.equal((await garden.call("GET", `${PAGES}/${made.id}`)).status, 404);
    const restored = await garden.call("POST", `${PAGES}/${made.id}/restore`);
    assert.deepEqual([restored.status, restored.body.status, restored.body.version], [200, "published", 1]);
  });
});

describe("pages are listed and searched", () => {
  test("by title, path and text", async () => {
    const titles = async (q: string): Promise<string[]> =>
      (await garden.call("GET", `${PAGES}?q=${encodeURIComponent(q)}&sort=title`)).body.items.map(
        (page: { title: string }) => page.title,
      );
    assert.deepEqual(await titles("lamps"), ["Lamps"]);
    assert.deepEqual(await titles("/saved"), ["Saved again"]);
    assert.deepEqual(await titles("the shed"), ["Lamps", "Rules"]);
    assert.deepEqual(await titles("_"), []);
  });
});

describe("the rules", () => {
  test("are replaced as a whole, over the version they were read at", async () => {
    const { body } = await garden.call("GET", "/sites/garden/rules");
    assert.equal(body.version, 1);
    assert.equal((await garden.call("PUT", "/sites/garden/rules", { version: 0, rules: [] })).status, 409);
    const { body: next } = await garden.call("PUT", "/sites/garden/rules", {
      version: 1,
      rules: [
        ...body.rules,
        { name: "shop", match: { domains: ["shop.example"] }, set: { sponsored: "on" }, mode: "overwrite" },
      ],
    });
    assert.deepEqual([next.version, next.rules.length], [2, 2]);
  });

  test("are asked about one link, with a trace", async () => {
    const { body } = await garden.call("POST", "/sites/garden/attributes", {
      href: "https://shop.example/lamp",
      rel: "me",
      override: "noopener=off",
    });
    assert.deepEqual([body.rel, body.target], [["sponsored", "me"], "_blank"]);
    assert.deepEqual(body.trace, [
      { attribute: "sponsored", value: "on", by: "shop", beat: [] },
      { attribute: "noopener", value: "off", by: "override on this link", beat: [] },
      { attribute: "target", value: "new", by: "new tab", beat: [] },
    ]);
    assert.match(body.otherwise.noopener, /Leave it to the rules/);
    assert.match(body.otherwise.target, /change “new tab”/);
  });

  test("see through a short link to where it ends", async () => {
    await garden.call("POST", "/sites/garden/routes", {
      kind: "short",
      host: "gdn.example",
      address: "/lamp",
      destination: "https://shop.example/lamp",
    });
    const { body } = await garden.call("POST", "/sites/garden/attributes", {
      href: "https://gdn.example/Lamp",
      rel: ["nofollow"],
    });
    assert.deepEqual([body.rel, body.target], [["nofollow", "sponsored", "noopener"], "_blank"]);
  });
});

describe("what is pasted is looked at", () => {
  const look = async (text: string) => (await garden.call("POST", "/sites/garden/paste", { text })).body;

  test("an outside address: repaired, with its short links and the pages that use it", async () => {
    const known = await look("http://https://shop.example/lamp ");
    assert.deepEqual(
      [known.form, known.kind, known.address],
      ["web", "external", "https://shop.example/lamp"],
    );
    assert.deepEqual(
      known.shortLinks.map((route: { address: string }) => route.address),
      ["/lamp"],
    );
    assert.deepEqual(known.pages.map((page: { title: string }) => page.title).sort(), ["Lamps", "Rules"]);
    assert.equal(known.attributes.target, "_blank");
  });

  test("an address of our own: what answers it, and where it ends", async () => {
    const known = await look("https://gdn.example/lamp");
    assert.deepEqual([known.kind, known.ends], ["route", "https://shop.example/lamp"]);
    assert.match((await look("/two")).answeredBy, /the page “Two”/);
    assert.equal((await look("/nowhere")).kind, "broken");
  });

  test("words search pages and routes; what is refused says why", async () => {
    const known = await look("the shed");
    assert.deepEqual([known.form, known.pages.length], ["words", 2]);
    assert.match((await look("javascript:alert(1)")).refusal, /http, https/);
  });

  test("many addresses at once, for the rope", async () => {
    const { body } = await garden.call("POST", "/sites/garden/looks", {
      addresses: ["https://gdn.example/lamp", "/two", "#x", "mailto:a@b.example", "/no"],
    });
    assert.deepEqual(
      body.items.map((one: { kind: string }) => one.kind),
      ["route", "page", "heading", "mail", "broken"],
    );
  });
});

test("none of this was a failure of ours", () => assert.deepEqual(garden.failures, []));

describe("a path that readers get another page at still", () => {
  test("is refused when the new page is published, in whatever way, and free once the other has moved", async () => {
    const html = "<p>text</p>";
    const first = await garden.call("POST", "/sites/garden/pages", {
      path: "/moving",
      title: "Moving",
      html,
      publish: true,
    });
    const moved = await garden.call("PUT", `/sites/garden/pages/${first.body.id}`, {
      version: first.body.version,
      path: "/moved-away",
    });
    assert.equal(moved.status, 200);
    const refused = await garden.call("POST", "/sites/garden/pages", {
      path: "/moving",
      title: "New",
      html,
      publish: true,
    });
    assert.deepEqual([refused.status, refused.body.errors[0].path], [422, "path"]);
    assert.match(refused.body.detail, /Readers get another page at \/moving still/);
    const draft = await garden.call("POST", "/sites/garden/pages", { path: "/moving", title: "New", html });
    const publish = (): ReturnType<typeof garden.call> =>
      garden.call("POST", `/sites/garden/pages/${draft.body.id}/publish`, { version: draft.body.version });
    assert.equal((await publish()).status, 422);
    await garden.call("POST", `/sites/garden/pages/${first.body.id}/publish`, {
      version: moved.body.version,
    });
    assert.equal((await publish()).status, 200);
  });
});
