import assert from "node:assert/strict";
import {
  createServer,
  request as httpRequest,
  type IncomingMessage,
  type Server,
  type ServerResponse,
} from "node:http";
import { connect, type AddressInfo } from "node:net";
import { after, before, describe, test } from "node:test";
import { brotliCompressSync, brotliDecompressSync, gunzipSync, gzipSync } from "node:zlib";
import type { Fetched } from "../../outgoing/fetching.ts";
import { ask, until } from "../../../tests/support/ask.ts";
import { testDelivery, type TestDelivery } from "../../../tests/support/delivery.ts";
import { NOBODY_OUTSIDE, testDesk, type TestDesk } from "../../../tests/support/desk.ts";
import { DEMO_RULES } from "../../../demo/rules.ts";

const PAGE = `<!doctype html><html><head><title>Tides</title></head><body><p>See <a href="https://x.example/a">outside</a>, <a href='/in'>inside</a> é.</p></body></html>`;
const CHANGED = PAGE.replace(
  `<a href="https://x.example/a">`,
  `<a href="https://x.example/a" rel="noopener" target="_blank">`,
);
const HTML = { "Content-Type": "text/html; charset=utf-8" };

type Answer = (request: IncomingMessage, response: ServerResponse) => void;
const seen: { url: string; headers: string[]; body: string }[] = [];
const ANSWERS: Record<string, Answer> = {
  "/page": (request, response) => {
    if (request.headers["if-none-match"] === `W/"v1"` || request.headers["if-none-match"] === `"v1"`)
      return void response.writeHead(304, { ETag: `"v1"` }).end();
    response
      .writeHead(200, {
        ...HTML,
        ETag: `"v1"`,
        "Last-Modified": "Mon, 04 May 2026 10:00:00 GMT",
        "Content-Length": Buffer.byteLength(PAGE),
        "Accept-Ranges": "bytes",
        "Content-Digest": "sha-256=:AA=:",
      })
      .end(PAGE);
  },
  "/gzip": (_request, response) =>
    response.writeHead(200, { ...HTML, "Content-Encoding": "gzip" }).end(gzipSync(PAGE)),
  "/br": (_request, response) =>
    response.writeHead(200, { ...HTML, "Content-Encoding": "br" }).end(brotliCompressSync(PAGE)),
  "/not-gzip": (_request, response) =>
    response.writeHead(200, { ...HTML, "Content-Encoding": "gzip" }).end(PAGE),
  "/cut-gzip": (_request, response) =>
    response
      .writeHead(200, { ...HTML, "Content-Encoding": "gzip" })
      .end(gzipSync(PAGE.repeat(50)).subarray(0, 60)),
  "/no-transform": (_request, response) =>
    response.writeHead(200, { ...HTML, "Cache-Control": "public, no-transform" }).end(PAGE),
  "/text": (_request, response) => response.writeHead(200, { "Content-Type": "text/plain" }).end(PAGE),
  "/picture": (_request, response) =>
    response.writeHead(200, { "Content-Type": "image/png" }).end(Buffer.from([0x89, 0, 255, 1])),
  "/two-types": (_request, response) =>
    response.writeHead(200, ["Content-Type", "text/html", "Content-Type", "text/plain"]).end(PAGE),
  "/latin1": (_request, response) =>
    response
      .writeHead(200, { "Content-Type": "text/html; charset=windows-1252" })
      .end(Buffer.from(PAGE, "latin1")),
  "/utf-16": (_request, response) =>
    response
      .writeHead(200, { "Content-Type": "text/html; charset=utf-16le" })
      .end(Buffer.from(PAGE, "utf16le")),
  "/slow-pieces": (_request, response) => {
    response.writeHead(200, HTML);
    const pieces = PAGE.match(/.{1,7}/gsu)!;
    const next = (): void => {
      const piece = pieces.shift();
      if (piece === undefined) return void response.end();
      response.write(piece);
      setImmediate(next);
    };
    next();
  },
  "/echo": (_request, response) =>
    response.writeHead(200, { "Content-Type": "text/plain" }).end(seen.at(-1)!.body),
  "/trailers": (_request, response) => {
    response.writeHead(200, { "Content-Type": "text/plain", Trailer: "X-End" });
    response.write("a");
    response.addTrailers({ "X-End": "yes" });
    response.end();
  },
  "/hints": (_request, response) => {
    response.writeEarlyHints({ link: "</a.css>; rel=preload; as=style" });
    response.writeHead(200, { "Content-Type": "text/plain" }).end("after");
  },
  "/drops": (request) => request.socket.destroy(),
  "/half": (request, response) => {
    response.writeHead(200, { "Content-Type": "text/plain", "Content-Length": "100" });
    response.write("half");
    setTimeout(() => request.socket.destroy(), 30);
  },
  "/long-fields": (_request, response) => response.writeHead(200, { "X-Long": "a".repeat(200_000) }).end("x"),
  "/fields": (_request, response) =>
    response
      .writeHead(200, [
        "Content-Type",
        "text/plain",
        "Set-Cookie",
        "a=1",
        "Set-Cookie",
        "b=2; Path=/",
        "X-Odd",
        "é".normalize(),
        "Keep-Alive",
        "timeout=9",
        "Connection",
        "X-Mine, keep-alive",
        "X-Mine",
        "1",
      ])
      .end("f"),
  "/blog/reviews/lamp": (_request, response) => response.writeHead(200, HTML).end(PAGE),
  "/reviews/lamp": (_request, response) => response.writeHead(200, HTML).end(PAGE),
  "/away": (_request, response) =>
    response.writeHead(302, { Location: "https://x.example/?a=1&b=%20" }).end(),
};

let garden: TestDesk;
let delivery: TestDelivery;
let origin: Server;
before(async () => {
  garden = await testDesk();
  await garden.call("PUT", "/sites/garden/rules", { version: 0, rules: [DEMO_RULES[0]] });
  origin = createServer((request, response) => {
    const chunks: Buffer[] = [];
    request.on("data", (chunk: Buffer) => chunks.push(chunk));
    request.on("end", () => {
      seen.push({ url: request.url!, headers: request.rawHeaders, body: Buffer.concat(chunks).toString() });
      const answer = ANSWERS[request.url!.replace(/\?.*/, "")];
      if (answer) answer(request, response);
      else response.writeHead(404, HTML).end("<p>The origin has nothing there.");
    });
  });
  origin.on("upgrade", (request, socket) => {
    if (request.url !== "/socket")
      return void socket.end("HTTP/1.1 403 Forbidden\r\nContent-Length: 2\r\n\r\nno");
    socket.write("HTTP/1.1 101 Switching Protocols\r\nUpgrade: echo\r\nConnection: Upgrade\r\n\r\n");
    socket.pipe(socket);
  });
  await new Promise<void>((resolve) => origin.listen(0, "127.0.0.1", resolve));
  const { port } = origin.address() as AddressInfo;
  await garden.call("PUT", "/sites/garden/origin", { address: `http://origin.example:${port}/` });
  // As a reading would have found them; of all but one nothing is there any more.
  const read = ["/guides/lichens", "/plain/lichens", "/heron/old", "/plover/one", "/plover/ona", "/page"];
  await garden.store.rows(
    `INSERT INTO pages (site_id, kind, path, key, title, description, category, body, html, updated_by, admitted)
     SELECT $site::bigint, 'read', path, path, path, '', '', '{}', '', '', true FROM unnest($read::text[]) AS path RETURNING id`,
    { site: garden.site.id, read },
  );
  delivery = await testDelivery(garden.url, undefined, { judge: async () => "127.0.0.1" });
});
after(async () => {
  await delivery.end();
  origin.closeAllConnections();
  origin.close();
  assert.deepEqual(garden.failures, []);
  await garden.close();
});

async function pass(
  passes: "untouched" | "shadow" | "on",
  only: string[] = [],
  here: string[] = [],
): Promise<void> {
  const front = { comes: "front", passes, only, here };
  const { status } = await garden.call("PUT", "/sites/garden/origin/front", front);
  assert.equal(status, 200);
  await delivery.level();
}

async function setRules(rules: readonly object[]): Promise<void> {
  const { version } = (await garden.call("GET", "/sites/garden/rules")).body;
  assert.equal((await garden.call("PUT", "/sites/garden/rules", { version, rules })).status, 200);
  await delivery.level();
}

/** Asks as it is sent: raw fields, trailers and early hints too. */
function askRaw(
  path: string,
  options: { method?: string; headers?: Record<string, string>; body?: string } = {},
) {
  return new Promise<{ status: number; raw: string[]; bytes: Buffer; trailers: object; hints: unknown }>(
    (resolve, reject) => {
      let hints: unknown;
      const asked = httpRequest(
        {
          host: "127.0.0.1",
          port: delivery.port,
          path,
          method: options.method ?? "GET",
          headers: { Host: "garden.example", ...options.headers },
        },
        (answer) => {
          const chunks: Buffer[] = [];
          answer.on("data", (chunk: Buffer) => chunks.push(chunk));
          answer.on("error", reject);
          answer.on("end", () =>
            resolve({
              status: answer.statusCode!,
              raw: answer.rawHeaders,
              bytes: Buffer.concat(chunks),
              trailers: answer.trailers,
              hints,
            }),
          );
        },
      );
      asked.on("information", (information) => (hints = information.headers));
      asked.on("error", reject);
      asked.end(options.body);
    },
  );
}

describe("on: links are changed on their way, and nothing else", () => {
  before(() => pass("on"));

  test("of a page in one piece and in many, plain and coded, in its own character set", async () => {
    for (const path of ["/page", "/slow-pieces"])
      assert.equal((await ask(delivery.port, path)).body, CHANGED, path);
    assert.equal(gunzipSync((await ask(delivery.port, "/gzip")).bytes).toString(), CHANGED);
    assert.equal(brotliDecompressSync((await ask(delivery.port, "/br")).bytes).toString(), CHANGED);
    assert.deepEqual((await ask(delivery.port, "/latin1")).bytes, Buffer.from(CHANGED, "latin1"));
  });

  for (const path of ["/text", "/no-transform", "/two-types", "/not-gzip"])
    test(`${path} goes on as it is`, async () => assert.equal((await ask(delivery.port, path)).body, PAGE));
  test("so do pictures, and pages whose bytes are not those of ASCII", async () => {
    assert.deepEqual((await ask(delivery.port, "/picture")).bytes, Buffer.from([0x89, 0, 255, 1]));
    assert.deepEqual((await ask(delivery.port, "/utf-16")).bytes, Buffer.from(PAGE, "utf16le"));
  });

  test("what tells of the bytes as they were is gone, the tag is ours, and by it the page is not sent again", async () => {
    const { headers } = await ask(delivery.port, "/page");
    assert.match(String(headers.etag), /^W\/"v1~m[0-9a-z]+"$/);
    for (const name of ["content-length", "accept-ranges", "content-digest", "last-modified"])
      assert.equal(headers[name], undefined, name);
    const again = await ask(delivery.port, "/page", { headers: { "If-None-Match": String(headers.etag) } });
    assert.equal(again.status, 304);
    const other = await ask(delivery.port, "/page", { headers: { "If-None-Match": `W/"v1~mold"` } });
    assert.deepEqual([other.status, other.body], [200, CHANGED]);
  });

  test("its 404 is a miss, with the closest of the addresses that are known; a missing picture stays its", async () => {
    const miss = await ask(delivery.port, "/nothing", { headers: { Accept: "text/html" } });
    assert.equal(miss.status, 404);
    assert.match(miss.body, /<h1>/);
    assert.doesNotMatch(miss.body, /The origin has nothing/);
    const picture = await ask(delivery.port, "/nothing.png", { headers: { "Sec-Fetch-Dest": "image" } });
    assert.match(picture.body, /The origin has nothing/);
  });

  test("an exact route answers before it, and a page of ours", async () => {
    await garden.call("POST", "/sites/garden/routes", {
      kind: "redirect",
      address: "/page",
      destination: "https://y.example/",
    });
    await garden.call("POST", "/sites/garden/pages", {
      path: "/ours",
      title: "Ours",
      html: "<p>Ours</p>",
      publish: true,
    });
    await delivery.level();
    assert.equal((await ask(delivery.port, "/page")).headers.location, "https://y.example/");
    assert.match((await ask(delivery.port, "/ours")).body, /<p>Ours<\/p>/);
    const { body } = await garden.call("GET", "/sites/garden/routes");
    await garden.call("DELETE", `/sites/garden/routes/${body.items[0].id}`);
    await delivery.level();
  });

  test("by path, the rest is only looked at; the team may ask for a page without", async () => {
    await pass("on", ["/slow"]);
    assert.equal((await ask(delivery.port, "/page")).body, PAGE);
    assert.equal((await ask(delivery.port, "/slow-pieces")).body, CHANGED);
    assert.equal((await ask(delivery.port, "/slow-pieces?maprope=untouched")).body, PAGE);
    assert.equal(seen.at(-1)!.url, "/slow-pieces");
    await pass("on");
  });
});

describe("a mixture by path", () => {
  before(async () => {
    const made = await garden.call("POST", "/sites/garden/pages", {
      path: "/guides/fern",
      title: "The fern",
    });
    await garden.call("POST", `/sites/garden/pages/${made.body.id}/publish`, { version: made.body.version });
    await garden.call("POST", "/sites/garden/routes", {
      kind: "redirect",
      address: "/guides/moss",
      destination: "https://y.example/moss",
    });
    await pass("untouched", [], ["/guides/", "/café/"]);
  });
  after(() => pass("on"));

  test("what is written here alone is answered here, and is a miss where it is not", async () => {
    seen.length = 0;
    const page = await ask(delivery.port, "/guides/fern");
    assert.equal(page.status, 200);
    assert.match(page.body, /The fern/);
    assert.equal((await ask(delivery.port, "/guides/moss")).headers.location, "https://y.example/moss");
    for (const path of [
      "/guides/page",
      "/guides",
      "/guides/",
      "/guides/fen",
      "/caf%c3%a9/page",
      "/x/../guides/y",
    ])
      assert.equal((await ask(delivery.port, path)).status, 404, path);
    assert.match((await ask(delivery.port, "/guides/fen")).body, /href="[^"]*\/guides\/fern"/);
    assert.equal((await ask(delivery.port, "/guides/page", { method: "POST" })).status, 405);
    assert.deepEqual(seen, [], "the origin is asked for none of it");
  });
  test("what was read there under such a path is shown to nobody who misses it", async () => {
    const { status, body } = await ask(delivery.port, "/guides/lichens");
    assert.equal(status, 404);
    assert.match(body, /href="[^"]*\/plain\/lichens"/);
    assert.doesNotMatch(body, /href="[^"]*\/guides\/lichens"/);
  });
  test("all else passes", async () => {
    for (const path of ["/page", "/guidesx", "/slow-pieces"]) {
      seen.length = 0;
      await ask(delivery.port, path);
      assert.deepEqual(
        seen.map(({ url }) => url),
        [path],
      );
    }
  });
  test("only a path can be named", async () => {
    const front = { comes: "front", passes: "on", here: ["/fine", "guides"] };
    const { status, body } = await garden.call("PUT", "/sites/garden/origin/front", front);
    assert.equal(status, 422);
    assert.equal(body.errors[0].path, "here.1");
  });
});

describe("where misses are led to the closest address", () => {
  const setMisses = async (answer: string): Promise<void> => {
    const { version } = (await garden.call("GET", "/sites/garden")).body;
    assert.equal((await garden.call("PATCH", "/sites/garden", { version, misses: { answer } })).status, 200);
    await delivery.level();
  };
  before(() => setMisses("closest"));
  after(() => setMisses("help"));

  // The addresses that a reader passes until one leads nowhere.
  async function wayFrom(path: string): Promise<string[]> {
    const way = [path];
    for (;;) {
      const { status, headers, body } = await ask(delivery.port, way.at(-1)!);
      if (headers.location === undefined) {
        assert.equal(status, 404);
        assert.equal(body.includes(`href="${way.at(-1)}"`), false, "nor is it shown");
        return way;
      }
      way.push(new URL(headers.location, "http://garden.example").pathname);
      assert.ok(way.length < 5, way.join(" "));
    }
  }
  test("one that was read and is gone by now is not led to itself", async () => {
    assert.deepEqual(await wayFrom("/heron/old?a=1"), ["/heron/old?a=1", "/heron/old"]);
    assert.deepEqual(await wayFrom("/heron/old"), ["/heron/old"]);
    assert.deepEqual(await wayFrom("/heron/old?a=2"), ["/heron/old?a=2"]);
  });
  test("two that are both gone do not lead round in a circle", async () => {
    assert.deepEqual(await wayFrom("/plover/one"), ["/plover/one", "/plover/ona"]);
    assert.deepEqual(await wayFrom("/plover/ona"), ["/plover/ona"]);
    assert.deepEqual(await wayFrom("/plover/one"), ["/plover/one"]);
  });
  test("one that is there is led to", async () => {
    assert.match((await ask(delivery.port, "/pagee")).headers.location!, /\/page$/);
  });
});

describe("an origin beneath a path", () => {
  const port = (): number => (origin.address() as AddressInfo).port;
  before(async () => {
    await garden.call("PUT", "/sites/garden/origin", { address: `http://origin.example:${port()}/blog/` });
    const reviews = { name: "Reviews", match: { categories: ["reviews"] }, set: { ugc: "on" } };
    await setRules([DEMO_RULES[0]!, reviews]);
  });
  after(async () => {
    await garden.call("PUT", "/sites/garden/origin", { address: `http://origin.example:${port()}/` });
    await setRules([DEMO_RULES[0]!]);
  });

  test("its parts are those beneath that path, for rules as in the ledger", async () => {
    assert.match((await ask(delivery.port, "/blog/reviews/lamp")).body, /rel="ugc noopener"/);
    assert.doesNotMatch((await ask(delivery.port, "/reviews/lamp")).body, /ugc/);
  });
});

describe("as a shadow", () => {
  test("everything passes untouched while it is counted what would change", async () => {
    await pass("shadow");
    for (const path of ["/page", "/gzip"]) {
      const { headers, bytes } = await ask(delivery.port, path);
      assert.equal((path === "/gzip" ? gunzipSync(bytes) : bytes).toString(), PAGE);
      if (path === "/page")
        assert.deepEqual(
          [headers.etag, headers["content-length"]],
          [`"v1"`, String(Buffer.byteLength(PAGE))],
        );
    }
    const found = await until("it is counted", async () => {
      const { body } = await garden.call("GET", "/sites/garden/origin/front");
      return body.samples.length >= 2 ? body : undefined;
    });
    const sample = found.samples.find(({ page }: { page: string }) => page === "/gzip");
    assert.deepEqual([sample.words, sample.before.target, sample.after.target], ["outside", null, "_blank"]);
  });
  test("the team may ask for a page as it would be, with what else is asked for", async () => {
    for (const query of ["?maprope=changed", "?a=1&maprope=changed", "?maprope=changed&a=1"])
      assert.equal((await ask(delivery.port, `/slow-pieces${query}`)).body, CHANGED, query);
    assert.equal((await ask(delivery.port, "/slow-pieces?maprope=else")).body, PAGE);
  });
});

describe("as a proxy must", () => {
  before(() => pass("untouched"));

  test("fields of the connection stay there, all others go on in their order", async () => {
    const { raw } = await askRaw("/fields");
    const names = raw.filter((_, at) => at % 2 === 0);
    assert.deepEqual(
      raw.filter((_, at) => raw[at - 1] === "Set-Cookie"),
      ["a=1", "b=2; Path=/"],
    );
    assert.ok(!names.includes("X-Mine"), names.join());
    assert.ok(raw.includes("X-Odd"));
    assert.match(raw[raw.indexOf("Via") + 1]!, /^1\.1 maprope-/);
  });

  test("who asked is told as one list, and what a reader writes there is not believed", async () => {
    await ask(delivery.port, "/text", {
      headers: { "X-Forwarded-For": "9.9.9.9", Forwarded: "for=9.9.9.9", TE: "trailers", "X-Own": "1" },
    });
    const { headers } = seen.at(-1)!;
    const field = (name: string) =>
      headers[headers.findIndex((one, at) => at % 2 === 0 && one.toLowerCase() === name) + 1];
    assert.equal(field("x-forwarded-for"), "127.0.0.1");
    assert.equal(field("forwarded"), `for=127.0.0.1;host="garden.example";proto=http`);
    assert.equal(field("host"), "garden.example");
    assert.equal(field("x-own"), "1");
    assert.ok(!headers.includes("TE"));
  });

  test("bodies, other methods, trailers, early hints and redirects", async () => {
    const posted = await askRaw("/echo", {
      method: "POST",
      body: "a".repeat(300_000),
      headers: { "Content-Type": "text/plain" },
    });
    assert.equal(posted.bytes.length, 300_000);
    assert.equal((await askRaw("/text", { method: "HEAD" })).bytes.length, 0);
    assert.deepEqual((await askRaw("/trailers")).trailers, { "x-end": "yes" });
    assert.deepEqual((await askRaw("/hints")).hints, { link: "</a.css>; rel=preload; as=style" });
    assert.equal((await ask(delivery.port, "/away")).headers.location, "https://x.example/?a=1&b=%20");
    assert.equal((await askRaw("/nothing", { method: "DELETE" })).status, 404);
  });

  test("another protocol, granted and refused", async () => {
    const talk = (path: string, say: string) =>
      new Promise<string>((resolve, reject) => {
        let told = "";
        const socket = connect(delivery.port, "127.0.0.1", () =>
          socket.write(
            `GET ${path} HTTP/1.1\r\nHost: garden.example\r\nConnection: Upgrade\r\nUpgrade: echo\r\n\r\n`,
          ),
        );
        socket.on("data", (chunk) => {
          told += String(chunk);
          if (told.includes("101") && !told.includes(say)) socket.write(say);
          if (told.includes(say) || told.includes("403")) {
            resolve(told);
            socket.destroy();
          }
        });
        socket.on("error", reject);
      });
    assert.match(await talk("/socket", "hello"), /101 Switching.*hello$/s);
    assert.match(await talk("/other", "hello"), /403 Forbidden/);
  });
});

describe("answers that may be kept", () => {
  let turn = 0;
  let fails = false;
  const kept =
    (cacheControl: string, more: Record<string, string> = {}): Answer =>
    (request, response) => {
      turn += 1;
      if (fails) return void response.writeHead(503, HTML).end("down");
      const tag = `"${cacheControl}"`;
      if (request.headers["if-none-match"] === tag)
        return void response.writeHead(304, { ETag: tag, "Cache-Control": cacheControl }).end();
      response
        .writeHead(200, { ...HTML, "Cache-Control": cacheControl, ETag: tag, ...more })
        .end(`${PAGE}<!-- ${turn} for ${request.headers.cookie ?? "all"} -->`);
    };
  Object.assign(ANSWERS, {
    "/kept": kept("max-age=60"),
    "/kept-public": kept("public, max-age=60"),
    "/kept-private": kept("private, max-age=60"),
    "/kept-cookie": kept("public, max-age=60", { "Set-Cookie": "who=1" }),
    "/kept-unsaid": kept("must-understand"),
    "/kept-vary": kept("max-age=60", { Vary: "Accept-Language" }),
    "/kept-swr": kept("max-age=1, stale-while-revalidate=60"),
    "/kept-sie": kept("max-age=1, stale-if-error=60"),
    "/kept-strict": kept("max-age=1, stale-if-error=60, must-revalidate"),
  });
  const times = (path: string): number => seen.filter(({ url }) => url === path).length;
  before(() => pass("on"));

  test("are asked for once, changed once, and tell their age; a reader who holds one gets nothing", async () => {
    const first = await ask(delivery.port, "/kept");
    const second = await ask(delivery.port, "/kept");
    assert.equal(times("/kept"), 1);
    assert.equal(second.body, first.body);
    assert.match(second.body, /rel="noopener" target="_blank"/);
    assert.deepEqual(
      [second.headers.age, second.headers.etag, first.headers.age],
      ["0", first.headers.etag, undefined],
    );
    assert.equal(second.headers["content-length"], String(second.bytes.length));
    const held = await ask(delivery.port, "/kept", { headers: { "If-None-Match": second.headers.etag! } });
    assert.deepEqual([held.status, held.body, times("/kept")], [304, "", 1]);
    await ask(delivery.port, "/kept", { headers: { "Cache-Control": "no-cache" } });
    assert.equal(times("/kept"), 2, "who wants it new gets it so");
    await ask(delivery.port, "/kept", { method: "POST" });
    const before = times("/kept");
    await ask(delivery.port, "/kept");
    assert.equal(times("/kept"), before + 1, "what somebody may have changed is let go of");
    assert.match(
      (await ask(delivery.port, "/kept?maprope=untouched")).body,
      /<a href="https:\/\/x\.example\/a">/,
    );
  });

  test("are let go of when a page of the site is known to be another", async () => {
    const before = times("/kept");
    const page = { path: "/another", title: "Another", html: "<p>x</p>", publish: true };
    assert.equal((await garden.call("POST", "/sites/garden/pages", page)).status, 201);
    await delivery.level();
    await ask(delivery.port, "/kept");
    assert.equal(times("/kept"), before + 1);
  });

  test("are never one reader's that another gets", async () => {
    for (const path of ["/kept-private", "/kept-cookie", "/kept-unsaid"]) {
      await ask(delivery.port, path);
      await ask(delivery.port, path);
      assert.equal(times(path), 2, path);
    }
    const mine = { headers: { Cookie: "who=me" } };
    await ask(delivery.port, "/kept", mine);
    assert.match((await ask(delivery.port, "/kept")).body, /for all/);
    assert.match((await ask(delivery.port, "/kept", mine)).body, /for who=me/);
    assert.match((await ask(delivery.port, "/kept-public")).body, /for all/);
    assert.match((await ask(delivery.port, "/kept-public", mine)).body, /for all/);
    const secret = { headers: { Authorization: "Basic bWU6bWU=" } };
    const before = times("/kept-public");
    await ask(delivery.port, "/kept-public", secret);
    assert.equal(times("/kept-public"), before + 1);
    for (const language of ["en", "de", "en", "de"])
      await ask(delivery.port, "/kept-vary", { headers: { "Accept-Language": language } });
    assert.equal(times("/kept-vary"), 2);
    await ask(delivery.port, "/kept-vary", { host: "gdn.example" });
    assert.ok(times("/kept-vary") <= 3, "a host is a place of its own");
  });

  test("stand in while they are asked anew, and while the origin fails, as it says", async () => {
    const old = await ask(delivery.port, "/kept-swr");
    for (const path of ["/kept-sie", "/kept-strict"]) await ask(delivery.port, path);
    await new Promise((resolve) => setTimeout(resolve, 2_100));
    assert.equal((await ask(delivery.port, "/kept-swr")).body, old.body);
    await until("it was asked anew", () => times("/kept-swr") === 2);
    assert.ok(
      seen
        .filter(({ url }) => url === "/kept-swr")
        .at(-1)!
        .headers.some((one) => one === '"max-age=1, stale-while-revalidate=60"'),
      "by its tag",
    );
    fails = true;
    assert.equal((await ask(delivery.port, "/kept-sie")).status, 200);
    assert.equal((await ask(delivery.port, "/kept-strict")).status, 503);
    fails = false;
  });
});

describe("pages of ours in the look of one of theirs", () => {
  const LOOK = `<!doctype html><html><head><meta charset=windows-1252><title>Theirs</title><link rel=stylesheet href=/their.css></head><body><nav><a href="https://x.example/out">Caf\xe9</a></nav><main id=text><h1>Theirs</h1></main><footer>Foot</footer></body></html>`;
  Object.assign(ANSWERS, {
    "/look": (_request: IncomingMessage, response: ServerResponse) =>
      response
        .writeHead(fails ? 500 : 200, { "Content-Type": "text/html; charset=windows-1252" })
        .end(Buffer.from(LOOK, "latin1")),
  });
  let fails = false;
  const ours = async (): Promise<string> => (await ask(delivery.port, "/in-their-look")).body;
  const use = (frame: object | null) => garden.call("PUT", "/sites/garden/origin/frame", { frame });
  const outside = { ...NOBODY_OUTSIDE };
  before(async () => {
    await pass("on");
    const page = {
      path: "/in-their-look",
      title: "Ours & mine",
      html: `<p>Our <a href="https://x.example/a">words</a>.</p>`,
      publish: true,
    };
    assert.equal((await garden.call("POST", "/sites/garden/pages", page)).status, 201);
    // The desk looks at the origin through the world outside.
    garden.desk.outgoing = {
      ...outside,
      fetch: async (address) => {
        const { port } = origin.address() as AddressInfo;
        const answer = await ask(port, new URL(address).pathname).catch(() => undefined);
        if (!answer) return { ok: false, reason: "closes the connection" };
        const headers = Object.fromEntries(
          Object.entries(answer.headers).map(([name, value]) => [name, String(value)]),
        );
        return { ok: true, status: answer.status, headers, bytes: answer.bytes };
      },
    };
    await delivery.level();
  });
  after(async () => {
    garden.desk.outgoing = outside;
    await use(null);
  });

  test("the page is named and its area chosen of those that it has; what cannot serve is said at its field", async () => {
    const looked = await garden.call("POST", "/sites/garden/origin/frame/look", { path: "/look" });
    assert.deepEqual(looked.body.areas, [{ selector: "main", words: 1, begins: "Theirs" }]);
    const seen = await garden.call("GET", "/sites/garden/origin/frame/page?path=/look");
    assert.equal(seen.status, 200);
    assert.match(
      String(seen.body),
      /<base href="http:\/\/[^"]*\/look"><meta charset=windows-1252><title>Theirs.*Café/s,
    );
    assert.equal((await garden.call("GET", "/sites/garden/origin/frame/page?path=/text")).status, 422);
    for (const [path, selector, at, says] of [
      ["/look", "#nothing", "frame.selector", /has nothing that “#nothing” selects/],
      ["/look", "a[", "frame.selector", /no selector/],
      ["/not-there", "main", "frame.path", /answers 404/],
      ["/text", "main", "frame.path", /no HTML page/],
      ["look", "main", "frame.path", /./],
    ] as const) {
      const { status, body } = await use({ path, selector });
      assert.deepEqual([status, body.errors?.[0].path], [422, at], JSON.stringify(body));
      assert.match(body.errors[0].message, says);
    }
    assert.equal(
      (await garden.call("POST", "/sites/garden/origin/frame/look", { path: "/drops" })).status,
      422,
    );
  });

  test("it stands around our page, which says of itself what it is", async () => {
    assert.match(await ours(), /~theme\/site\.css/);
    const set = await use({ path: "/look", selector: "#text" });
    assert.deepEqual([set.status, set.body.frame], [200, { path: "/look", selector: "#text" }]);
    await delivery.level();
    const page = await ours();
    assert.match(
      page,
      /^<!doctype html><html><head><meta charSet="utf-8"\/><title>Ours &amp; mine<\/title>.*rel="canonical".*<link rel=stylesheet href=\/their\.css><\/head>/s,
    );
    assert.match(
      page,
      /<nav><a href="https:\/\/x\.example\/out" rel="noopener" target="_blank">Café<\/a><\/nav><main id=text><article>/,
    );
    assert.match(
      page,
      /<p>Our <a href="https:\/\/x\.example\/a" rel="noopener" target="_blank">words<\/a>\.<\/p>.*<\/article><\/main><footer>Foot<\/footer>/s,
    );
    assert.ok(!page.includes("Theirs") && !page.includes("windows-1252"));
  });

  test("where their page cannot be had, the last one serves on, or ours has its own look", async () => {
    fails = true;
    await setRules([]);
    assert.match(await ours(), /<footer>Foot<\/footer>/, "the last one that was had serves on");
    await until("it was told", () =>
      delivery.reports.some((one) => /The frame of .* could not be had/.test(one)),
    );
    fails = false;
    assert.equal((await use({ path: "/look", selector: "main" })).status, 200);
    fails = true;
    await delivery.level();
    assert.match(await ours(), /~theme\/site\.css/, "of another one nothing is there yet");
    fails = false;
    await setRules([DEMO_RULES[0]!]);
  });
});

test("it is said beforehand what would happen, and how readers are sent here", async () => {
  const check = async (answer: Partial<Extract<Fetched, { ok: true }>> | undefined) => {
    garden.desk.outgoing = {
      ...garden.desk.outgoing,
      fetch: async () =>
        answer
          ? { ok: true, status: 200, headers: {}, bytes: Buffer.from(PAGE), ...answer }
          : { ok: false, reason: "refuses connections" },
    };
    const { body } = await garden.call("POST", "/sites/garden/origin/front/check");
    assert.match(body.nginx, /server_name garden\.example;[\s\S]*proxy_pass http:\/\/127\.0\.0\.1:4601;/);
    return body.findings.map(({ about, severity }: Record<string, string>) => `${about} ${severity}`);
  };
  const html = { "content-type": "text/html" };
  assert.deepEqual(await check({ headers: html }), ["answer good"]);
  assert.deepEqual(await check(undefined), ["answer fault"]);
  assert.deepEqual(await check({ status: 301, headers: { location: "https://away.example/" } }), [
    "redirect fault",
  ]);
  assert.deepEqual(await check({ status: 308, headers: { location: "https://garden.example/" } }), [
    "redirect hint",
  ]);
  const absolute = Buffer.from(`<p>${"Words stand here. ".repeat(9)}<a href="http://origin.example/a">a</a>`);
  assert.deepEqual(
    await check({
      headers: { ...html, "set-cookie": "a=1; Domain=.origin.example", "cache-control": "no-transform" },
      bytes: absolute,
    }),
    ["answer good", "cookies fault", "caching fault", "absolute hint"],
  );
});

describe("an origin in trouble", () => {
  before(() => pass("on"));

  test("that closes, or sends fields without end, is told in the site's look; nothing of ours is shown", async () => {
    for (const path of ["/drops", "/long-fields"]) {
      const { status, body, headers } = await ask(delivery.port, path);
      assert.equal(status, 502, path);
      assert.match(body, /cannot be shown just now/);
      assert.equal(headers["retry-after"], "30");
    }
  });

  test("that stops half-way, or sends a damaged coding, leaves an answer that can be told from a whole one", async () => {
    for (const path of ["/half", "/cut-gzip"]) await assert.rejects(ask(delivery.port, path), path);
  });

  test("a request that comes round again is not sent round once more", async () => {
    await ask(delivery.port, "/text");
    const { headers } = seen.at(-1)!;
    const via = headers[headers.indexOf("Via") + 1]!;
    assert.equal((await ask(delivery.port, "/text", { headers: { Via: via } })).status, 508);
  });

  test("one that leads into a private network is not asked", async () => {
    const careful = await testDelivery(garden.url);
    try {
      assert.equal((await ask(careful.port, "/text")).status, 502);
    } finally {
      await careful.end();
    }
  });

  test("no answer of one reader is another's, whatever goes on at once", async () => {
    const answers = await Promise.all(
      Array.from({ length: 120 }, async (_, at) => {
        const path = ["/page", "/gzip", "/echo", "/drops", "/text", "/br"][at % 6]!;
        if (path !== "/echo")
          return ask(delivery.port, path).then(({ status }) => status === (path === "/drops" ? 502 : 200));
        return (await askRaw("/picture", { headers: { "X-Mine": String(at) } })).bytes.length === 4;
      }),
    );
    assert.ok(answers.every(Boolean));
  });
});
