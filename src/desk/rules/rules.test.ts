import assert from "node:assert/strict";
import { after, before, describe, test } from "node:test";
import { applyDueSchedules } from "./schedule.ts";
import { testDesk, type Answered, type TestDesk } from "../../../tests/support/desk.ts";

let garden: TestDesk;
const RULES = "/sites/garden/rules";
before(async () => {
  garden = await testDesk();
  const html =
    '<p><a href="https://shop.example/1">one</a> <a href="https://shop.example/2" rel="ugc">two</a> <a href="https://news.example/">three</a> <a href="/about">four</a></p>';
  for (const path of ["/a", "/b"])
    await garden.call("POST", "/sites/garden/pages", { path, title: path, html, publish: true });
});
after(() => garden.close());

const rule = (name: string, more: object = {}): object => ({
  name,
  match: { destination: "external" },
  set: { nofollow: "on" },
  ...more,
});
async function replace(rules: object[]): Promise<Answered> {
  const { body } = await garden.call("GET", RULES);
  return garden.call("PUT", RULES, { version: body.version, rules });
}

describe("trying a set", () => {
  test("says how many links on how many pages change, by what changes, with samples", async () => {
    const { status, body } = await garden.call("POST", `${RULES}/try`, {
      rules: [
        rule("Out"),
        rule("Shop", { match: { domains: ["shop.example"] }, set: { sponsored: "on" }, mode: "overwrite" }),
      ],
    });
    assert.equal(status, 200, JSON.stringify(body));
    assert.deepEqual([body.links, body.pages, body.changed, body.changedPages], [8, 2, 6, 2]);
    assert.deepEqual(
      body.groups.map(({ change, links }: { change: string; links: number }) => [change, links]),
      [
        ["+nofollow", 2],
        ["+nofollow +sponsored", 2],
        ["+sponsored", 2],
      ],
    );
    const one = body.samples.find(({ anchor }: { anchor: string }) => anchor === "one");
    assert.deepEqual(
      [one.page, one.href, one.before, one.after],
      [
        "/a",
        "https://shop.example/1",
        { rel: [], target: null },
        { rel: ["nofollow", "sponsored"], target: null },
      ],
    );
    assert.deepEqual(body.decides, [4, 4]);
    assert.deepEqual(body.hosts[0], {
      host: "shop.example",
      before: { sponsored: 0, ugc: 2, nofollow: 0, plain: 2 },
      after: { sponsored: 4, ugc: 0, nofollow: 0, plain: 0 },
    });
    assert.equal((await garden.call("GET", RULES)).body.version, 0, "nothing came into force");
  });

  test("lists a group down to each link, and can be a job", async () => {
    const body = { rules: [rule("Out")], only: { change: "+nofollow", offset: 1 } };
    const { status, headers } = await garden.call("POST", `${RULES}/try`, body, {
      headers: { Prefer: "respond-async" },
    });
    assert.equal(status, 202);
    const where = headers.get("location")!.replace("/api/v1", "");
    let job = await garden.call("GET", where);
    for (let turns = 0; job.body.state === "running" && turns < 200; turns += 1) {
      await new Promise((resolve) => setTimeout(resolve, 20));
      job = await garden.call("GET", where);
    }
    assert.equal(job.body.state, "done");
    assert.equal(job.body.result.listed.length, 3);
  });

  test("advises: a rule that never decides, one that contradicts, one that withholds the referrer", async () => {
    await garden.call("POST", "/sites/garden/programs", {
      name: "Shop",
      state: "approved",
      domains: ["shop.example"],
      needsReferrer: true,
    });
    const codes = async (rules: object[]): Promise<string[]> =>
      (await garden.call("POST", `${RULES}/advice`, { rules })).body.advice.map(
        ({ code }: { code: string }) => code,
      );
    assert.deepEqual(await codes([rule("A"), rule("B")]), ["never-decides"]);
    assert.ok(
      (
        await codes([
          rule("A", { match: { categories: ["x"] } }),
          rule("B", { match: { categories: ["x", "y"] }, set: { nofollow: "off" } }),
        ])
      ).includes("contradiction"),
    );
    assert.deepEqual(
      await codes([rule("A", { match: { domains: ["shop.example"] }, set: { noreferrer: "on" } })]),
      ["referrer-withheld"],
    );
    assert.deepEqual(await codes([rule("A", { match: { domains: ["garden.example"] } })]), ["never-matches"]);
    assert.deepEqual(await codes([rule("A", { match: {}, set: { sponsored: "on" } })]), ["sponsored-inside"]);
    assert.deepEqual(await codes([rule("A", { match: { domains: ["news.example"] } })]), []);
  });
});

describe("sets are kept", () => {
  test("each with what it changed; an earlier one is compared and put back", async () => {
    assert.equal((await replace([rule("Out"), rule("More", { set: { external: "on" } })])).status, 200);
    assert.equal(
      (await replace([rule("More", { set: { external: "on" } }), rule("Out", { enabled: false })])).status,
      200,
    );
    const { body } = await garden.call("GET", `${RULES}/versions`);
    assert.deepEqual(
      body.items.map(({ version }: { version: number }) => version),
      [2, 1],
    );
    assert.deepEqual(
      body.items[0].differences.map(({ change, name }: { change: string; name: string }) => [change, name]),
      [
        ["switched off", "Out"],
        ["moved", "Out"],
      ],
    );
    const kept = await garden.call("GET", `${RULES}/versions/1`);
    assert.deepEqual(
      kept.body.against.map(({ change, name }: { change: string; name: string }) => [change, name]),
      [
        ["switched on", "Out"],
        ["moved", "More"],
      ],
    );
    const back = await garden.call("POST", `${RULES}/versions/1/restore`, { version: 2 });
    assert.deepEqual([back.status, back.body.version, back.body.rules[0].name], [200, 3, "Out"]);
    assert.equal((await garden.call("POST", `${RULES}/versions/1/restore`, { version: 2 })).status, 409);
    assert.equal((await garden.call("GET", `${RULES}/versions/99`)).status, 404);
    assert.equal((await garden.call("GET", `${RULES}/versions/99999999999999`)).status, 404);
  });

  test("a stale save is refused with the current set", async () => {
    const { status, body } = await garden.call("PUT", RULES, { version: 1, rules: [] });
    assert.deepEqual([status, body.current.version], [409, 3]);
  });
});

describe("a set at a time", () => {
  const soon = (ms: number): string => new Date(Date.now() + ms).toISOString();
  const schedule = (version: number, at: string, name = "Later") =>
    garden.call("PUT", `${RULES}/schedule`, { version, at, rules: [rule(name)] });

  test("waits, is shown with what it changes, and comes into force", async () => {
    const { status, body } = await schedule(3, soon(60_000));
    assert.equal(status, 200, JSON.stringify(body));
    assert.deepEqual(
      body.schedule.differences.map(({ change }: { change: string }) => change),
      ["added", "removed", "removed"],
    );
    assert.equal(await applyDueSchedules(garden.desk, Date.now()), 0);
    assert.equal(await applyDueSchedules(garden.desk, Date.now() + 61_000), 1);
    assert.equal((await garden.call("GET", RULES)).body.rules[0].name, "Later");
    assert.equal((await garden.call("GET", `${RULES}/schedule`)).body.schedule, null);
  });

  test("is held when another set came into force meanwhile", async () => {
    await schedule(4, soon(60_000), "Too late");
    await replace([rule("Newer")]);
    assert.equal(await applyDueSchedules(garden.desk, Date.now() + 61_000), 0);
    assert.equal((await garden.call("GET", RULES)).body.rules[0].name, "Newer");
    assert.match((await garden.call("GET", `${RULES}/schedule`)).body.schedule.held, /Another set/);
    assert.equal((await garden.call("DELETE", `${RULES}/schedule`)).status, 204);
  });

  test("comes into force once, whichever of several processes sees its time first", async () => {
    const { body: before } = await garden.call("GET", RULES);
    await schedule(before.version, soon(60_000), "Once");
    const due = Date.now() + 61_000;
    const applied = await Promise.all([1, 2, 3].map(() => applyDueSchedules(garden.desk, due)));
    assert.equal(
      applied.reduce((sum, one) => sum + one, 0),
      1,
    );
    const { body: after } = await garden.call("GET", RULES);
    assert.deepEqual([after.version, after.rules[0].name], [before.version + 1, "Once"]);
    assert.equal((await garden.call("GET", `${RULES}/schedule`)).body.schedule, null);
  });

  test("takes the place of one that waits already", async () => {
    const { body } = await garden.call("GET", RULES);
    await schedule(body.version, soon(60_000), "First thought");
    await schedule(body.version, soon(120_000), "Second thought");
    const waiting = await garden.call("GET", `${RULES}/schedule`);
    assert.equal(waiting.body.schedule.rules[0].name, "Second thought");
    assert.equal(await applyDueSchedules(garden.desk, Date.now() + 61_000), 0);
    assert.equal((await garden.call("DELETE", `${RULES}/schedule`)).status, 204);
    assert.equal(await applyDueSchedules(garden.desk, Date.now() + 200_000), 0);
    const after = await garden.call("GET", RULES);
    assert.equal(after.body.version, body.version);
  });

  const refused: [says: string, body: object, path: string][] = [
    ["a time that has passed", { version: 5, rules: [], at: "2020-01-01T00:00:00Z" }, "at"],
    ["a time that is none", { version: 5, rules: [], at: "tomorrow" }, "at"],
  ];
  for (const [says, body, path] of refused)
    test(`refused: ${says}`, async () => {
      const answer = await garden.call("PUT", `${RULES}/schedule`, body);
      assert.deepEqual([answer.status, answer.body.errors[0].path], [422, path]);
    });
});

describe("bad sets are refused at their field", () => {
  const bad: [says: string, broken: object, path: string][] = [
    ["a star in the wrong place", { match: { domains: ["shop.*.example"] } }, "rules.0.match.domains.0"],
    [
      "an address for a domain",
      { match: { domains: ["https://shop.example/x"] } },
      "rules.0.match.domains.0",
    ],
    ["no name", { name: " " }, "rules.0.name"],
    ["a token that there is not", { set: { dofollow: "on" } }, "rules.0.set.dofollow"],
    ["a page that is no path", { match: { pages: ["reviews"] } }, "rules.0.match.pages.0"],
    ["a mode that there is not", { mode: "always" }, "rules.0.mode"],
  ];
  for (const [says, broken, path] of bad)
    test(says, async () => {
      const { status, body } = await replace([{ ...rule("R"), ...broken }]);
      assert.equal(status, 422);
      assert.ok(
        body.errors.some((error: { path: string }) => error.path === path),
        JSON.stringify(body.errors),
      );
    });

  test("a thousand rules are taken, one more is not; a domain outside ASCII is taken in its ASCII form", async () => {
    const many = (count: number): object[] =>
      Array.from({ length: count }, (_, index) =>
        rule(`R ${index}`, { match: { domains: [index === 0 ? "*.Bücher.example" : `d${index}.example`] } }),
      );
    assert.equal((await replace(many(1_001))).status, 422);
    const { status, body } = await replace(many(1_000));
    assert.deepEqual([status, body.rules[0].match.domains[0]], [200, "*.xn--bcher-kva.example"]);
    assert.equal((await replace([rule("Out", { mode: "overwrite" })])).status, 200);
  });
});

describe("HTML from elsewhere", () => {
  const LINK = '<P><A HREF=https://shop.example/1>one</A> <a href="https://gdn.example/go">two</a></P>';
  const MARKED = LINK.replace("/1", '/1 rel="nofollow"').replace('/go"', '/go" rel="nofollow"');
  const rewrite = (raw: BodyInit, type = "text/html; charset=utf-8") =>
    garden.call("POST", "/sites/garden/rewrite?page=/x", undefined, {
      raw,
      headers: { "Content-Type": type },
    });

  test("comes back with the rules applied, short links seen through", async () => {
    await garden.call("POST", "/sites/garden/routes", {
      kind: "short",
      host: "gdn.example",
      address: "/go",
      destination: "https://shop.example/9",
    });
    const { status, type, body } = await rewrite(LINK);
    assert.deepEqual([status, type, body], [200, "text/html; charset=utf-8", MARKED]);
    assert.equal((await rewrite(MARKED)).body, MARKED);
    const report = await garden.call("POST", "/sites/garden/rewrite/report", { html: LINK });
    assert.deepEqual([report.body.html, report.body.links, report.body.changes.length], [MARKED, 2, 2]);
  });

  test("pages and categories may be told, for rules that name them", async () => {
    const { body: before } = await garden.call("GET", RULES);
    await replace([rule("Letters", { match: { pages: ["/letters/*"] }, set: { ugc: "on" } })]);
    const asked = (page?: string) =>
      garden.call("POST", "/sites/garden/rewrite/report", { html: LINK, page });
    assert.equal((await asked("/letters/one")).body.changes.length, 2);
    assert.equal((await asked("/news/one")).body.changes.length, 0);
    assert.equal((await asked()).body.changes.length, 0);
    await replace(before.rules);
  });

  test("a document that is too long is refused before it is read", async () => {
    const { status, body } = await rewrite("<p>word</p>".repeat(600_000));
    assert.equal(status, 413);
    assert.match(body.title, /large/i);
  });

  test("what is no HTML in UTF-8 is refused", async () => {
    assert.equal((await rewrite(Uint8Array.of(0xff, 0x41))).status, 422);
    assert.equal((await rewrite(LINK, "text/html; charset=iso-8859-1")).status, 415);
    assert.equal((await rewrite("{}", "application/json")).status, 415);
  });
});

test("no failure was swallowed", () => assert.deepEqual(garden.failures, []));
