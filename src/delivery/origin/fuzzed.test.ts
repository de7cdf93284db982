import assert from "node:assert/strict";
import { Agent, request } from "node:http";
import { createServer, type AddressInfo, type Server, type Socket } from "node:net";
import { after, before, test } from "node:test";
import { gzipSync } from "node:zlib";
import { asked, Random } from "../../../tests/oracles/random.ts";
import { ask } from "../../../tests/support/ask.ts";
import { testDelivery, type TestDelivery } from "../../../tests/support/delivery.ts";
import { testDesk, type TestDesk } from "../../../tests/support/desk.ts";

/** An origin that answers as no program should, and names in what it sends whom it answers. */
function fuzzed(random: Random, reader: string): Buffer {
  const page = Buffer.from(
    `<!doctype html><title>x</title><main><p>reader=${reader}. <a href="https://x.example/${reader}">out</a></p>${"<p>more</p>".repeat(random.below(400))}</main>`,
  );
  const packed = random.below(3) === 0;
  const body = packed ? gzipSync(page) : page;
  const cut = random.below(3) === 0 ? body.subarray(0, random.below(body.length)) : body;
  const line = random.one([
    "HTTP/1.1 200 OK", "HTTP/1.1 200 OK", "HTTP/1.1 200 OK", "HTTP/1.1 200", "HTTP/1.0 200 OK", "HTTP/1.1 404 Not Found", "HTTP/1.1 500 Oh",
    "HTTP/1.1 304 Not Modified", "HTTP/1.1 204 No Content", "HTTP/1.1 999 Odd", "HTTP/1.1 1000 Odd", "HTTP/1.1 xyz", "HTTP/9.9 200 OK", "ICY 200 OK", "",
    "\0\0\0", "HTTP/1.1 302 Found\r\nLocation: http://garden.example/\r\nX: y", "HTTP/1.1 103 Early Hints\r\nLink: </a>; rel=preload\r\n\r\nHTTP/1.1 200 OK",
  ]); // prettier-ignore
  const fields = [
    random.one(["Content-Type: text/html; charset=utf-8", "Content-Type: text/html", "Content-Type: image/png", "Content-Type: text/html\r\nContent-Type: text/plain", "Content-Type: text/html; charset=utf-16", "X: no type", "Content-Type : text/html", ": nothing", "Content-Type: text/html\0"]),
    random.one(["", "", "Cache-Control: public, max-age=60", "Cache-Control: max-age=60", "Cache-Control: private", "Set-Cookie: a=1", "Vary: *", `X-Long: ${"a".repeat(random.below(70_000))}`, "Connection: close, X-Odd", "Transfer-Encoding: identity", "Trailer: X-End"]),
    packed && random.below(4) > 0 ? random.one(["Content-Encoding: gzip", "Content-Encoding: gzip, gzip", "Content-Encoding: br", "Content-Encoding: what"]) : "",
  ].filter(Boolean); // prettier-ignore
  const framing = random.below(6);
  const head = (...more: string[]): string => [line, ...fields, ...more, "", ""].join("\r\n");
  const bytes = (text: string, ...rest: (string | Buffer)[]): Buffer =>
    Buffer.concat([Buffer.from(text, "latin1"), ...rest.map((one) => Buffer.from(one as string))]);
  if (framing === 0) return bytes(head("Connection: close"), cut);
  if (framing === 1)
    return bytes(head(`Content-Length: ${random.one([body.length, body.length + 50, 3, -1, "x", "9".repeat(20)])}`), cut);
  if (framing === 2)
    return bytes(head(`Content-Length: ${body.length}`, `Content-Length: ${body.length + 1}`), cut);
  if (framing === 3)
    return bytes(head("Transfer-Encoding: chunked"), `${random.one([cut.length.toString(16), "zz", "fffffffff", "-1"])}\r\n`, cut, random.one(["\r\n0\r\n\r\n", "\r\n0\r\nX-End: 1\r\n\r\n", "", "garbage"]));
  if (framing === 4)
    return bytes(head("Transfer-Encoding: chunked", `Content-Length: ${body.length}`), cut);
  return bytes(head(`Content-Length: ${cut.length}`), cut, random.one(["", "HTTP/1.1 200 OK\r\nContent-Length: 12\r\n\r\nreader=other"]));
} // prettier-ignore

let garden: TestDesk;
let delivery: TestDelivery;
let origin: Server;
const sockets = new Set<Socket>();
before(async () => {
  garden = await testDesk();
  origin = createServer((socket) => {
    sockets.add(socket);
    socket.on("close", () => sockets.delete(socket));
    socket.on("error", () => undefined); // whoever hangs up first
    let head = "";
    socket.on("data", (chunk) => {
      head += chunk.toString("latin1");
      for (let end = head.indexOf("\r\n\r\n"); end !== -1; end = head.indexOf("\r\n\r\n")) {
        const [, seed = "1"] = /GET \/f\/(\d+)/.exec(head) ?? [];
        const [, reader = "nobody"] = /x-reader: (\S+)/i.exec(head.slice(0, end)) ?? [];
        head = head.slice(end + 4);
        const random = new Random(Number(seed));
        const bytes = fuzzed(random, reader);
        // In one piece or in several, and then the connection is kept, ended or broken.
        const at = random.below(bytes.length + 1);
        socket.write(bytes.subarray(0, at));
        setTimeout(() => {
          socket.write(bytes.subarray(at));
          const ends = random.below(4);
          if (ends === 0) socket.destroy();
          else if (ends < 3) socket.end();
          else setTimeout(() => socket.destroy(), 300);
        }, random.below(5));
      }
    });
  });
  await new Promise<void>((resolve) => origin.listen(0, "127.0.0.1", resolve));
  const { port } = origin.address() as AddressInfo;
  await garden.call("PUT", "/sites/garden/origin", { address: `http://origin.example:${port}/` });
  const rules = [{ name: "Out", match: { destination: "external" }, set: { nofollow: "on" } }];
  await garden.call("PUT", "/sites/garden/rules", { version: 0, rules });
  await garden.call("PUT", "/sites/garden/origin/front", { comes: "front", passes: "on", only: [] });
  delivery = await testDelivery(garden.url, undefined, { judge: async () => "127.0.0.1" });
});
after(async () => {
  for (const socket of sockets) socket.destroy();
  origin.close();
  await delivery.end();
  await garden.close();
  assert.deepEqual(garden.failures, []);
});

/** What a reader gets of a request: its status and bytes as far as they came; undefined where the connection broke before. */
function got(
  path: string,
  reader: string,
  agent: Agent,
): Promise<{ status: number; body: string } | undefined> {
  return new Promise((resolve, reject) => {
    const late = setTimeout(() => reject(new Error(`${path} does not end`)), 20_000);
    const done = (answer?: { status: number; body: string }): void => {
      clearTimeout(late);
      resolve(answer);
    };
    const sent = request(
      {
        host: "127.0.0.1",
        port: delivery.port,
        path,
        agent,
        headers: { Host: "garden.example", "X-Reader": reader, Accept: "text/html" },
      },
      (answer) => {
        const chunks: Buffer[] = [];
        const told = (): void =>
          done({ status: answer.statusCode!, body: Buffer.concat(chunks).toString("latin1") });
        answer.on("data", (chunk: Buffer) => chunks.push(chunk));
        answer.on("end", told);
        answer.on("error", told);
      },
    );
    sent.on("error", () => done());
    sent.end();
  });
}

test("whatever an origin sends, each request ends, nobody gets another's answer, and nobody a stack trace", async () => {
  const agent = new Agent({ keepAlive: true, maxSockets: 12 });
  const wrong: string[] = [];
  const seen = { whole: 0, refused: 0, broken: 0 };
  const total = asked(500, 5_000);
  let next = 0;
  const one = async (): Promise<void> => {
    for (let seed = ++next; seed <= total; seed = ++next) {
      const reader = `r${seed}`;
      const answer = await got(`/f/${seed}`, reader, agent);
      if (!answer) seen.broken += 1;
      else if (answer.status === 502 || answer.status === 504) seen.refused += 1;
      else seen.whole += 1;
      for (const [, named] of (answer?.body ?? "").matchAll(/reader=([a-z]+\d*)/g))
        if (named !== reader) wrong.push(`${reader} got what was ${named}'s`);
      if (/\bat \S+ \(?(?:file:|\/|node:)/.test(answer?.body ?? ""))
        wrong.push(`${reader} got a stack trace`);
    }
  };
  await Promise.all(Array.from({ length: 12 }, one));
  agent.destroy();
  assert.deepEqual(wrong, []);
  assert.ok(seen.whole > total / 10 && seen.refused > total / 20, JSON.stringify(seen));
  assert.equal((await ask(delivery.port, "/healthz")).status, 200);
  const strange = delivery.reports.filter((one) => !/^The origin of |could not be asked anew/.test(one));
  assert.deepEqual(strange, []);
});
