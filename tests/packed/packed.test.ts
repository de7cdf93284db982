import assert from "node:assert/strict";
import { spawn, spawnSync, type ChildProcess } from "node:child_process";
import {
  existsSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  rmSync,
  writeFileSync,
} from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { after, before, describe, test } from "node:test";
import { requireTestBuild, TEST_BUILD } from "../../scripts/build-for-tests.mjs";
import { pack, packCommand } from "../../scripts/pack.mjs";
import { freePort } from "../../scripts/postgres.mjs";
import { until } from "../support/ask.ts";
import { freshStore } from "../support/database.ts";

const TOKEN = "a-token-for-the-packed-application";

let folder: string;
let fresh: Awaited<ReturnType<typeof freshStore>>;
before(async () => {
  await requireTestBuild();
  folder = mkdtempSync(join(tmpdir(), "maprope-packed-"));
  fresh = await freshStore();
  run("tar", ["xzf", await pack(folder, TEST_BUILD), "-C", folder]);
  run("npm", ["ci", "--omit=dev", "--no-audit", "--no-fund", "--loglevel=error"], join(folder, "package"));
});
after(async () => {
  await fresh.drop();
  rmSync(folder, { recursive: true, force: true });
});

function run(command: string, args: string[], cwd = folder): void {
  const { status, stdout, stderr } = spawnSync(command, args, { cwd, encoding: "utf8" });
  assert.equal(status, 0, `${command} ${args.join(" ")}:\n${stdout}\n${stderr}`);
}

/** Runs the command in a folder of its own, with nothing of ours in the environment. */
function maprope(cwd: string, ...args: string[]): { child: ChildProcess; said: () => string } {
  const env = { PATH: process.env.PATH, HOME: process.env.HOME };
  const command = join(folder, "package/dist/app/maprope.mjs");
  const child = spawn(process.execPath, [command, ...args], { cwd, env });
  let text = "";
  for (const stream of [child.stdout, child.stderr]) stream.on("data", (part) => (text += String(part)));
  return { child, said: () => text };
}
const ended = (child: ChildProcess): Promise<number | null> =>
  new Promise((resolve) => (child.exitCode === null ? child.once("exit", resolve) : resolve(child.exitCode)));

describe("a packed build, installed without what development needs", () => {
  test("has no compiler, bundler or test in it", () => {
    const there = readdirSync(join(folder, "package/node_modules"));
    for (const name of ["tsx", "typescript", "vite", "esbuild", "astro", "playwright-core", "axe-core"])
      assert.ok(!there.includes(name), name);
    assert.ok(!existsSync(join(folder, "package/src")));
  });

  test("serves the workspace, its API and the readers, by what .env says; and stops when it is told to", async () => {
    const [port, sitePort] = [await freePort(), await freePort()];
    const cwd = join(folder, "here");
    mkdirSync(cwd);
    writeFileSync(
      join(cwd, ".env"),
      [
        `DATABASE_URL=${fresh.url}`,
        `MAPROPE_PORT=${port}`,
        `MAPROPE_SITE_PORT=${sitePort}`,
        `MAPROPE_API_TOKEN=${TOKEN}`,
      ].join("\n"),
    );
    const { child, said } = maprope(cwd, "serve");
    try {
      await until("it serves", () => /Workspace {3}http/.test(said()) || child.exitCode !== null);
      assert.equal(child.exitCode, null, said());
      assert.match(said(), /Sign in {5}owner@/);
      const signIn = await fetch(`http://127.0.0.1:${port}/sign-in`);
      assert.equal(signIn.status, 200);
      const script = /(?:component-url|src)="(\/_astro\/[^"]+\.js)"/.exec(await signIn.text());
      assert.equal((await fetch(`http://127.0.0.1:${port}${script![1]}`)).status, 200);
      const call = async (method: string, path: string, body?: unknown) => {
        const response = await fetch(`http://127.0.0.1:${port}/api/v1${path}`, {
          method,
          headers: {
            Authorization: `Bearer ${TOKEN}`,
            ...(body ? { "Content-Type": "application/json" } : {}),
          },
          ...(body ? { body: JSON.stringify(body) } : {}),
        });
        return { status: response.status, body: (await response.json()) as Record<string, unknown> };
      };
      const hosts = [{ name: "pond.localhost", role: "primary" }];
      assert.equal((await call("POST", "/sites", { key: "pond", name: "Pond", hosts })).status, 201);
      // Long enough that it is read in a thread of its own.
      const html = `<p>${'Reeds and <a href="https://a.example/">water</a>. '.repeat(3_000)}</p>`;
      const page = { path: "/reeds", title: "Reeds", html, publish: true };
      assert.equal((await call("POST", "/sites/pond/pages", page)).status, 201);
      const { body: job } = await call("POST", "/sites/pond/links/rebuild");
      await until("the ledger is read anew", async () => {
        const { body: now } = await call("GET", `/jobs/${String(job.id)}`);
        assert.notEqual(now.state, "failed", JSON.stringify(now));
        return now.state === "done";
      });
      assert.equal((await call("GET", "/sites/pond/links?limit=1")).body.total, 3_000);
      const reader = await fetch(`http://127.0.0.1:${sitePort}/healthz`);
      assert.equal(((await reader.json()) as { status: string }).status, "ok");
    } finally {
      child.kill("SIGTERM");
    }
    assert.equal(await ended(child), 0);
    assert.doesNotMatch(said(), /\n\{"level"/, "nothing failed on the way");
  });

  test("says in sentences all that it cannot start with", async () => {
    const cwd = join(folder, "wrong");
    mkdirSync(cwd);
    writeFileSync(join(cwd, ".env"), "MAPROPE_LOG=loud\nMAPROPE_PORT=x\nDATABASE_URL=nowhere\n");
    const { child, said } = maprope(cwd, "serve");
    assert.equal(await ended(child), 1);
    const lines = said().trim().split("\n");
    assert.equal(lines.length, 3);
    for (const line of lines) assert.match(line, /^Map Rope cannot start: [A-Z].*\.$/);
  });

  test("is the command for scripts too", async () => {
    const { child, said } = maprope(folder, "rewrite", "--nonsense");
    assert.equal(await ended(child), 2);
    assert.match(said(), /^maprope: /);
  });
});

test("the command for scripts is packed and installed by itself, and stands on nothing else", async () => {
  const at = join(folder, "scripts");
  mkdirSync(at);
  const file = await packCommand(at, TEST_BUILD);
  writeFileSync(join(at, "package.json"), "{}");
  run("npm", ["install", file, "--offline", "--no-audit", "--no-fund", "--loglevel=error"], at);
  assert.deepEqual(
    readdirSync(join(at, "node_modules")).filter((name) => !name.startsWith(".")),
    ["maprope-command"],
  );
  writeFileSync(
    join(at, "rules.json"),
    '[{"name":"Out","match":{"destination":"external"},"set":{"nofollow":"on"}}]',
  );
  writeFileSync(join(at, "page.html"), '<a href="https://a.example/">a</a>');
  const command = (...args: string[]) =>
    spawnSync(join(at, "node_modules/.bin/maprope"), args, { cwd: at, encoding: "utf8" });
  assert.match(command("--version").stdout, /^\d+\.\d+\.\d+\n$/);
  assert.match(command("--help").stdout, /^maprope rewrite/);
  const { status, stdout, stderr } = command("rewrite", "*.html", "--rules", "rules.json");
  assert.deepEqual([status, stderr], [0, ""], stdout);
  assert.equal(
    readFileSync(join(at, "page.html"), "utf8"),
    '<a href="https://a.example/" rel="nofollow">a</a>',
  );
});
