import assert from "node:assert/strict";
import { createServer, type Server } from "node:http";
import type { AddressInfo } from "node:net";
import { after, before, describe, test } from "node:test";
import { isPublicAddress } from "./address-guard.ts";
import { createOutgoing } from "./outgoing.ts";

describe("addresses that a request from here may go to", () => {
  const refused = [
    "127.0.0.1",
    "10.1.2.3",
    "172.20.0.1",
    "192.168.1.1",
    "169.254.169.254",
    "100.64.0.1",
    "0.0.0.0",
    "224.0.0.1",
    "::1",
    "::",
    "fe80::1",
    "fd00::1",
    "::ffff:127.0.0.1",
    "::ffff:7f00:1",
    "64:ff9b::7f00:1",
    "no address",
    "::127.0.0.1",
    "::7f00:1",
    "2002:7f00:1::",
    "2001:0:53aa:64c::1",
    "64:ff9b:1::a00:1",
    "fec0::1",
    "100::1",
    "3fff::1",
    "5f00::1",
    "2001:db8::1",
    "2001:20::1",
    "192.0.0.9",
    "192.88.99.1",
    "198.18.0.1",
    "198.51.100.1",
    "203.0.113.1",
    "240.0.0.1",
    "255.255.255.255",
    "127.1",
    "0x7f.0.0.1",
    "017700000001",
    "2130706433",
    "fe80::1%eth0",
    "::ffff:a00:1",
    "",
  ];
  for (const address of refused) test(`not ${address}`, () => assert.ok(!isPublicAddress(address)));
  for (const address of ["8.8.4.4", "172.32.0.1", "100.128.0.1", "2606:4700::1", "2a00:1450::1"])
    test(address, () => assert.ok(isPublicAddress(address)));
});

describe("the outgoing client", () => {
  let server: Server;
  let port: number;
  let asked: string[] = [];
  before(async () => {
    server = createServer((request, response) => {
      asked.push(`${request.headers.host} ${request.url}`);
      if (request.url === "/slow") return;
      if (request.url === "/hang-up") return void request.socket.destroy();
      if (request.url === "/half") {
        response.writeHead(200, { "Content-Type": "text/csv", "Content-Length": "1000" });
        return void response.write("a,b", () => response.destroy());
      }
      if (request.url?.startsWith("/large")) return void response.end("x".repeat(5_000));
      if (request.url === "/moved") return void response.writeHead(302, { Location: "/there" }).end();
      if (request.url === "/picture")
        return void response.writeHead(200, { "Content-Type": "image/png" }).end("<title>no</title>");
      response.writeHead(200, { "Content-Type": "text/html; charset=utf-8" });
      response.end(`<html><head><TITLE>\n Lamps &amp; \n more &#x2014; here </TITLE>${"x".repeat(100_000)}`);
    });
    await new Promise<void>((resolve) => server.listen(0, "127.0.0.1", resolve));
    ({ port } = server.address() as AddressInfo);
  });
  after(() => {
    server.closeAllConnections();
    server.close();
  });
  const client = createOutgoing({
    resolve: async (host) => (host === "nobody.example" ? [] : ["127.0.0.1"]),
    allows: (address, host) => address === "127.0.0.1" && host.endsWith(".example"),
    timeoutMs: 400,
  });
  const at = (path: string, host = "shop.example"): string => `http://${host}:${port}${path}`;

  test("tells status and title of a page", async () => {
    const visit = await client.visit(at("/"), { title: true });
    assert.ok(visit.ok);
    assert.deepEqual([visit.status, visit.location, visit.title], [200, null, "Lamps & more — here"]);
    assert.ok(asked.includes(`shop.example:${port} /`));
  });

  test("does not follow, and tells where it would lead", async () => {
    asked = [];
    const visit = await client.visit(at("/moved"), { title: true });
    assert.ok(visit.ok);
    assert.deepEqual([visit.status, visit.location, asked.length], [302, "/there", 1]);
  });

  test("reads no title from what is no page", async () => {
    const visit = await client.visit(at("/picture"), { title: true });
    assert.equal(visit.ok && visit.title, null);
  });

  test("reads a whole document, and nothing that is not whole", async () => {
    const read = await client.read(at("/large"), 10_000);
    assert.equal(read.ok && read.bytes.length, 5_000);
    for (const [path, says] of [
      ["/half", /stopped half-way|closes the connection/],
      ["/large?", /more than is taken/],
      ["/moved", /answers 302/],
      ["/slow", /did not answer within/],
      ["/hang-up", /closes the connection/],
    ] as const) {
      const refused = await client.read(at(path), path === "/large?" ? 4_000 : 10_000);
      assert.ok(!refused.ok, path);
      assert.match(refused.reason, says, path);
    }
    const inside = await client.read(at("/large", "inside.test"), 10_000);
    assert.match(inside.ok ? "" : inside.reason, /private network/);
  });

  const failures: readonly (readonly [address: () => string, says: RegExp])[] = [
    [() => at("/slow"), /did not answer within/],
    [() => at("/hang-up"), /closes the connection/],
    [() => at("/", "nobody.example"), /has no address/],
    [() => at("/", "inside.test"), /private network/],
    [() => "ftp://shop.example/", /no web address/],
    [() => "http://shop.example:1/", /refuses connections/],
  ];
  for (const [address, says] of failures)
    test(`${address().replace(/:\d+/, "")} ${says.source}`, async () => {
      const visit = await client.visit(address());
      assert.ok(!visit.ok);
      assert.match(visit.reason, says);
    });

  test("refuses loopback and private networks unless told otherwise", async () => {
    const careful = createOutgoing({ resolve: async () => ["127.0.0.1"] });
    for (const address of [
      at("/"),
      `http://127.0.0.1:${port}/`,
      `http://[::1]:${port}/`,
      `http://0x7f.1:${port}/`,
    ]) {
      const visit = await careful.visit(address);
      assert.ok(!visit.ok && /private network/.test(visit.reason), address);
    }
  });

  test("is broken off when its asker goes", async () => {
    const control = new AbortController();
    const visit = client.visit(at("/slow"), { signal: control.signal });
    control.abort();
    const { ok } = await visit;
    assert.equal(ok, false);
  });
});
