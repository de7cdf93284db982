import assert from "node:assert/strict";
import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { describe, test, type TestContext } from "node:test";
import { readConfig } from "./config.ts";
import { environmentOf } from "./environment.ts";

const SENTENCE = /^[A-Z“][^\n]*\.$/;
const refusalOf = (env: Record<string, string>): string => {
  try {
    readConfig(env, "/");
  } catch (error) {
    return (error as Error).message;
  }
  return "nothing was refused";
};

describe("a configuration that makes no sense is one plain sentence", () => {
  const cases: readonly (readonly [env: Record<string, string>, says: RegExp])[] = [
    [{ DATABASE_URL: "nonsense" }, /DATABASE_URL/],
    [{ DATABASE_URL: "mysql://a/b" }, /DATABASE_URL/],
    [{ DATABASE_URL: "postgres://localhost" }, /DATABASE_URL/],
    [{ MAPROPE_LOG: "loud" }, /MAPROPE_LOG is “loud”/],
    [{ MAPROPE_PORT: "0" }, /MAPROPE_PORT is “0”/],
    [{ MAPROPE_PORT: "46e2" }, /MAPROPE_PORT/],
    [{ MAPROPE_SITE_PORT: "-1" }, /MAPROPE_SITE_PORT/],
    [{ MAPROPE_SITE_PORT: "4600" }, /a port each/],
    [{ MAPROPE_TRUST_PROXY: "maybe" }, /MAPROPE_TRUST_PROXY/],
    [
      { MAPROPE_PRIVATE_ORIGINS: "10.0.0.0/99" },
      /MAPROPE_PRIVATE_ORIGINS: “10\.0\.0\.0\/99” is no address or network/,
    ],
    [{ MAPROPE_API_TOKEN: "short" }, /MAPROPE_API_TOKEN/],
    [{ MAPROPE_DEMO: "yes" }, /MAPROPE_DEMO is “yes”; it is 0 or 1/],
    [{ MAPROPE_SIMULATED: "true" }, /MAPROPE_SIMULATED/],
  ];
  for (const [env, says] of cases)
    test(JSON.stringify(env), () => {
      const message = refusalOf(env);
      assert.match(message, says);
      assert.match(message, SENTENCE);
    });

  test("and where several do not, all are told together", () => {
    const lines = refusalOf({ MAPROPE_LOG: "loud", MAPROPE_API_TOKEN: "a", MAPROPE_SITE_PORT: "4600" }).split(
      "\n",
    );
    assert.equal(lines.length, 3);
    for (const line of lines) assert.match(line, SENTENCE);
  });
});

test("the demo is for a database of our own", () => {
  const url = "postgres://a:b@127.0.0.1/c";
  assert.deepEqual([readConfig({}, "/").demo, readConfig({}, "/").simulated], [true, true]);
  for (const env of [
    { DATABASE_URL: url },
    { DATABASE_URL: url, MAPROPE_DEMO: "1" },
    { MAPROPE_DEMO: "0" },
  ]) {
    const config = readConfig(env, "/");
    assert.deepEqual([config.demo, config.simulated], [false, false], JSON.stringify(env));
  }
});

test("an empty variable is as good as none, and folders are those of the installation", () => {
  const config = readConfig({ MAPROPE_PORT: "", DATABASE_URL: "", MAPROPE_DATA: "here" }, "/srv/maprope");
  assert.deepEqual([config.port, config.databaseUrl], [4600, undefined]);
  assert.deepEqual([config.dataFolder, config.buildFolder], ["/srv/maprope/here", "/srv/maprope/dist"]);
  assert.equal(readConfig({ MAPROPE_DATA: "/elsewhere" }, "/srv").dataFolder, "/elsewhere");
});

describe("the file .env", () => {
  const folderWith = (t: TestContext, write: (folder: string) => void): string => {
    const folder = mkdtempSync(join(tmpdir(), "maprope-env-"));
    t.after(() => rmSync(folder, { recursive: true }));
    write(folder);
    return folder;
  };

  test("adds what the environment does not say", (t) => {
    const folder = folderWith(t, (into) =>
      writeFileSync(
        join(into, ".env"),
        '# where it stands\nMAPROPE_PORT=5000\nMAPROPE_SITE_PORT="5001"\nMAPROPE_LOG=info\n',
      ),
    );
    const config = readConfig(environmentOf(folder, { MAPROPE_PORT: "6000" }), folder);
    assert.deepEqual([config.port, config.sitePort, config.log], [6000, 5001, "info"]);
  });

  test("need not be there; one that cannot be read is told", (t) => {
    assert.deepEqual(
      environmentOf(
        folderWith(t, () => undefined),
        { A: "b" },
      ),
      { A: "b" },
    );
    const folder = folderWith(t, (into) => mkdirSync(join(into, ".env")));
    assert.throws(
      () => environmentOf(folder, {}),
      (error: Error) => SENTENCE.test(error.message),
    );
  });
});
