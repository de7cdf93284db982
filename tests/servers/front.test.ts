import assert from "node:assert/strict";
import { createServer, request, type Server } from "node:http";
import type { AddressInfo } from "node:net";
import { after, before, test } from "node:test";
import { seeded } from "../../demo/seeded.ts";
import { testDelivery, type TestDelivery } from "../support/delivery.ts";
import { testDesk, type TestDesk } from "../support/desk.ts";
import { startNginx, type WebServer } from "../support/web-servers.ts";

let garden: TestDesk;
let delivery: TestDelivery;
let nginx: WebServer;
let origin: Server;

// Answers by what its path asks for: status, fields, and bytes, all from the number in it.
before(async () => {
  garden = await testDesk();
  origin = createServer((asked, answer) => {
    const chunks: Buffer[] = [];
    asked.on("data", (chunk: Buffer) => chunks.push(chunk));
    asked.on("end", () => {
      const next = seeded(Number(/\/(\d+)/.exec(asked.url!)?.[1] ?? 1));
      const pick = <T>(of: readonly T[]): T => of[Math.floor(next() * of.length)]!;
      const status = pick([
        200, 200, 200, 201, 204, 301, 302, 304, 400, 401, 403, 404, 410, 416, 429, 500, 503,
      ]);
      const body = Buffer.from(
        Array.from({ length: Math.floor(next() * 3_000) }, () => Math.floor(next() * 256)),
      );
      const hasBody = status !== 204 && status !== 304;
      const fields = [
        ...pick([
          ["Content-Type", "application/octet-stream"],
          ["Content-Type", "text/html; charset=utf-8"],
          ["Content-Type", "image/png"],
          [],
        ]),
        ...pick([["ETag", `"${status}"`], ["ETag", `W/"x"`], []]),
        ...pick([["Cache-Control", "no-cache, private"], ["Cache-Control", "max-age=60"], []]),
        ...pick([["Set-Cookie", "a=1; Path=/", "Set-Cookie", "b=2; HttpOnly"], []]),
        ...pick([
          ["X-Odd-NAME", "  padded value "],
          ["Vary", "Accept, Cookie"],
          ["Content-Language", "en, de"],
          ["Accept-Ranges", "bytes"],
        ]),
        ...(status === 301 || status === 302
          ? ["Location", pick(["/else?a=b", "https://x.example/%20", "../up"])]
          : []),
        ...(status === 401 ? ["WWW-Authenticate", "Basic realm=here"] : []),
        "X-Asked",
        `${asked.method} ${asked.url} ${Buffer.concat(chunks).length} ${asked.headers.host} ${asked.headers["x-mine"] ?? ""} ${asked.headers.cookie ?? ""}`,
        ...(hasBody && next() < 0.5 ? ["Content-Length", String(body.length)] : []),
      ];
      answer.writeHead(status, fields);
      answer.end(hasBody && asked.method !== "HEAD" ? body : undefined);
    });
  });
  await new Promise<void>((resolve) => origin.listen(0, "127.0.0.1", resolve));
  const { port } = origin.address() as AddressInfo;
  await garden.call("PUT", "/sites/garden/origin", { address: `http://origin.example:${port}/` });
  await garden.call("PUT", "/sites/garden/origin/front", { comes: "front", passes: "untouched", only: [] });
  delivery = await testDelivery(garden.url, undefined, { judge: async () => "127.0.0.1" });
  nginx = await startNginx(
    async (listen) =>
      `server { listen 127.0.0.1:${listen}; server_tokens off; client_max_body_size 10m; location / {
         proxy_pass http://127.0.0.1:${port}; proxy_http_version 1.1; proxy_set_header Host $host; proxy_set_header Connection ""; proxy_redirect off; proxy_pass_header Date; proxy_pass_header Server; } }`,
  );
});
after(async () => {
  await nginx.stop();
  await delivery.end();
  origin.closeAllConnections();
  origin.close();
  await garden.close();
});

interface Told {
  status: number;
  fields: string[];
  bytes: Buffer;
}

function ask(
  port: number,
  {
    path,
    method,
    headers,
    body,
  }: { path: string; method: string; headers: Record<string, string>; body: string },
): Promise<Told> {
  return new Promise((resolve, reject) => {
    const asked = request(
      { host: "127.0.0.1", port, path, method, headers: { Host: "garden.example", ...headers } },
      (answer) => {
        const chunks: Buffer[] = [];
        answer.on("data", (chunk: Buffer) => chunks.push(chunk));
        answer.on("error", reject);
        answer.on("end", () =>
          resolve({
            status: answer.statusCode!,
            fields: endToEnd(answer.rawHeaders),
            bytes: Buffer.concat(chunks),
          }),
        );
      },
    );
    asked.on("error", reject);
    asked.end(body === "" ? undefined : body);
  });
}

// Whatever is of the connection is each server's own; `Via` is ours; nginx names no date where the origin names none, and we do.
const OWN = /^(?:connection|keep-alive|transfer-encoding|via|date|server)$/i;

function endToEnd(raw: readonly string[]): string[] {
  const fields: string[] = [];
  for (let at = 0; at + 1 < raw.length; at += 2)
    if (!OWN.test(raw[at]!)) fields.push(`${raw[at]!.toLowerCase()}: ${raw[at + 1]!}`);
  return fields.sort();
}

test("what passes untouched is answered as nginx answers it, on 600 requests: status, fields, bytes", async () => {
  const next = seeded(7);
  let compared = 0;
  for (let at = 0; at < 600; at += 1) {
    const method = ["GET", "GET", "GET", "HEAD", "POST", "PUT", "DELETE", "PATCH", "OPTIONS"][
      Math.floor(next() * 9)
    ]!;
    const asked = {
      path: `/${at}/${["", "a b".replace(" ", "%20"), "x?y=1&z=%2F", "é".normalize().length > 0 ? "%C3%A9" : "", "?", "a//b/../c"][Math.floor(next() * 6)]!}`,
      method,
      headers: {
        ...(next() < 0.4 && { "X-Mine": "one, two" }),
        ...(next() < 0.3 && { Cookie: "k=v; l=w" }),
        ...(next() < 0.2 && { "If-None-Match": `"200"` }),
      },
      body: /^P/.test(method) ? "b".repeat(Math.floor(next() * 20_000)) : "",
    };
    const [ours, theirs] = await Promise.all([ask(delivery.port, asked), ask(nginx.port, asked)]);
    assert.deepEqual([ours.status, ours.fields], [theirs.status, theirs.fields], JSON.stringify(asked));
    assert.ok(ours.bytes.equals(theirs.bytes), JSON.stringify(asked));
    compared += 1;
  }
  assert.equal(compared, 600);
});
