import assert from "node:assert/strict";
import { spawnSync } from "node:child_process";
import { mkdirSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { test } from "node:test";
import { pathToFileURL } from "node:url";
import createClient, { type Client } from "openapi-fetch";
import openapiTS, { astToString } from "openapi-typescript";
import { root } from "../../scripts/install.mjs";
import { answerCall } from "../../src/desk/ground/http/answer.ts";
import { OWNER, testDesk } from "../support/desk.ts";

const CALLS = join(root, "tests/typed-client/calls.ts");

test("a client that is made from the document makes fifty calls, which type-check and are answered", async () => {
  const garden = await testDesk();
  try {
    const { bytes } = await garden.call("GET", "/openapi.json");
    const types = astToString(await openapiTS(Buffer.from(bytes), { defaultNonNullable: false }));
    const folder = join(root, ".cache/typed-client");
    mkdirSync(folder, { recursive: true });
    writeFileSync(join(folder, "api.d.ts"), types);
    const checked = spawnSync(
      process.execPath,
      [join(root, "node_modules/typescript-native/bin/tsc"), "-p", join(root, "tests/typed-client")],
      { encoding: "utf8" },
    );
    assert.equal(checked.status, 0, checked.stdout + checked.stderr);
    const client = createClient<object>({
      baseUrl: "http://localhost/api/v1",
      fetch: (request) => answerCall(garden.desk, request, OWNER, (error) => garden.failures.push(error)),
    });
    const { makeCalls } = (await import(pathToFileURL(CALLS).href)) as {
      makeCalls(api: Client<object>): Promise<number>;
    };
    assert.ok((await makeCalls(client)) >= 50);
    assert.deepEqual(garden.failures, []);
  } finally {
    await garden.close();
  }
});
