import assert from "node:assert/strict";
import { spawn, spawnSync, type ChildProcess } from "node:child_process";
import { once } from "node:events";
import { existsSync, mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { request } from "node:https";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { after, before, test } from "node:test";
import { setTimeout as rest } from "node:timers/promises";
import { installDebian } from "../../scripts/install.mjs";
import { freePort } from "../../scripts/postgres.mjs";
import { proxyTrust } from "../../src/incoming/proxy-trust.ts";
import { ask, PERSON, until } from "../support/ask.ts";
import { testDelivery, type TestDelivery } from "../support/delivery.ts";
import { testDesk, type TestDesk } from "../support/desk.ts";

const OPERATE = new URL("../../docs/operate/", import.meta.url);
const folder = mkdtempSync(join(tmpdir(), "maprope-proxied-"));
let garden: TestDesk;
let nodes: TestDelivery[];
let ports: [number, number];
let tls: number;
let plain: number;
let nginx: ChildProcess;
let certificate: string;

const node = (port: number): Promise<TestDelivery> =>
  testDelivery(garden.url, undefined, { port, trust: proxyTrust("loopback") });

before(async () => {
  installDebian(["nginx-light"], () => existsSync("/usr/sbin/nginx"), "nginx, which stands in front,");
  installDebian(["openssl"], () => existsSync("/usr/bin/openssl"), "OpenSSL, which makes a certificate,");
  garden = await testDesk();
  const lamps = { kind: "short", address: "/to/lamps", destination: "https://harbour.example/lamps" };
  await garden.call("POST", "/sites/garden/routes", lamps);
  ports = [await freePort(), await freePort()];
  nodes = [await node(ports[0]), await node(ports[1])];
  tls = await freePort();
  plain = await freePort();
  mkdirSync(join(folder, "ssl"));
  const [pem, key] = [join(folder, "ssl/readers.pem"), join(folder, "ssl/readers.key")];
  const made = spawnSync("/usr/bin/openssl", [
    ...["req", "-x509", "-newkey", "ec", "-pkeyopt", "ec_paramgen_curve:prime256v1", "-nodes", "-days", "2"],
    ...["-subj", "/CN=garden.example", "-addext", "subjectAltName=DNS:garden.example"],
    ...["-keyout", key, "-out", pem],
  ]);
  assert.equal(made.status, 0, String(made.stderr));
  certificate = readFileSync(pem, "utf8");
  // The configuration as docs/operate gives it, with the ports and folders of this test.
  const given = readFileSync(new URL("nginx.conf", OPERATE), "utf8")
    .replace("127.0.0.1:4601", `127.0.0.1:${ports[0]}`)
    .replace("127.0.0.1:4701", `127.0.0.1:${ports[1]}`)
    .replaceAll(/\/etc\/ssl\/maprope\/\w+/g, join(folder, "ssl/readers"))
    .replaceAll(/listen 443/g, `listen 127.0.0.1:${tls}`)
    .replace("listen 80", `listen 127.0.0.1:${plain}`);
  writeFileSync(join(folder, "maprope.conf"), given);
  const temporary = ["client_body", "proxy", "fastcgi", "uwsgi", "scgi"];
  writeFileSync(
    join(folder, "nginx.conf"),
    `daemon off; master_process off; pid ${folder}/pid; error_log ${folder}/error.log;
events {}
http { access_log off; ${temporary.map((one) => `${one}_temp_path ${folder}/${one};`).join(" ")}
include ${folder}/maprope.conf; }
`,
  );
  nginx = spawn("/usr/sbin/nginx", ["-p", folder, "-c", join(folder, "nginx.conf")], { stdio: "inherit" });
  await until("nginx answers", () =>
    ask(plain, "/").then(
      () => true,
      () => false,
    ),
  );
});
after(async () => {
  nginx.kill();
  await once(nginx, "exit");
  for (const one of nodes) await one.end();
  await garden.close();
  rmSync(folder, { recursive: true, force: true });
});

function secure(
  path: string,
  headers: Record<string, string> = {},
): Promise<{ status: number; location?: string }> {
  return new Promise((resolve, reject) => {
    const asked = request(
      {
        host: "127.0.0.1",
        port: tls,
        path,
        servername: "garden.example",
        ca: certificate,
        headers: { Host: "garden.example", "User-Agent": PERSON, ...headers },
        timeout: 20_000,
      },
      (response) => {
        response.resume();
        response.on("end", () =>
          resolve({
            status: response.statusCode!,
            ...(response.headers.location ? { location: response.headers.location } : {}),
          }),
        );
      },
    );
    asked.on("error", reject);
    asked.end();
  });
}

test("readers come by TLS, with a certificate that is checked; without it they are led there", async () => {
  assert.deepEqual(await secure("/to/lamps"), { status: 302, location: "https://harbour.example/lamps" });
  const { status, headers } = await ask(plain, "/to/lamps?a=1");
  assert.deepEqual([status, headers.location], [308, "https://garden.example/to/lamps?a=1"]);
});

test("each reader is told from the others by what nginx says of them, and nobody can say it themselves", async () => {
  const visitors = async (): Promise<string[]> =>
    (
      await garden.store.rows<{ visitor: string }>("SELECT DISTINCT visitor FROM clicks WHERE visitor <> ''")
    ).map(({ visitor }) => visitor);
  await secure("/to/lamps", { "X-Forwarded-For": "198.51.100.7" });
  await secure("/to/lamps", { "X-Forwarded-For": "203.0.113.9" });
  await until("they are counted", async () => {
    const [row] = await garden.store.rows<{ n: string }>("SELECT count(*)::text AS n FROM clicks");
    return Number(row!.n) >= 3;
  });
  assert.equal((await visitors()).length, 1, "what a reader wrote there themselves was believed");
});

test("nodes are restarted one after the other under load, and no redirect fails", async () => {
  let isOver = false;
  let answered = 0;
  const failed: unknown[] = [];
  const reader = async (): Promise<void> => {
    while (!isOver) {
      const reply = await secure("/to/lamps").catch((error: unknown) => error as Error);
      if (!(reply instanceof Error) && reply.status === 302) answered += 1;
      else failed.push(reply);
    }
  };
  const readers = [reader(), reader(), reader()];
  for (const [at, port] of ports.entries()) {
    await rest(300);
    nodes[at]!.leave();
    await rest(300);
    await nodes[at]!.end();
    await rest(300);
    nodes[at] = await node(port);
  }
  await rest(500);
  isOver = true;
  await Promise.all(readers);
  assert.deepEqual(failed, []);
  assert.ok(answered > 100, `only ${answered} were asked`);
});

test("the unit for systemd is one that systemd takes", (context) => {
  const analyze = "/usr/bin/systemd-analyze";
  if (!existsSync(analyze)) return context.skip("no systemd here");
  const unit = join(folder, "maprope@1.service");
  // Its program is not installed here.
  const text = readFileSync(new URL("maprope@.service", OPERATE), "utf8").replace(
    "/usr/bin/node",
    "/bin/true",
  );
  writeFileSync(unit, text);
  const { stderr, stdout } = spawnSync(analyze, ["verify", "--man=no", unit], { encoding: "utf8" });
  const said = `${stdout}${stderr}`
    .split("\n")
    .filter((line) => line.includes(unit) || /maprope@1/.test(line));
  assert.deepEqual(said, []);
});
