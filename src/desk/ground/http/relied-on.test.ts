import assert from "node:assert/strict";
import { after, before, describe, test } from "node:test";
import { testDesk, type Answered, type TestDesk } from "../../../../tests/support/desk.ts";

let garden: TestDesk;
before(async () => {
  garden = await testDesk();
});
after(async () => {
  await garden.close();
  assert.deepEqual(garden.failures, []);
});

const SITE = "/sites/garden";
let number = 0;
const next = (): number => (number += 1);

async function made(path: string, body: object): Promise<Answered> {
  const answer = await garden.call("POST", path, body);
  assert.equal(answer.status, 201, JSON.stringify(answer.body));
  return answer;
}
const route = () =>
  made(`${SITE}/routes`, { kind: "short", address: `/relied-${next()}`, destination: "https://a.example/" });

describe("methods", () => {
  test("HEAD has the headers of GET and nothing behind them; OPTIONS names what is answered", async () => {
    const head = await garden.call("HEAD", `${SITE}/routes`);
    assert.deepEqual([head.status, head.type, head.bytes.length], [200, "application/json", 0]);
    assert.equal((await garden.call("HEAD", `${SITE}/routes/999999`)).status, 404);
    for (const [path, allow] of [
      [`${SITE}/routes`, "GET, POST, HEAD, OPTIONS"],
      [`${SITE}/routes/1`, "GET, PATCH, DELETE, HEAD, OPTIONS"],
      ["/openapi.json", "GET, HEAD, OPTIONS"],
    ] as const) {
      const { status, headers } = await garden.call("OPTIONS", path, undefined, { actor: null });
      assert.deepEqual([status, headers.get("allow")], [204, allow], path);
    }
    assert.equal((await garden.call("OPTIONS", "/nothing")).status, 404);
  });
});

describe("what was made is found at its Location", () => {
  const pages: readonly (readonly [what: string, make: () => Promise<Answered>])[] = [
    ["a route", route],
    ["a page", () => made(`${SITE}/pages`, { path: `/relied-${next()}`, title: "P" })],
    [
      "a block",
      () =>
        made(`${SITE}/blocks`, {
          title: "B",
          placement: { place: "footer", shown: "all" },
          html: "<p>x</p>",
        }),
    ],
    [
      "a program",
      () =>
        made(`${SITE}/programs`, { name: `P${next()}`, state: "approved", domains: [`p${number}.example`] }),
    ],
    [
      "a site",
      () =>
        made("/sites", {
          key: `relied-${next()}`,
          name: "S",
          hosts: [{ name: `r${number}.example`, role: "primary" }],
        }),
    ],
  ];
  for (const [what, make] of pages)
    test(what, async () => {
      const { headers, body } = await make();
      const place = headers.get("location")!.replace(/^\/api\/v1/, "");
      const found = await garden.call("GET", place);
      assert.deepEqual([found.status, found.body.id], [200, body.id], place);
    });

  test("of a host it has the name, of a token the id", async () => {
    const host = await made(`${SITE}/hosts`, { name: "relied.example", role: "other" });
    assert.equal(host.headers.get("location"), "/api/v1/sites/garden/hosts/relied.example");
    const token = await made("/tokens", { name: "relied", role: "reader" });
    assert.equal(token.headers.get("location"), `/api/v1/tokens/${token.body.id}`);
  });
});

test("what scripts take along is there: the categories with their numbers, the rules with what they need", async () => {
  await made(`${SITE}/pages`, { path: `/in-${next()}`, title: "In", category: "Ponds" });
  const { body } = await garden.call("GET", `${SITE}/categories`);
  assert.deepEqual(body.items, [{ category: "Ponds", pages: 1 }]);
  assert.deepEqual((await garden.call("GET", `${SITE}/rules/bundle`)).body.rules, []);
});

describe("what scripts do most is done for many at once", () => {
  test("links are asked about together, as each alone", async () => {
    const links = [
      { href: "https://a.example/" },
      { href: "/own" },
      { href: "https://b.example/", rel: ["ugc"] },
    ];
    const { body: many } = await garden.call("POST", `${SITE}/attributes/many`, { links });
    for (const [at, link] of links.entries())
      assert.deepEqual(many.items[at], (await garden.call("POST", `${SITE}/attributes`, link)).body);
    const wrong = await garden.call("POST", `${SITE}/attributes/many`, { links: [links[0], { href: "" }] });
    assert.deepEqual([wrong.status, wrong.body.errors[0].path], [422, "links.1.href"]);
  });

  test("pages are published together; what cannot be is named", async () => {
    const drafts = await Promise.all(
      [1, 2, 3].map(() => made(`${SITE}/pages`, { path: `/together-${next()}`, title: "T" })),
    );
    const pages = drafts.map(({ body }) => ({ id: body.id, version: body.version }));
    pages[1]!.version = 9;
    const { body } = await garden.call("POST", `${SITE}/pages/publish`, {
      pages: [...pages, { id: "999999", version: 1 }],
    });
    assert.deepEqual(
      body.published.map(({ id }: { id: string }) => id),
      [pages[0]!.id, pages[2]!.id],
    );
    assert.deepEqual(
      body.refused.map(({ id }: { id: string }) => id),
      [pages[1]!.id, "999999"],
    );
    assert.equal((await garden.call("GET", `${SITE}/pages/${pages[1]!.id}`)).body.status, "draft");
  });
});

describe("entity tags", () => {
  test("save asking again, and change with what is shown", async () => {
    const { body } = await route();
    const path = `${SITE}/routes/${body.id}`;
    const first = await garden.call("GET", path);
    const tag = first.headers.get("etag")!;
    assert.match(tag, /^"1\./);
    const again = await garden.call("GET", path, undefined, {
      headers: { "If-None-Match": `"x", W/${tag}` },
    });
    assert.deepEqual([again.status, again.bytes.length], [304, 0]);
    // What was found out about it is no change of it.
    await garden.store.rows(
      `INSERT INTO route_health (route_id, destination, verdict, checked_at) VALUES ($id::bigint, 'https://a.example/', 'fine', now())
       RETURNING verdict`,
      { id: body.id },
    );
    const counted = await garden.call("GET", path, undefined, { headers: { "If-None-Match": tag } });
    assert.deepEqual([counted.status, counted.body.version], [200, 1]);
    assert.notEqual(counted.headers.get("etag"), tag);
  });

  test("of If-Match stand for the version that a change was made on", async () => {
    const { body, headers } = await route();
    const path = `${SITE}/routes/${body.id}`;
    const tag = headers.get("etag")!;
    const change = (match: string, fields: object) =>
      garden.call("PATCH", path, fields, { headers: { "If-Match": match } });
    assert.deepEqual((await change(tag, { title: "One" })).body.version, 2);
    const late = await change(tag, { title: "Two" });
    assert.deepEqual([late.status, late.body.current.title], [412, "One"]);
    // What the body says counts, where it says something.
    assert.equal((await change('"1"', { title: "Two", version: 2 })).status, 200);
    assert.equal((await change("*", { title: "Three" })).status, 422);
    for (const wrong of ["1", '"x"', 'W/"3"', '"3", "4"']) {
      const { status, body: problem } = await change(wrong, { title: "Four" });
      assert.deepEqual([status, problem.errors[0].path], [400, "If-Match"], wrong);
    }
  });

  test("of If-Match keep a deletion from what somebody else changed", async () => {
    const { body } = await route();
    const path = `${SITE}/routes/${body.id}`;
    const remove = (match: string) =>
      garden.call("DELETE", path, undefined, { headers: { "If-Match": match } });
    const refused = await remove('"7"');
    assert.deepEqual([refused.status, refused.body.current.version], [412, 1]);
    assert.equal((await remove('"1"')).status, 204);
  });
});

describe("a call that comes again with its Idempotency-Key", () => {
  const keyed = (key: string, path: string, body: object, headers: Record<string, string> = {}) =>
    garden.call("POST", path, body, { headers: { "Idempotency-Key": key, ...headers } });
  const short = (address: string) => ({ kind: "short", address, destination: "https://a.example/" });

  test("is done once and answered twice, at the same time too", async () => {
    const answers = await Promise.all(
      ["k1", "k1", '"k1"'].map((key) => keyed(key, `${SITE}/routes`, short("/once"))),
    );
    const statuses = answers.map(({ status }) => status).sort();
    assert.ok(
      statuses.every((status) => status === 201 || status === 409) && statuses[0] === 201,
      String(statuses),
    );
    const again = await keyed("k1", `${SITE}/routes`, short("/once"));
    const first = answers.find(({ status }) => status === 201)!;
    assert.deepEqual([again.status, again.body], [201, first.body]);
    assert.equal(again.headers.get("location"), first.headers.get("location"));
    assert.equal(again.headers.get("idempotency-replayed"), "true");
    const { body: list } = await garden.call("GET", `${SITE}/routes?q=/once`);
    assert.equal(list.total, 1);
  });

  test("and asks for something else is refused; so is a key that is none", async () => {
    await keyed("k2", `${SITE}/routes`, short("/else"));
    const other = await keyed("k2", `${SITE}/routes`, short("/other"));
    assert.deepEqual([other.status, other.body.errors[0].path], [422, "Idempotency-Key"]);
    assert.equal((await keyed("k2", `${SITE}/pages`, { path: "/else", title: "E" })).status, 422);
    assert.equal((await keyed("x".repeat(256), `${SITE}/routes`, short("/x"))).status, 400);
    assert.equal((await keyed("a b", `${SITE}/routes`, short("/x"))).status, 400);
  });

  test("is somebody's own, and what was refused may be mended", async () => {
    await keyed("k3", `${SITE}/routes`, short("/own"));
    const editor = { name: "E", role: "editor" as const };
    const theirs = await garden.call("POST", `${SITE}/routes`, short("/theirs"), {
      actor: editor,
      headers: { "Idempotency-Key": "k3" },
    });
    assert.equal(theirs.status, 201);
    const taken = await keyed("k4", `${SITE}/routes`, short("/own"));
    assert.equal(taken.status, 422);
    assert.equal((await keyed("k4", `${SITE}/routes`, short("/mended"))).status, 201);
  });

  test("is not told a secret a second time", async () => {
    const token = { name: "once", role: "reader" };
    assert.match((await keyed("k5", "/tokens", token)).body.token, /^mr_/);
    const again = await keyed("k5", "/tokens", token);
    assert.deepEqual([again.status, again.body.token], [409, undefined]);
    const kept = await garden.store.rows<{ n: number }>(
      "SELECT count(*)::int AS n FROM repeats WHERE body LIKE '%mr_%'",
    );
    assert.equal(kept[0]!.n, 0);
  });

  test("after its process ended in the middle is told so, not done a second time", async () => {
    await keyed("k6", `${SITE}/routes`, short("/middle"));
    await garden.store.rows("UPDATE repeats SET status = NULL, body = NULL WHERE key = 'k6' RETURNING key");
    const again = await keyed("k6", `${SITE}/routes`, short("/middle"));
    assert.deepEqual([again.status, again.headers.get("retry-after")], [409, "5"]);
  });
});

describe("saving what is already so makes no new version", () => {
  const history = async () => (await garden.call("GET", `${SITE}/history`)).body.total as number;
  const cases: readonly (readonly [
    what: string,
    make: () => Promise<Answered>,
    path: (body: Answered["body"]) => string,
    method: string,
    fields: object,
  ])[] = [
    ["a route", route, ({ id }) => `/routes/${id}`, "PATCH", { destination: "https://a.example/", tags: [] }],
    [
      "a page",
      () =>
        made(`${SITE}/pages`, {
          path: `/same-${next()}`,
          title: "Same",
          html: '<p>a <a href="https://a.example/x">b</a></p>',
        }),
      ({ id }) => `/pages/${id}`,
      "PUT",
      { title: "Same", html: '<p>a <a href="https://a.example/x">b</a></p>' },
    ],
    [
      "a program",
      () =>
        made(`${SITE}/programs`, { name: `Same ${next()}`, state: "approved", domains: ["same.example"] }),
      ({ id }) => `/programs/${id}`,
      "PATCH",
      { state: "approved", domains: ["same.example"] },
    ],
    ["the site", () => garden.call("GET", SITE), () => "", "PATCH", { name: "Garden" }],
    [
      "the navigation",
      async () => {
        const { body } = await garden.call("GET", `${SITE}/navigation`);
        return garden.call("PUT", `${SITE}/navigation`, {
          version: body.version,
          items: [{ id: "a", label: "A", kind: "address", address: "/a" }],
        });
      },
      () => "/navigation",
      "PUT",
      { items: [{ id: "a", label: "A", kind: "address", address: "/a" }] },
    ],
    [
      "the rules",
      async () => {
        const { body } = await garden.call("GET", `${SITE}/rules`);
        return garden.call("PUT", `${SITE}/rules`, {
          version: body.version,
          rules: [{ name: "R", match: {}, set: { target: "new" } }],
        });
      },
      () => "/rules",
      "PUT",
      { rules: [{ name: "R", match: {}, set: { target: "new" } }] },
    ],
  ];
  for (const [what, make, path, method, fields] of cases)
    test(what, async () => {
      const { body } = await make();
      const before = await history();
      const saved = await garden.call(method, SITE + path(body), { version: body.version, ...fields });
      assert.deepEqual([saved.status, saved.body.version], [200, body.version], JSON.stringify(saved.body));
      assert.equal(await history(), before);
      const stale = await garden.call(method, SITE + path(body), { version: body.version + 5, ...fields });
      assert.equal(stale.status, 409);
    });

  test("but a link that finds its page only now is bound to it, and follows it from then on", async () => {
    const html = '<p><a href="/found-later">later</a></p>';
    const { body } = await made(`${SITE}/pages`, { path: "/looks-for", title: "L", html });
    const { body: later } = await made(`${SITE}/pages`, { path: "/found-later", title: "F", publish: true });
    const save = (version: number) => garden.call("PUT", `${SITE}/pages/${body.id}`, { version, html });
    const { body: bound } = await save(body.version);
    assert.equal(bound.version, body.version + 1);
    assert.equal((await save(bound.version)).body.version, bound.version);
    await garden.call("PUT", `${SITE}/pages/${later.id}`, { version: later.version, path: "/moved-later" });
    await garden.call("POST", `${SITE}/pages/${later.id}/publish`, { version: later.version + 1 });
    assert.match(
      (await garden.call("GET", `${SITE}/pages/${body.id}/delivered`)).body,
      /href="\/moved-later"/,
    );
  });

  test("and a page that is published as it is, is not published again", async () => {
    const { body } = await made(`${SITE}/pages`, { path: "/again", title: "Again", publish: true });
    await garden.call("POST", `${SITE}/pages/${body.id}/publish`, { version: body.version });
    const { body: kept } = await garden.call("GET", `${SITE}/pages/${body.id}/revisions`);
    assert.equal(kept.total, 1);
  });
});
