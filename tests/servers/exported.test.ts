import assert from "node:assert/strict";
import { after, before, describe, test } from "node:test";
import { ask, until } from "../support/ask.ts";
import { testDelivery, type TestDelivery } from "../support/delivery.ts";
import { testDesk, type TestDesk } from "../support/desk.ts";
import { startApache, startNginx, type WebServer } from "../support/web-servers.ts";

const PRIMARY = "garden.example";
const SHORT = "gdn.example";

// One of everything that an export can say, and some that it must leave out.
const ROUTES: readonly Record<string, unknown>[] = [
  { kind: "redirect", address: "/old", destination: "/new" },
  { kind: "redirect", address: "/Old-Caps", destination: "/caps" },
  { kind: "redirect", address: "/both", destination: "/lower" },
  { kind: "redirect", address: "/Both", destination: "/upper" },
  { kind: "redirect", address: "/", host: SHORT, destination: "/front" },
  { kind: "redirect", address: "/see-other", destination: "https://shop.example/303", status: 303 },
  { kind: "redirect", address: "/kept", destination: "https://shop.example/307", status: 307 },
  { kind: "redirect", address: "/moved", destination: "https://shop.example/308", status: 308 },
  { kind: "gone", address: "/gone" },
  { kind: "gone", address: "/hidden", robots: { noindex: true } },
  { kind: "redirect", address: "/caf%C3%A9", destination: "/coffee" },
  { kind: "redirect", address: "/a~b", destination: "/tilde" },
  { kind: "redirect", address: "/dots/x.y", destination: "/dotted" },
  { kind: "redirect", address: "/star*", destination: "/a-star" },
  { kind: "redirect", address: "/with+(signs)!", destination: "https://shop.example/a$b%25c?x=$&y=%3D#end" },
  { kind: "redirect", address: "/forward", destination: "https://shop.example/f", query: "forward" },
  {
    kind: "redirect",
    address: "/forward-own",
    destination: "https://shop.example/f?own=1",
    query: "forward",
  },
  { kind: "redirect", address: "/merge", destination: "https://shop.example/m", query: "merge" },
  { kind: "redirect", address: "/fixed", destination: "https://shop.example/p", parameters: "from=booklet" },
  {
    kind: "redirect",
    address: "/robots",
    destination: "https://shop.example/r",
    robots: { noindex: true, nofollow: true },
  },
  { kind: "redirect", address: "/off", destination: "/nowhere", enabled: false },
  { kind: "redirect", address: "/scheduled", destination: "/x", validUntil: "2099-01-01T00:00:00Z" },
  {
    kind: "short",
    host: SHORT,
    address: "/dob",
    destination: "https://shop.example/dob?partner=GDN-1",
    aliases: ["/dobs", "/eight-inch"],
  },
  { kind: "short", host: SHORT, address: "/to-page", destination: "/lamps" },
  {
    kind: "short",
    address: "/everywhere",
    destination: "https://shop.example/all",
    robots: { nofollow: true },
  },
  { kind: "redirect", match: "prefix", address: "/blog", destination: "/notes/$1" },
  {
    kind: "redirect",
    match: "prefix",
    address: "/blog/2019",
    destination: "https://archive.example/$1",
    query: "forward",
  },
  {
    kind: "redirect",
    match: "wildcard",
    address: "/shop/*/item-*",
    destination: "https://shop.example/$2?in=$1",
  },
  { kind: "redirect", match: "wildcard", address: "/*.html", destination: "/$1" },
  {
    kind: "redirect",
    match: "pattern",
    address: "/(\\d{4})/(\\d\\d)/([^/]+)",
    destination: "/notes/$3-$1$2",
  },
  {
    kind: "redirect",
    match: "pattern",
    address: "/tag/(?:en|de)/(.*)",
    destination: "https://shop.example/t/$1",
    status: 302,
  },
  {
    kind: "short",
    host: SHORT,
    match: "wildcard",
    address: "/go/*",
    destination: "https://shop.example/go/$1",
  },
  { kind: "gone", match: "prefix", address: "/forum" },
];

const PATHS = [
  "/",
  "/old",
  "/old/",
  "/old//",
  "/OLD",
  "/Old-Caps",
  "/old-caps",
  "/both",
  "/Both",
  "/BOTH",
  "/see-other",
  "/kept",
  "/moved",
  "/KEPT",
  "/Moved",
  "/See-Other",
  "/GONE",
  "/Forward",
  "/ROBOTS",
  "/Fixed",
  "/A~b",
  "/Hidden",
  "/Dots/x.y",
  "/STAR*",
  "/gone",
  "/gone/",
  "/hidden",
  "/caf%C3%A9",
  "/caf%c3%a9",
  "/cafe",
  "/a~b",
  "/a%7Eb",
  "/a%7eb",
  "/%61~b",
  "/dots/x.y",
  "/dots/xzy",
  "/dots/./x.y",
  "/x/../old",
  "/star*",
  "/star%2A",
  "/starx",
  "/with+(signs)!",
  "/with+(signs)%21",
  "/forward",
  "/forward-own",
  "/merge",
  "/fixed",
  "/robots",
  "/off",
  "/dob",
  "/DOB",
  "/Dob/",
  "/dobs",
  "/eight-inch",
  "/dob-x",
  "/to-page",
  "/everywhere",
  "/EVERYWHERE",
  "/blog",
  "/blog/",
  "/blog/a/b",
  "/blogs",
  "/blog/caf%C3%A9",
  "/blog/a%20b",
  "/blog/2019",
  "/blog/2019/x",
  "/blog/2019x",
  "/blog/..",
  "/blog/%0d%0aX-Evil:%201",
  "/shop/a/item-7",
  "/shop/a/b/item-7/c",
  "/shop/item-7",
  "/page.html",
  "/deep/page.html",
  "/page.htmlx",
  "/.html",
  "/2019/04/first-night",
  "/2019/4/first-night",
  "/2019/04/a/b",
  "/tag/en/x",
  "/tag/fr/x",
  "/tag/de/x/y",
  "/tag/en/x?y=1",
  "/go/x",
  "/GO/Mixed",
  "/go",
  "/forum",
  "/forum/t/1",
  "/forums",
  "/nothing/here",
  "/lamps.html",
  "/%E0%A4%A",
  "/old;x=1",
  "/old%20",
  "/o%6Cd",
];
const QUERIES = ["", "?a=1", "?own=2&b=%20x", "?", "??x=1", "?&x=1"];

interface Answer {
  status: number;
  location: string;
  robots: string;
  cache: string;
}

describe("an exported configuration answers what Map Rope answers", () => {
  let garden: TestDesk;
  let delivery: TestDelivery;
  const servers: Record<string, WebServer> = {};
  const exported: Record<string, string> = {};

  before(async () => {
    garden = await testDesk();
    for (const route of ROUTES) {
      const made = await garden.call("POST", "/sites/garden/routes", route);
      assert.equal(made.status, 201, JSON.stringify(made.body));
    }
    await garden.call("POST", "/sites/garden/pages", {
      path: "/lamps.html",
      title: "Lamps",
      html: "<p>Light</p>",
      publish: true,
    });
    delivery = await testDelivery(garden.url);
    const conf = (format: "nginx" | "apache") => async (port: number) =>
      (exported[format] = String(
        (await garden.call("GET", `/sites/garden/routes/export?format=${format}&listen=${port}`)).body,
      ));
    [servers.nginx, servers.apache] = await Promise.all([
      startNginx(conf("nginx")),
      startApache(conf("apache")),
    ]);
  });
  after(async () => {
    await Promise.all(Object.values(servers).map((server) => server.stop()));
    await delivery.end();
    await garden.close();
  });

  async function answerOf(port: number, host: string, path: string, method = "GET"): Promise<Answer> {
    const { status, headers } = await ask(port, path, { host: `${host}:${port}`, method });
    // A server may write the host of a path of its own out in full.
    const location = headers.location ? new URL(headers.location, `http://${host}:${port}/`).href : "";
    const own = location.replace(`http://${host}:${port}/`, `http://${host}/`);
    return {
      status,
      location: own,
      robots: String(headers["x-robots-tag"] ?? ""),
      cache: String(headers["cache-control"] ?? ""),
    };
  }

  for (const server of ["nginx", "apache"] as const) {
    test(`${server}, on ${PATHS.length * QUERIES.length * 2} requests`, async () => {
      const different: string[] = [];
      for (const host of [PRIMARY, SHORT])
        for (const path of PATHS)
          for (const query of QUERIES) {
            const [ours, theirs] = await Promise.all([
              answerOf(delivery.port, host, path + query),
              answerOf(servers[server]!.port, host, path + query),
            ]);
            // What no route answers is the site's own there: a page, a 404, or a refusal of what is no address.
            if (
              (ours.status === 404 || ours.status === 200) &&
              theirs.location === "" &&
              theirs.status !== 410
            )
              continue;
            // A path with lower-case escapes meets no pattern there, as the file says.
            if (/%[0-9A-F]?[a-f]/.test(path) && theirs.status >= 400) continue;
            if (!same(ours, theirs))
              different.push(`${host}${path}${query}: ${told(ours)}, ${server} ${told(theirs)}`);
          }
      assert.deepEqual(different, []);
    });

    test(`${server} answers HEAD as GET, and no other method`, async () => {
      const { port } = servers[server]!;
      assert.deepEqual(await answerOf(port, PRIMARY, "/old", "HEAD"), await answerOf(port, PRIMARY, "/old"));
      assert.equal((await answerOf(port, PRIMARY, "/old", "POST")).status, 405);
    });

    test(`${server}'s configuration names what it leaves out`, () => {
      assert.match(
        exported[server]!,
        /# Left out: \/scheduled: a schedule needs somebody who looks at the clock\./,
      );
      assert.doesNotMatch(exported[server]!, /nowhere/);
    });
  }

  test("the answers compared are many, and of every kind", async () => {
    const seen = new Set<number>();
    for (const path of PATHS) seen.add((await answerOf(delivery.port, PRIMARY, path)).status);
    assert.deepEqual([...seen].sort(), [200, 301, 302, 303, 307, 308, 404, 410]);
    await until("its clicks are copied", async () => (await delivery.health()).pendingClicks === 0);
  });
});

function same(ours: Answer, theirs: Answer): boolean {
  return told(ours) === told(theirs);
}

function told({ status, location, robots, cache }: Answer): string {
  return [status, location, robots, cache].join(" ");
}
