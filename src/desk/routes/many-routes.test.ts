import assert from "node:assert/strict";
import { after, before, describe, test } from "node:test";
import { testDesk, type Answered, type TestDesk } from "../../../tests/support/desk.ts";
import { until } from "../../../tests/support/ask.ts";

const ROUTES = "/sites/garden/routes";
let garden: TestDesk;
before(async () => {
  garden = await testDesk();
});
after(async () => {
  await garden.close();
  assert.deepEqual(garden.failures, []);
});

const make = async (route: Record<string, unknown>): Promise<Answered> => garden.call("POST", ROUTES, route);
const list = async (query: string): Promise<Record<string, unknown>[]> =>
  (await garden.call("GET", `${ROUTES}?${query}`)).body.items;
const bring = (text: string | Uint8Array, query = "", type = "text/csv"): Promise<Answered> =>
  garden.call("POST", `${ROUTES}/import${query}`, undefined, {
    raw: text as BodyInit,
    headers: { "Content-Type": type },
  });

describe("routes in from a file", () => {
  const csv = [
    "kind,host,match,address,destination,status,query,title,tags,enabled",
    "redirect,,,/in/a,/in/b,301,,First,x | y,true",
    "short,gdn.example,,/in-short,https://shop.example/in,302,merge,'=Sum,,",
    "redirect,,wildcard,/in/w/*,/in/b/$1,,,,,no",
    "redirect,,,/in/a,/again,,,,,",
    "redirect,other.example,,/in/c,/x,,,,,",
    "redirect,,,bad address,/x,,,,,",
    "redirect,,,/in/nowhere,,,,,,",
    "gone,,,/in/gone,,410,,,,",
    "redirect,,,/in/loop,/in/loop,,,,,",
    "redirect,,,/in/round,/in/trip,,,,,",
    "redirect,,,/in/trip,/in/round,,,,,",
    "redirect,,pattern,/in/(,/x,,,,,",
    "redirect,,pattern,/in/p/(\\d+),/x/$2,,,,,",
    "redirect,,,/in/flag,/x,,,,,maybe",
  ].join("\r\n");

  test("are tried first: what would be made, and every refused line with its reason; nothing is written", async () => {
    const { status, body } = await bring(csv, "?dryRun=1");
    assert.equal(status, 200);
    assert.deepEqual([body.created, body.updated, body.unchanged], [4, 0, 0]);
    const said: readonly (readonly [number, RegExp])[] = [
      [5, /line 2 already/],
      [6, /no host of this site/],
      [7, /slash|spaces/],
      [8, /destination is missing/],
      [10, /circle/],
      [11, /circle/],
      [12, /circle/],
      [13, /no pattern/],
      [14, /no \$2/],
      [15, /true (?:or|nor) false/],
    ];
    assert.deepEqual(
      body.refused.map(({ line }: { line: number }) => line),
      said.map(([line]) => line),
    );
    for (const [line, says] of said)
      assert.match(body.refused.find((one: { line: number }) => one.line === line).message, says);
    assert.deepEqual(await list("q=/in/"), []);
  });

  test("all or nothing, when that is asked for", async () => {
    const { status, type, body } = await bring(csv, "?atomic=1");
    assert.deepEqual([status, type, body.refused.length], [422, "application/problem+json", 10]);
    assert.deepEqual(await list("q=/in/"), []);
  });

  test("go in; a second time they are as they were; changed, they change", async () => {
    assert.equal((await bring(csv)).body.created, 4);
    const [first] = await list("q=/in/a");
    assert.deepEqual([first!.title, first!.tags, first!.destination], ["First", ["x", "y"], "/in/b"]);
    assert.equal((await list("q=in-short"))[0]!.title, "=Sum");
    assert.equal((await list("q=/in/w/"))[0]!.enabled, false);
    const again = (await bring(csv)).body;
    assert.deepEqual([again.created, again.updated, again.unchanged], [0, 0, 4]);
    const changed = (await bring(csv.replace(",First,", ",Second,"))).body;
    assert.deepEqual([changed.created, changed.updated, changed.unchanged], [0, 1, 3]);
    const [second] = await list("q=/in/a");
    assert.deepEqual([second!.id, second!.title, second!.version], [first!.id, "Second", 2]);
  });

  test("what is exported is read back unchanged, as CSV and as JSON", async () => {
    for (const [format, type] of [
      ["csv", "text/csv"],
      ["json", "application/json"],
    ] as const) {
      const { status, body, bytes, headers } = await garden.call("GET", `${ROUTES}/export?format=${format}`);
      assert.equal(status, 200);
      assert.match(headers.get("content-disposition") ?? "", new RegExp(`attachment.*\\.${format}`));
      const total = (await garden.call("GET", ROUTES)).body.total;
      const read = (await bring(bytes, "?dryRun=1", type)).body;
      assert.deepEqual(
        [read.created, read.updated, read.unchanged, read.refused],
        [0, 0, total, []],
        String(body).slice(0, 300),
      );
    }
  });

  test("Latin-1, semicolons and unknown columns are read and told of; a wrong table, a wrong type and a huge one are refused", async () => {
    const latin = Uint8Array.from(
      "address;destination;colour\n/in/latin;https://shop.example/caf\xe9;red\n",
      (sign) => sign.charCodeAt(0),
    );
    const { body } = await bring(latin);
    assert.equal(body.created, 1);
    assert.match(body.notes.join(" "), /Windows-1252.*colour/s);
    assert.equal((await list("q=/in/latin"))[0]!.destination, "https://shop.example/caf%C3%A9");
    assert.equal((await bring("from,to\n/a,/b\n")).status, 422);
    assert.equal((await bring("[", "", "application/json")).status, 422);
    assert.equal((await bring("x", "", "image/png")).status, 415);
    assert.equal((await bring(csv, "?dryRun=2")).status, 400);
  });

  test("ten thousand patterns made to be slow: as many as a site may have, the others named", async () => {
    const slow = [
      "match,address,destination",
      ...Array.from({ length: 10_000 }, (_, n) => `pattern,/(x+x+)+y${n},/x`),
    ];
    const { body } = await bring(slow.join("\n"), "?dryRun=1");
    assert.equal(body.created + body.refused.length, 10_000);
    assert.ok(body.created <= 2_000 && body.created > 1_900);
    assert.match(body.refused.at(-1).message, /at most 2,000 patterns/);
  });

  test("long work is a job, told of while it runs, and stopped without a trace", async () => {
    const many = [
      "address,destination",
      ...Array.from({ length: 6000 }, (_, n) => `/job/${n},https://shop.example/${n}`),
    ].join("\n");
    const options = { raw: many, headers: { "Content-Type": "text/csv", Prefer: "respond-async" } };
    const started = await garden.call("POST", `${ROUTES}/import`, undefined, options);
    assert.equal(started.status, 202);
    const path = started.headers.get("location")!.replace("/api/v1", "");
    const done = await until("the job is done", async () => {
      const { body } = await garden.call("GET", path);
      return body.state === "done" && body;
    });
    assert.equal(done.result.created, 6000);
    const stopping = await garden.call("POST", `${ROUTES}/import`, undefined, {
      ...options,
      raw: many.replaceAll("/job/", "/stop/"),
    });
    const other = stopping.headers.get("location")!.replace("/api/v1", "");
    assert.equal((await garden.call("DELETE", other)).status, 204);
    await until("it has stopped", async () => (await garden.call("GET", other)).body.state === "stopped");
    assert.deepEqual(await list("q=/stop/"), []);
    assert.equal((await garden.call("GET", "/jobs/none")).status, 404);
    const stranger = await garden.call("GET", path, undefined, { actor: { name: "Otto", role: "owner" } });
    assert.equal(stranger.status, 404, "a job is its starter's");
  });
});

describe("changing many routes at once", () => {
  before(async () => {
    for (const n of [1, 2, 3])
      await make({
        kind: "redirect",
        address: `/bulk/${n}`,
        destination: `https://old.example/${n}?p=1`,
        tags: ["bulk"],
      });
    await make({ kind: "redirect", address: "/bulk/own", destination: "/bulk-target", tags: ["bulk"] });
  });
  const ids = async (query = "tag=bulk&sort=address"): Promise<string[]> =>
    (await list(query)).map(({ id }) => String(id));
  const bulk = (body: object): Promise<Answered> => garden.call("POST", `${ROUTES}/bulk`, body);

  test("destinations are replaced after a preview of each, and put back in one step", async () => {
    const action = { do: "retarget", find: "https://old.example/", replace: "https://new.example/shop/" };
    const dry = (await bulk({ filter: { tag: "bulk" }, action, dryRun: true })).body;
    assert.deepEqual(
      [dry.changed, dry.batch, dry.samples[0]],
      [
        3,
        null,
        {
          id: dry.samples[0].id,
          address: "/bulk/1",
          before: "https://old.example/1?p=1",
          after: "https://new.example/shop/1?p=1",
        },
      ],
    );
    assert.equal((await list("q=new.example")).length, 0);
    const { body } = await bulk({ filter: { tag: "bulk" }, action });
    assert.equal((await list("q=new.example")).length, 3, "found by what they lead to now");
    const undone = await garden.call("POST", `${ROUTES}/bulk/${body.batch}/undo`);
    assert.deepEqual(undone.body, { restored: 3, left: [] });
    assert.equal((await list("q=old.example")).length, 3);
    assert.equal(
      (await garden.call("POST", `${ROUTES}/bulk/${body.batch}/undo`)).status,
      404,
      "once is enough",
    );
  });

  test("one that would go in circles or nowhere stays, and says why", async () => {
    const { body } = await bulk({
      filter: { tag: "bulk" },
      action: { do: "retarget", find: "/bulk-target", replace: "/bulk/own" },
    });
    assert.deepEqual([body.changed, body.refused.length], [0, 1]);
    assert.match(body.refused[0].message, /circle/);
    const bad = (
      await bulk({
        filter: { tag: "bulk" },
        action: { do: "retarget", find: "https://old.example/", replace: "javascript:" },
      })
    ).body;
    assert.equal(bad.changed, 0);
    assert.match(bad.refused[0].message, /javascript/);
  });

  test("tags, switching and deleting, each undone; what somebody changed since is left and named", async () => {
    const [one, two] = await ids();
    const tagged = (await bulk({ ids: [one, two], action: { do: "tag", tag: "spring" } })).body;
    assert.equal(tagged.changed, 2);
    assert.equal(
      (await bulk({ ids: [one], action: { do: "tag", tag: "spring" } })).body.changed,
      0,
      "it has it already",
    );
    const [first] = await list("tag=spring&sort=address");
    await garden.call("PATCH", `${ROUTES}/${one}`, { version: first!.version, title: "Mine" });
    const undone = (await garden.call("POST", `${ROUTES}/bulk/${tagged.batch}/undo`)).body;
    assert.deepEqual(undone, { restored: 1, left: ["/bulk/1"] });
    const off = (await bulk({ filter: { tag: "bulk" }, action: { do: "switch", on: false } })).body;
    assert.equal((await list("tag=bulk&state=off")).length, off.changed);
    await garden.call("POST", `${ROUTES}/bulk/${off.batch}/undo`);
    assert.equal((await list("tag=bulk&state=off")).length, 0);
    const gone = (await bulk({ filter: { tag: "bulk" }, action: { do: "delete" } })).body;
    assert.equal((await list("tag=bulk")).length, 0);
    await make({ kind: "redirect", address: "/bulk/2", destination: "/x" });
    assert.equal(
      (await garden.call("POST", `${ROUTES}/bulk/${gone.batch}/undo`)).status,
      409,
      "an address was given away",
    );
  });

  test("what search engines are told, of all short links; and put back", async () => {
    const made = [];
    for (const robots of [{}, { noindex: true }, { nofollow: true }])
      made.push(
        await make({
          kind: "short",
          address: `/robots/${made.length}`,
          destination: `https://r.example/${made.length}`,
          tags: ["robots"],
          robots,
        }),
      );
    const told = async () =>
      (await list("tag=robots&sort=address")).map(({ robots }) =>
        Object.values(robots as { noindex: boolean; nofollow: boolean }),
      );
    const before = await told();
    const filter = { kind: "short", tag: "robots" };
    const action = { do: "robots", noindex: true };
    const tried = (await bulk({ filter, action, dryRun: true })).body;
    assert.deepEqual(
      tried.samples.map(({ before: was, after: is }: { before: string; after: string }) => [was, is]),
      [
        ["nothing", "noindex"],
        ["nofollow", "noindex, nofollow"],
      ],
    );
    const done = (await bulk({ filter, action })).body;
    assert.deepEqual([done.changed, done.refused], [2, []]);
    assert.deepEqual(await told(), [
      [true, false],
      [true, false],
      [true, true],
    ]);
    await garden.call("POST", `${ROUTES}/bulk/${done.batch}/undo`);
    assert.deepEqual(await told(), before);
  });

  test("a selection without routes, and one of nobody, are refused in words", async () => {
    assert.equal((await bulk({ action: { do: "delete" } })).status, 422);
    assert.equal((await bulk({ ids: [], action: { do: "delete" } })).status, 422);
    assert.equal((await bulk({ ids: ["1"], action: { do: "paint" } })).status, 422);
  });
});

describe("a list that is shortened", () => {
  test("one short link each: new, existing, the same again, refused", async () => {
    await make({
      kind: "short",
      host: "gdn.example",
      address: "/has-one",
      destination: "https://shop.example/known",
    });
    const text = [
      "https://shop.example/item/red-torch",
      "shop.example/known",
      "https://shop.example/item/red-torch",
      "javascript:alert(1)",
      "https://shop.example/item/lamp lamp-two A second lamp",
    ].join("\n");
    const dry = (await garden.call("POST", `${ROUTES}/shorten`, { text, dryRun: true })).body.lines;
    assert.deepEqual(
      dry.map(({ state }: { state: string }) => state),
      ["new", "existing", "existing", "refused", "new"],
    );
    assert.equal((await list("q=lamp-two")).length, 0);
    const { lines } = (await garden.call("POST", `${ROUTES}/shorten`, { text, tags: ["list"] })).body;
    assert.equal(lines[4].route.url, "https://gdn.example/lamp-two");
    assert.equal(lines[1].address, "/has-one");
    assert.equal((await list("tag=list")).length, 2);
    const again = (await garden.call("POST", `${ROUTES}/shorten`, { text, dryRun: true })).body.lines;
    assert.ok(again.every(({ state }: { state: string }) => state !== "new"));
  });
});

describe("the list of routes", () => {
  test("is narrowed by state, match, use and health; facets say what is there", async () => {
    await make({ kind: "redirect", address: "/later", destination: "/x", validFrom: "2099-01-01T00:00:00Z" });
    await make({ kind: "redirect", address: "/over", destination: "/x", validUntil: "2020-01-01T00:00:00Z" });
    assert.deepEqual(
      (await list("state=waiting")).map(({ address }) => address),
      ["/later"],
    );
    assert.deepEqual(
      (await list("state=ended")).map(({ address }) => address),
      ["/over"],
    );
    assert.ok((await list("match=wildcard")).every(({ match }) => match === "wildcard"));
    assert.equal((await list("unused=1")).length, 0, "nothing here is a day old");
    await garden.store.rows(
      "UPDATE routes SET created_at = now() - interval '40 days' WHERE address = '/over'",
    );
    assert.deepEqual(
      (await list("unused=30")).map(({ address }) => address),
      ["/over"],
    );
    assert.equal((await list("health=bad")).length, 0);
    const facets = (await garden.call("GET", `${ROUTES}/facets`)).body;
    assert.ok(facets.tags.some(({ tag }: { tag: string }) => tag === "list"));
    assert.ok(facets.hosts.some(({ host }: { host: string | null }) => host === null));
    assert.equal((await garden.call("GET", `${ROUTES}?state=sleepy`)).status, 400);
  });
});
