import assert from "node:assert/strict";
import { createServer, type Server } from "node:http";
import type { AddressInfo } from "node:net";
import { after, before, test } from "node:test";
import { maprope } from "../../src/cli/maprope.ts";
import { testDesk, type TestDesk } from "../support/desk.ts";

const LINK = '<P><A HREF=https://shop.example/1>one</A> <a href="https://gdn.example/go">two</a></P>';
const MARKED = LINK.replace("/1", '/1 rel="nofollow"').replace('/go"', '/go" rel="nofollow"');

let garden: TestDesk;
let server: Server;
before(async () => {
  garden = await testDesk();
  const rules = [{ name: "Out", match: { destination: "external" }, set: { nofollow: "on" } }];
  await garden.call("PUT", "/sites/garden/rules", { version: 0, rules });
  await garden.call("POST", "/sites/garden/routes", {
    kind: "short",
    host: "gdn.example",
    address: "/go",
    destination: "https://shop.example/9",
  });
  server = createServer((request, response) => {
    const chunks: Buffer[] = [];
    request.on("data", (chunk: Buffer) => chunks.push(chunk));
    request.on("end", async () => {
      const path = request.url!.replace("/api/v1", "");
      const actor = request.headers.authorization === "Bearer good" ? undefined : null;
      const { status, body } = await garden.call("POST", path, JSON.parse(Buffer.concat(chunks).toString()), {
        actor,
      });
      response.writeHead(status, { "Content-Type": "application/json" }).end(JSON.stringify(body));
    });
  });
  await new Promise<void>((resolve) => server.listen(0, "127.0.0.1", resolve));
});
after(async () => {
  server.close();
  await garden.close();
});

async function command(token: string, port = (server.address() as AddressInfo).port) {
  let out = "";
  let told = "";
  const status = await maprope(
    ["rewrite", "--site", "garden", "--url", `http://127.0.0.1:${port}`, "--report", "none"],
    {
      stdin: (async function* () {
        yield LINK;
      })(),
      stdout: { write: (text) => (out += Buffer.from(text as string).toString()) },
      stderr: { write: (text) => (told += Buffer.from(text as string).toString()) },
      env: { MAPROPE_API_TOKEN: token },
      folder: "/",
      version: "",
      help: "",
    },
  );
  return { status, out, told };
}

test("the command rewrites by the rules of a running Map Rope, which sees through its short links", async () => {
  assert.deepEqual(await command("good"), { status: 0, out: MARKED, told: "" });
});

test("what keeps it from that is said in a sentence", async () => {
  const refused = await command("bad");
  assert.equal(refused.status, 2);
  assert.match(refused.told, /Sign in/);
  const silent = await command("good", 9);
  assert.equal(silent.status, 2);
  assert.match(silent.told, /does not answer/);
});
