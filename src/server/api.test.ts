import assert from "node:assert/strict";
import { after, before, describe, test } from "node:test";
import { OWNER, testDesk, type TestDesk } from "../../tests/support/desk.ts";
import { createApi } from "./api.ts";

let garden: TestDesk;
before(async () => {
  garden = await testDesk();
});
after(() => garden.close());

const TOOLS = "https://tools.garden.example";
const api = (limits: { callsPerMinute?: number; origins?: string[] }) =>
  createApi(garden.desk, { callsPerMinute: 1_000, origins: [], ...limits }, () => {});
const request = (method = "GET", headers: Record<string, string> = {}, path = "/sites") =>
  new Request(`http://localhost/api/v1${path}`, { method, headers });

describe("whoever calls too often", () => {
  test("is told how many are left, then when to go on; others go on meanwhile", async () => {
    const call = api({ callsPerMinute: 3 });
    const left: (string | null)[] = [];
    for (let made = 0; made < 3; made += 1) {
      const { status, headers } = await call(request(), OWNER);
      assert.equal(status, 200);
      assert.equal(headers.get("ratelimit-policy"), '"calls";q=3;w=60');
      left.push(/r=(\d+)/.exec(headers.get("ratelimit") ?? "")?.[1] ?? null);
    }
    assert.deepEqual(left, ["2", "1", "0"]);
    const refused = await call(request(), OWNER);
    assert.deepEqual(
      [refused.status, refused.headers.get("content-type")],
      [429, "application/problem+json"],
    );
    const wait = Number(refused.headers.get("retry-after"));
    assert.ok(wait >= 1 && wait <= 60, String(wait));
    assert.match(((await refused.json()) as { detail: string }).detail, /3 calls a minute/);
    for (const other of [
      { ...OWNER, token: "7" },
      { ...OWNER, person: "9" },
      { ...OWNER, name: "Otto" },
    ])
      assert.equal((await call(request(), other)).status, 200, JSON.stringify(other));
    assert.equal((await call(request(), { ...OWNER, name: "Another name", token: "7" })).status, 200);
  });

  test("and has not signed in is told that, and counted nowhere", async () => {
    const { status, headers } = await api({ callsPerMinute: 1 })(request(), undefined);
    assert.deepEqual([status, headers.get("ratelimit")], [401, null]);
  });
});

describe("scripts of another origin", () => {
  const preflight = { Origin: TOOLS, "Access-Control-Request-Method": "PATCH" };

  test("are let in that are listed, without cookies", async () => {
    const call = api({ origins: [TOOLS] });
    const { status, headers } = await call(request("OPTIONS", preflight, "/sites/garden"), undefined);
    assert.deepEqual(
      [status, headers.get("access-control-allow-origin"), headers.get("access-control-allow-methods")],
      [204, TOOLS, "GET, PATCH, DELETE, HEAD, OPTIONS"],
    );
    assert.match(
      headers.get("access-control-allow-headers") ?? "",
      /Authorization.*If-Match.*Idempotency-Key/,
    );
    const answer = await call(request("GET", { Origin: TOOLS }), OWNER);
    assert.equal(answer.headers.get("access-control-allow-origin"), TOOLS);
    assert.match(answer.headers.get("access-control-expose-headers") ?? "", /ETag/);
    assert.equal(answer.headers.get("access-control-allow-credentials"), null);
    assert.match(answer.headers.get("vary") ?? "", /Origin/);
  });

  const others: readonly (readonly [says: string, origins: string[], origin: string])[] = [
    ["none by default", [], TOOLS],
    ["not one that only begins so", [TOOLS], `${TOOLS}.evil.example`],
    ["not by another scheme", [TOOLS], TOOLS.replace("https", "http")],
    ["not “null”", [TOOLS], "null"],
  ];
  for (const [says, origins, origin] of others)
    test(says, async () => {
      const call = api({ origins });
      for (const one of [
        request("OPTIONS", { ...preflight, Origin: origin }),
        request("GET", { Origin: origin }),
      ]) {
        const { headers } = await call(one, OWNER);
        assert.equal(headers.get("access-control-allow-origin"), null);
      }
    });
});
