import assert from "node:assert/strict";
import { after, before, test } from "node:test";
import type { Fetched } from "../../outgoing/fetching.ts";
import { DEMO_RULES } from "../../../demo/rules.ts";
import { paidElsewhere } from "../../store/origin/read-pages.ts";
import { beginDueReadings } from "./reading-jobs.ts";
import { until } from "../../../tests/support/ask.ts";
import { testDesk, type TestDesk } from "../../../tests/support/desk.ts";

interface Page {
  status?: number;
  headers?: Record<string, string>;
  body?: string;
}

const MENU = `<nav><ul><li><a href="/">Start</a></li><li><a href="/boats/">Boats</a></li><li><a href="/tides/">Tides</a></li></ul></nav>`;
const FOOT = `<footer><p>Kept by the <a href="https://harbour.example/partner" rel="sponsored">harbour office</a>.</p></footer>`;

function html(title: string, text: string, head = ""): Page {
  const body = `<!doctype html><html lang="en"><head><title>${title}</title>${head}</head><body>${MENU}<main><h1>${title}</h1>${text}</main>${FOOT}</body></html>`;
  return { headers: { "content-type": "text/html; charset=utf-8", etag: `"${title} ${text.length}"` }, body };
}

const ORIGIN = "https://garden.example";
const outside: Record<string, Page> = {
  "/robots.txt": {
    headers: { "content-type": "text/plain" },
    body: `User-agent: *\nDisallow: /private/\nSitemap: ${ORIGIN}/maps.xml\n`,
  },
  "/maps.xml": {
    body: `<sitemapindex><sitemap><loc>${ORIGIN}/maps.xml</loc></sitemap><sitemap><loc>${ORIGIN}/map-1.xml</loc></sitemap></sitemapindex>`,
  },
  "/map-1.xml": {
    body: `<urlset>${["/", "/boats/dinghy", "/boats/punt", "/tides/spring", "/tides/neap"].map((path) => `<url><loc>${ORIGIN}${path}</loc></url>`).join("")}</urlset>`,
  },
  "/": html(
    "Saltmarsh",
    `<p>Read of <a href="/boats/dinghy">the dinghy</a> or <a href="/old">what was</a>.</p>`,
  ),
  "/boats/": html(
    "Boats",
    `<p><a href="dinghy">Dinghy</a> and <a href="/boats/punt">punt</a>, not <a href="/private/log">the log</a>.</p>`,
  ),
  "/tides/": html("Tides", `<p><a href="/tides/spring">Spring</a>, <a href="/gone">gone</a></p>`),
  "/boats/dinghy": html(
    "The dinghy",
    `<p>Bought at <a href="https://harbour.example/oars">the harbour</a>; see <a href="/tides/neap" target="_blank">neaps</a>.</p>`,
  ),
  "/boats/punt": html("The punt", `<p>See <a href="/boats/dinghy?session_id=3f">the dinghy</a>.</p>`),
  "/tides/spring": html("Spring tides", `<p>High.</p>`, `<link rel="canonical" href="/tides/springs">`),
  "/tides/springs": html("Spring tides", `<p>High, twice a month.</p>`),
  "/tides/neap": html("Neaps", `<p>Low.</p>`, `<meta name="robots" content="noindex">`),
  "/old": { status: 301, headers: { location: "/boats/punt" } },
  "/gone": { status: 404 },
};

// An index that names itself and five hundred others; all of them name more than anybody reads.
const VAST = "https://vast.example";
function vast(path: string): Page | undefined {
  const list = (root: string, each: string, many: number, of: (at: number) => string): Page => ({
    body: `<${root}>${Array.from({ length: many }, (_, at) => `<${each}><loc>${VAST}${of(at)}</loc></${each}>`).join("")}</${root}>`,
  });
  if (path === "/sitemap.xml")
    return list("sitemapindex", "sitemap", 501, (at) => (at === 0 ? path : `/map-${at}.xml`));
  const map = /^\/map-(\d+)\.xml$/.exec(path)?.[1];
  if (map === "1") return list("sitemapindex", "sitemap", 50_000, (at) => `/deeper-${at}.xml`);
  return map === undefined ? undefined : list("urlset", "url", 50_000, (at) => `/part-${map}/${at}`);
}

let garden: TestDesk;
const asked: string[] = [];
before(async () => {
  garden = await testDesk();
  garden.desk.outgoing = {
    ...garden.desk.outgoing,
    fetch: async (address, { headers = {} }): Promise<Fetched> => {
      const url = new URL(address);
      asked.push(`${url.pathname}${url.search}${headers["if-none-match"] ? " again" : ""}`);
      const there = `${url.pathname}${url.search}`;
      const page = url.origin === ORIGIN ? outside[there] : url.origin === VAST ? vast(there) : undefined;
      if (!page) return { ok: true, status: 404, headers: {}, bytes: new Uint8Array() };
      const isSame = page.headers?.etag !== undefined && page.headers.etag === headers["if-none-match"];
      return {
        ok: true,
        status: isSame ? 304 : (page.status ?? 200),
        headers: page.headers ?? {},
        bytes: isSame ? new Uint8Array() : new TextEncoder().encode(page.body ?? ""),
      };
    },
  };
});
after(async () => {
  await garden.close();
  assert.deepEqual(garden.failures, []);
});

async function job(method: string, path: string, body?: unknown) {
  const begun = await garden.call(method, path, body);
  assert.equal(begun.status, 202, JSON.stringify(begun.body));
  for (let turn = 0; turn < 400; turn += 1) {
    const { body: now } = await garden.call("GET", `/jobs/${begun.body.id}`);
    if (now.state !== "running") return now;
    await new Promise((resolve) => setTimeout(resolve, 50));
  }
  throw new Error("it does not end");
}

test("an address is named, looked at, and its pages are read into the ledger", async () => {
  const { status } = await garden.call("PUT", "/sites/garden/origin", {
    address: "garden.example",
    settings: { pauseMs: 0 },
  });
  assert.equal(status, 200);
  const looked = await job("POST", "/sites/garden/origin/look");
  assert.equal(looked.state, "done", JSON.stringify(looked.problem));
  assert.equal(looked.result.robots, "forbids-some");
  assert.deepEqual(looked.result.languages, [{ language: "en", pages: looked.result.languages[0].pages }]);
  assert.deepEqual(looked.result.hosts[0].host, "harbour.example");

  const round = await job("POST", "/sites/garden/origin/round", {});
  assert.deepEqual([round.state, round.result?.ended], ["done", ""], JSON.stringify(round.problem));
  const { body } = await garden.call("GET", "/sites/garden/origin/pages?sort=path&limit=100");
  assert.deepEqual(
    body.items.map(({ path, state, leadsTo }: Record<string, string>) => [path, state, leadsTo]),
    [
      ["/", "read", null],
      ["/boats/", "read", null],
      ["/boats/dinghy", "read", null],
      ["/boats/punt", "read", null],
      ["/gone", "gone", null],
      ["/old", "moved", "/boats/punt"],
      ["/private/log", "forbidden", null],
      ["/tides/", "read", null],
      ["/tides/neap", "hidden", null],
      ["/tides/spring", "elsewhere", "/tides/springs"],
      ["/tides/springs", "read", null],
    ],
  );
});

test("what stands on every page stands once, apart from the text's own links", async () => {
  const { body } = await garden.call("GET", "/sites/garden/links?limit=100");
  const places = body.items.map(({ place, page, anchor, onPages }: Record<string, unknown>) =>
    place === "repeated" ? ["repeated", anchor, onPages] : [place, page, anchor],
  );
  assert.deepEqual(
    places.filter(([place]: string[]) => place === "repeated"),
    [
      ["repeated", "harbour office", 6],
      ["repeated", "Start", 6],
      ["repeated", "Boats", 6],
      ["repeated", "Tides", 6],
    ],
  );
  assert.equal(body.items.filter(({ page }: { page: string }) => page === "/boats/dinghy").length, 2);
  const dead = await garden.call("GET", "/sites/garden/links?kind=broken");
  assert.deepEqual(
    dead.body.items.map(({ page, anchor }: Record<string, string>) => [page, anchor]),
    [["/tides/", "gone"]],
  );
  const moved = await garden.call("GET", "/sites/garden/links?finding=redirected");
  assert.deepEqual(
    moved.body.items.map(({ page, anchor }: Record<string, string>) => [page, anchor]),
    [["/", "what was"]],
  );
});

test("reading again asks only for what changed, and a page that is told of is read at once", async () => {
  asked.length = 0;
  await job("POST", "/sites/garden/origin/round", { again: true });
  assert.ok(asked.includes("/boats/dinghy again"), asked.join(", "));
  outside["/boats/punt"] = html(
    "The punt, sold",
    `<p>Sold to <a href="https://elsewhere.example/">others</a>.</p>`,
  );
  await job("POST", "/sites/garden/read", { addresses: [`${ORIGIN}/boats/punt`] });
  const { body } = await garden.call("GET", "/sites/garden/links?page=/boats/punt");
  assert.deepEqual(
    body.items.map(({ anchor }: Record<string, string>) => anchor),
    ["others"],
  );
  const results = await garden.call("GET", "/sites/garden/origin/results");
  assert.deepEqual(results.body.written, { sponsored: 1, ugc: 0, nofollow: 0, plain: 2, newTab: 0 });
});

test("what rules ask is on the list to do there, with its sentence, until it is found done", async () => {
  const { body: set } = await garden.call("GET", "/sites/garden/rules");
  const put = await garden.call("PUT", "/sites/garden/rules", {
    version: set.version,
    rules: [DEMO_RULES[0]],
  });
  assert.equal(put.status, 200, JSON.stringify(put.body));
  const list = async (state = "open") =>
    (await garden.call("GET", `/sites/garden/origin/to-do?state=${state}`)).body;
  const open = await list();
  assert.deepEqual(
    open.items.map(({ page, sentence, beforeHtml, afterHtml }: Record<string, string>) => [
      page,
      sentence,
      beforeHtml,
      afterHtml,
    ]),
    [
      [
        "",
        "Kept by the harbour office.",
        `<a href="https://harbour.example/partner" rel="sponsored">harbour office</a>`,
        `<a href="https://harbour.example/partner" rel="sponsored noopener" target="_blank">harbour office</a>`,
      ],
      [
        "/boats/dinghy",
        "Bought at the harbour; see neaps.",
        `<a href="https://harbour.example/oars">the harbour</a>`,
        `<a href="https://harbour.example/oars" rel="noopener" target="_blank">the harbour</a>`,
      ],
      [
        "/boats/dinghy",
        "Bought at the harbour; see neaps.",
        `<a href="/tides/neap" target="_blank">neaps</a>`,
        `<a href="/tides/neap" rel="noopener" target="_blank">neaps</a>`,
      ],
      [
        "/boats/punt",
        "Sold to others.",
        `<a href="https://elsewhere.example/">others</a>`,
        `<a href="https://elsewhere.example/" rel="noopener" target="_blank">others</a>`,
      ],
    ],
  );
  outside["/boats/punt"] = html(
    "The punt, sold",
    `<p>Sold to <a target="_blank" rel="noopener" href="https://elsewhere.example/">others</a>.</p>`,
  );
  outside["/boats/dinghy"] = html("The dinghy, gone", `<p>No link here.</p>`);
  await job("POST", "/sites/garden/read", { addresses: ["/boats/punt", "/boats/dinghy"] });
  assert.deepEqual((await list()).counts, { open: 1, done: 1, gone: 2 });
  assert.deepEqual(
    (await list("done")).items.map(({ page }: { page: string }) => page),
    ["/boats/punt"],
  );
  const csv = await garden.call("GET", "/sites/garden/origin/to-do/export.csv");
  assert.match(csv.body, /^page,title,on_pages,sentence,words,before,after,why\r\n.*harbour office/s);
});

test("readers get a link as it is there, and what rules ask is told beside it, until it comes through us", async () => {
  const foot = async () =>
    (await garden.call("GET", "/sites/garden/links?place=repeated&q=harbour")).body.items[0];
  const there = await foot();
  assert.deepEqual([there.delivered, there.treatment], [{ rel: ["sponsored"], target: null }, "sponsored"]);
  assert.deepEqual(there.wanted, { rel: ["sponsored", "noopener"], target: "_blank" });
  const through = { comes: "front", passes: "on", only: [] };
  await garden.call("PUT", "/sites/garden/origin/front", through);
  const changed = await foot();
  assert.deepEqual(
    [changed.delivered, changed.wanted],
    [{ rel: ["sponsored", "noopener"], target: "_blank" }, null],
  );
  assert.equal((await garden.call("GET", "/sites/garden/origin/to-do")).body.counts.open, 0);
  await garden.call("PUT", "/sites/garden/origin/front", { ...through, only: ["/boats/"] });
  assert.deepEqual((await foot()).delivered, { rel: ["sponsored"], target: null });
  await garden.call("PUT", "/sites/garden/origin/front", { comes: "read", passes: "untouched", only: [] });
});

test("pages that carry paid links are known, those that tell their readers so themselves are not among them", async () => {
  const paid = async () => (await paidElsewhere(garden.store, { site: garden.site.id })).sort();
  const all = ["/", "/boats", "/boats/dinghy", "/boats/punt", "/tides", "/tides/springs"];
  assert.deepEqual(await paid(), all, "by the paid link at the foot of each");
  const tell = async (disclosure: object): Promise<void> => {
    const { version } = (await garden.call("GET", "/sites/garden")).body;
    assert.equal((await garden.call("PATCH", "/sites/garden", { version, disclosure })).status, 200);
  };
  await tell({ text: "High, twice a month.", place: true });
  await garden.call("GET", "/sites/garden/links");
  assert.deepEqual(await paid(), all.slice(0, -1));
  await tell({ text: "", place: false });
});

test("a change of many puts what stands elsewhere on the list, and its undo takes it off", async () => {
  const action = { do: "host", find: "harbour.example", replace: "quay.example" };
  const dry = await garden.call("POST", "/sites/garden/links/bulk", {
    filter: { place: "repeated" },
    action,
    dryRun: true,
  });
  assert.deepEqual([dry.body.links, dry.body.elsewhere, dry.body.changes[0].place], [0, 1, "repeated"]);
  const { body } = await garden.call("POST", "/sites/garden/links/bulk", {
    filter: { place: "repeated" },
    action,
  });
  const asked = async () =>
    (await garden.call("GET", "/sites/garden/origin/to-do?sort=-madeAt")).body.items.filter(
      ({ after }: { after: { href: string } }) => after.href === "https://quay.example/partner",
    );
  assert.deepEqual(
    (await asked()).map(({ why, onPages }: Record<string, unknown>) => [why, onPages]),
    [["asked for by Ida", 6]],
  );
  await garden.call("POST", `/sites/garden/links/bulk/${body.batch}/undo`);
  assert.deepEqual(await asked(), []);
});

test("reading by itself: what is due is lined up and begun once", async () => {
  await garden.store.rows("UPDATE readings SET next_at = now() WHERE path = '/boats/' RETURNING id");
  assert.equal(await beginDueReadings(garden.desk), 1);
  assert.equal(await beginDueReadings(garden.desk), 0);
  await until("it has ended", async () => {
    const [row] = await garden.store.rows<{ going: number }>(
      "SELECT count(*)::int AS going FROM jobs WHERE state = 'running'",
    );
    return row!.going === 0;
  });
});

test("a robots file that forbids all is kept to: nothing but it is asked for", async () => {
  const { body: before } = outside["/robots.txt"]!;
  outside["/robots.txt"]!.body = "User-agent: MapRope\nDisallow: /\n";
  asked.length = 0;
  const looked = await job("POST", "/sites/garden/origin/look");
  assert.deepEqual([looked.result.robots, asked], ["forbids-all", ["/robots.txt"]]);
  asked.length = 0;
  await job("POST", "/sites/garden/origin/round", { again: true });
  assert.deepEqual(asked, ["/robots.txt"]);
  outside["/robots.txt"] = { status: 503 };
  const round = await job("POST", "/sites/garden/origin/round", {});
  assert.deepEqual([round.state, round.problem.status], ["failed", 409]);
  outside["/robots.txt"] = { body: before! };
  await job("POST", "/sites/garden/origin/round", { again: true });
  assert.ok((await garden.call("GET", "/sites/garden/origin/results")).body.pages > 3);
});

test("what cannot be taken is said at its field", async () => {
  const wrong = await garden.call("PUT", "/sites/garden/origin", { address: "ftp://garden.example" });
  assert.deepEqual([wrong.status, wrong.body.errors[0].path], [422, "address"]);
  const others = await garden.call("POST", "/sites/garden/read", { addresses: ["https://other.example/a"] });
  assert.deepEqual([others.status, others.body.errors[0].path], [422, "addresses.0"]);
});

test("what is left out after it was read is out of the ledger, and comes back with what is chosen", async () => {
  const set = async (settings: object): Promise<void> => {
    const { version } = (await garden.call("GET", "/sites/garden/origin")).body;
    assert.equal((await garden.call("PATCH", "/sites/garden/origin", { version, settings })).status, 200);
  };
  const pages = async (): Promise<number> =>
    (await garden.call("GET", "/sites/garden/origin/results")).body.pages;
  const linksOf = async (path: string): Promise<number> =>
    (await garden.call("GET", `/sites/garden/links?place=read&q=${encodeURIComponent(path)}`)).body.total;
  const all = await pages();
  assert.ok((await linksOf("/tides")) > 0);
  for (const settings of [{ leaveOut: ["/tides/"] }, { leaveOut: [], parts: ["boats"] }]) {
    await set(settings);
    asked.length = 0;
    await job("POST", "/sites/garden/origin/round", { again: true });
    assert.equal(
      asked.some((path) => path.startsWith("/tides")),
      false,
      asked.join(),
    );
    assert.ok(asked.some((path) => path.startsWith("/boats")));
    const { items } = (await garden.call("GET", "/sites/garden/origin/pages?q=/tides")).body;
    assert.ok(items.length >= 2);
    for (const { path, state, pageId } of items) assert.deepEqual([state, pageId], ["found", null], path);
    assert.equal(await linksOf("/tides"), 0);
    const told = await job("POST", "/sites/garden/read", { addresses: ["/tides/", "/boats/"] });
    assert.equal(told.result.ended, "1 of these 2 are left out by what is to be read.");
    assert.equal(asked.includes("/tides/"), false);
  }
  await set({ parts: [] });
  await job("POST", "/sites/garden/origin/round", {});
  assert.equal(await pages(), all);
});

test("what is read is changed over the version that was read; written here again, all of it is forgotten", async () => {
  const { body: origin } = await garden.call("GET", "/sites/garden/origin");
  const change = { settings: { leaveOut: ["/tides/"], pauseMs: 250 }, version: origin.version };
  const changed = await garden.call("PATCH", "/sites/garden/origin", change);
  assert.deepEqual([changed.status, changed.body.settings.leaveOut], [200, ["/tides/"]]);
  assert.equal((await garden.call("PATCH", "/sites/garden/origin", change)).status, 409);
  const wrong = await garden.call("PATCH", "/sites/garden/origin", {
    settings: { leaveOut: ["tides"] },
    version: 2,
  });
  assert.deepEqual([wrong.status, wrong.body.errors[0].path], [422, "settings.leaveOut.0"]);
  assert.equal((await garden.call("DELETE", "/sites/garden/origin")).status, 204);
  assert.equal((await garden.call("GET", "/sites/garden/origin")).status, 404);
  assert.equal((await garden.call("GET", "/sites/garden/links")).body.total, 0);
});

test("of an index that names itself and millions of addresses, some are kept and the rest is counted", async () => {
  await garden.call("PUT", "/sites/garden/origin", { address: VAST, settings: { pauseMs: 0 } });
  asked.length = 0;
  const looked = await job("POST", "/sites/garden/origin/look");
  assert.equal(looked.state, "done", JSON.stringify(looked.problem));
  assert.deepEqual(
    asked.filter((path) => path.endsWith(".xml")),
    ["/sitemap.xml", "/map-1.xml", "/map-2.xml", "/map-3.xml"],
  );
  const { pages, parts, documentsLeft } = looked.result;
  assert.equal(pages, 100_001);
  assert.deepEqual(parts.map(({ part }: { part: string }) => part).sort(), ["", "part-2", "part-3"]);
  assert.equal(documentsLeft, 496 + 50_001);
});
