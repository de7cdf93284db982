import assert from "node:assert/strict";
import { after, before, describe, test } from "node:test";
import { testDesk, type TestDesk } from "../../../tests/support/desk.ts";
import type { Visit } from "../../outgoing/outgoing.ts";
import { checkNextHealth } from "./route-health.ts";

const ROUTES = "/sites/garden/routes";
const short = { host: "gdn.example" };
let garden: TestDesk;

// A small outside world: what each address answers.
const OUTSIDE: Record<string, Partial<Visit> & { status?: number; location?: string; title?: string }> = {
  "https://shop.example/lamp": { status: 200, title: "A lamp & more" },
  "https://net.example/c?to=lamp&sub=x": { status: 302, location: "https://shop.example/lamp?sub=x" },
  "https://shop.example/lamp?sub=x": { status: 200, title: "A lamp" },
  "https://leak.example/c?sub=x": { status: 302, location: "https://shop.example/lamp" },
  "https://east.example/": { status: 302, location: "https://west.example/" },
  "https://west.example/": { status: 302, location: "https://east.example/" },
  "https://back.example/": { status: 301, location: "https://garden.example/way/back" },
  "https://shop.example/soft": { status: 200, title: "Page not found" },
  "https://shop.example/dead": { status: 404 },
};

before(async () => {
  garden = await testDesk();
  garden.desk.outgoing = {
    read: async () => ({ ok: false, reason: "has no address" }),
    fetch: async () => ({ ok: false, reason: "has no address" }),
    visit: async (address) => {
      const one = OUTSIDE[address];
      return one
        ? { ok: true, status: one.status!, location: one.location ?? null, title: one.title ?? null, ms: 3 }
        : { ok: false, reason: "has no address", ms: 2 };
    },
  };
  await garden.call("POST", "/sites/garden/pages", {
    path: "/lamps",
    title: "Lamps",
    html: "<p>Light</p>",
    publish: true,
  });
  await garden.call("POST", "/sites/garden/pages", {
    path: "/one",
    title: "One",
    html: "<p>1</p>",
    publish: true,
  });
  await make({ kind: "redirect", match: "prefix", address: "/blog", destination: "/notes/$1" });
});
after(async () => {
  await garden.close();
  assert.deepEqual(garden.failures, []);
});

async function make(route: Record<string, unknown>): Promise<Record<string, never>> {
  const made = await garden.call("POST", ROUTES, route);
  assert.equal(made.status, 201, JSON.stringify(made.body));
  return made.body;
}
describe("tracing", () => {
  const trace = async (...addresses: string[]) =>
    (await garden.call("POST", `${ROUTES}/trace`, { addresses })).body.results;

  test("goes hop by hop through our routes and outside, with who answered and what arrived", async () => {
    await make({
      kind: "short",
      ...short,
      address: "/tracked",
      destination: "https://net.example/c?to=lamp&sub=x",
    });
    await make({ kind: "redirect", address: "/way/back", destination: "/lamps" });
    await make({ kind: "redirect", address: "/way/circle", destination: "https://east.example/" });
    await make({ kind: "redirect", address: "/way/out-and-in", destination: "https://back.example/" });
    const [tracked, lost, circle, soft, dead, nobody, page, miss, back, refused] = await trace(
      "https://gdn.example/tracked",
      "https://leak.example/c?sub=x",
      "/way/circle",
      "https://shop.example/soft",
      "https://shop.example/dead",
      "https://nobody.example/",
      "/lamps",
      "/not/there",
      "/way/out-and-in",
      "javascript:1",
    );
    assert.deepEqual(
      tracked.hops.map(({ status, by }: Record<string, unknown>) => `${status} ${by}`),
      ["302 route", "302 outside", "200 outside"],
    );
    assert.deepEqual(
      [tracked.verdict, tracked.end, tracked.hops[0].id !== undefined],
      ["fine", "https://shop.example/lamp?sub=x", true],
    );
    assert.deepEqual([lost.verdict, lost.tracking[0].arrived], ["lost-tracking", false]);
    assert.deepEqual([circle.verdict, circle.end], ["loop", null]);
    assert.deepEqual(
      [soft.verdict, dead.verdict, nobody.verdict, page.verdict],
      ["not-found", "not-found", "unreachable", "fine"],
    );
    assert.deepEqual([miss.verdict, miss.hops[0].by, miss.hops[0].status], ["not-found", "miss", 404]);
    assert.deepEqual(
      back.hops.map(({ by }: { by: string }) => by),
      ["route", "outside", "route", "page"],
    );
    assert.deepEqual([refused.verdict, refused.hops.length], ["refused", 0]);
    assert.match(refused.note, /javascript/);
  });

  test("bad questions are refused in words; outside is left alone when that is asked", async () => {
    const { body } = await garden.call("POST", `${ROUTES}/trace`, {
      addresses: ["https://gdn.example/tracked"],
      outside: false,
    });
    assert.equal(body.results[0].verdict, "not-asked");
    for (const addresses of [[], "x", Array(10_001).fill("/a")])
      assert.equal((await garden.call("POST", `${ROUTES}/trace`, { addresses })).status, 422);
  });

  test("destinations are looked at in turn, and a dead one is known in list, linter and before saving", async () => {
    await make({ kind: "redirect", address: "/way/dead", destination: "https://shop.example/dead" });
    while ((await checkNextHealth(garden.desk, new AbortController().signal)) > 0);
    const { items } = (await garden.call("GET", `${ROUTES}?health=dead`)).body;
    const notes = new Map(
      items.map(({ address, health }: { address: string; health: { note: string } }) => [
        address,
        health.note,
      ]),
    );
    assert.equal(notes.get("/way/dead"), "ends at “not found”");
    assert.ok(!notes.has("/way/out-and-in") && !notes.has("/tracked"));
    const { findings } = (await garden.call("GET", `${ROUTES}/lint`)).body;
    assert.ok(
      findings.some(
        ({ code, message }: Record<string, string>) =>
          code === "answers-badly" && message!.startsWith("/way/dead"),
      ),
    );
    const check = await garden.call("POST", `${ROUTES}/check`, {
      kind: "redirect",
      address: "/way/dead2",
      destination: "https://shop.example/dead",
    });
    assert.ok(check.body.advice.some(({ code }: { code: string }) => code === "answers-badly"));
    assert.equal(
      (await garden.call("POST", `${ROUTES}/title`, { address: "https://shop.example/lamp" })).body.title,
      "A lamp & more",
    );
  });
});

describe("before a route is saved", () => {
  const tried = async (draft: object, ...tries: string[]) =>
    (await garden.call("POST", `${ROUTES}/try`, { ...draft, tries })).body;

  test("a list of addresses shows where each would end", async () => {
    const { results } = await tried(
      { match: "wildcard", address: "/try/*", destination: "/$1" },
      "/try/lamps",
      "/try/none",
      "/try/one",
      "/other",
      "https://gdn.example/try/x",
    );
    assert.deepEqual(
      results.map(({ answered, end, note }: Record<string, unknown>) => [answered, end, note]),
      [
        [true, "https://garden.example/lamps", "the page “Lamps”"],
        [true, "https://garden.example/none", "nothing answers it"],
        [true, "https://garden.example/one", "the page “One”"],
        [false, "https://garden.example/other", "nothing answers it"],
        [true, "https://garden.example/x", "nothing answers it"],
      ],
    );
    const round = await tried({ match: "prefix", address: "/ring", destination: "/ring/x/$1" }, "/ring/a");
    assert.match(round.results[0].note, /too many hops|circle/);
    assert.equal(
      (await garden.call("POST", `${ROUTES}/try`, { match: "pattern", address: "/(", tries: ["/a"] })).status,
      422,
    );
  });

  test("circles through patterns and other hosts, and what stands before, are told", async () => {
    const refused: readonly object[] = [
      { match: "wildcard", address: "/r/*", destination: "/r/x/$1" },
      { match: "pattern", address: "/p/(\\d+)", destination: "/p/1$1" },
      { match: "prefix", address: "/q", destination: "https://gdn.example/q/$1" },
      { match: "prefix", address: "/", destination: "/$1" },
    ];
    for (const draft of refused) {
      const { status, body } = await garden.call("POST", ROUTES, { kind: "redirect", ...draft });
      assert.equal(status, 422, JSON.stringify(draft));
      assert.match(body.detail, /circle/);
    }
    const shadowed = await make({
      kind: "redirect",
      match: "pattern",
      address: "/blog(?:/.*)?",
      destination: "/lamps",
    });
    assert.ok(
      (shadowed.advice as { code: string }[] | undefined)?.some(({ code }) => code === "shadowed"),
      JSON.stringify(shadowed.advice),
    );
  });

  test("an address is checked on every host, said aloud, and its misspellings offered when they are free", async () => {
    await make({ kind: "redirect", address: "/glass-lamp", destination: "/lamps", host: "garden.example" });
    const { body } = await garden.call("POST", `${ROUTES}/check`, {
      kind: "short",
      ...short,
      address: "/glass-lamp",
      destination: "https://shop.example/g",
    });
    assert.deepEqual(body.hosts, [
      { host: "garden.example", free: false, takenBy: "leads to /lamps" },
      { host: "gdn.example", free: true, takenBy: null },
    ]);
    assert.equal(body.spoken, "G D N dot example slash glass hyphen lamp");
    assert.ok(body.mistypings.some(({ address }: { address: string }) => address === "/glasslamp"));
    assert.ok(body.suggestions.length >= 1);
  });
});
