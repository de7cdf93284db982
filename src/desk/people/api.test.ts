import assert from "node:assert/strict";
import { after, before, describe, test } from "node:test";
import { OWNER, testDesk, type TestDesk } from "../../../tests/support/desk.ts";
import { addPerson, personOfSession, signIn, signOut } from "./people.ts";
import { actorOfToken } from "./tokens.ts";
import { Problem } from "../ground/problem.ts";
import { HANDLED } from "../handlers.ts";
import { countAttempt } from "../../store/people/attempts.ts";

let garden: TestDesk;
before(async () => {
  garden = await testDesk();
});
after(() => garden.close());

describe("the ground rules of the API", () => {
  test("nobody is let in without signing in", async () => {
    const { status, type, headers } = await garden.call("GET", "/sites", undefined, { actor: null });
    assert.deepEqual(
      [status, type, headers.get("www-authenticate")],
      [401, "application/problem+json", "Bearer"],
    );
  });

  test("a reader looks and does not touch; an editor makes no tokens", async () => {
    const reader = { actor: { name: "R", role: "reader" as const } };
    const editor = { actor: { name: "E", role: "editor" as const } };
    assert.equal((await garden.call("GET", "/sites/garden/routes", undefined, reader)).status, 200);
    assert.equal(
      (await garden.call("POST", "/sites/garden/pages", { path: "/a", title: "A" }, reader)).status,
      403,
    );
    assert.equal((await garden.call("POST", "/tokens", { name: "t", role: "owner" }, editor)).status, 403);
  });

  test("unknown calls, methods and objects are told apart", async () => {
    assert.equal((await garden.call("GET", "/nothing")).status, 404);
    const method = await garden.call("DELETE", "/sites/garden/routes");
    assert.deepEqual([method.status, method.headers.get("allow")], [405, "GET, POST, HEAD, OPTIONS"]);
    assert.equal((await garden.call("GET", "/sites/nowhere/routes")).status, 404);
    for (const id of ["999999", "x", "1e3", "99999999999999999999999", "-1"])
      assert.equal((await garden.call("GET", `/sites/garden/routes/${id}`)).status, 404, id);
  });

  const bodies: readonly (readonly [
    says: string,
    raw: BodyInit,
    headers: Record<string, string>,
    status: number,
  ])[] = [
    ["no JSON", "{", {}, 400],
    ["nothing", "", {}, 400],
    ["another media type", "a=b", { "Content-Type": "application/x-www-form-urlencoded" }, 415],
    ["invalid UTF-8", new Uint8Array([0x7b, 0x22, 0xff, 0xfe, 0x22, 0x7d]), {}, 400],
    ["JSON that is no object", "[]", {}, 422],
    ["null", "null", {}, 422],
    ["a null character", '{"path":"/n","title":"a\\u0000b"}', {}, 422],
    ["ten megabytes", JSON.stringify({ path: "/big", title: "Big", html: "x".repeat(10_000_000) }), {}, 413],
    ["fields that are none", '{"path":"/n","title":"N","colour":"red"}', {}, 422],
  ];
  for (const [says, raw, headers, status] of bodies) {
    test(`${says} is refused with ${status}`, async () => {
      const answer = await garden.call("POST", "/sites/garden/pages", undefined, {
        raw,
        headers: { "Content-Type": "application/json", ...headers },
      });
      assert.equal(answer.status, status, JSON.stringify(answer.body));
      assert.equal(answer.type, "application/problem+json");
      assert.ok(answer.body.detail.length > 10 && !/at .*\.ts/.test(answer.body.detail));
    });
  }

  test("half a surrogate pair is stored as the replacement character, not failed", async () => {
    const { status, body } = await garden.call("POST", "/sites/garden/pages", undefined, {
      raw: '{"path":"/surrogate","title":"a\\ud800b","html":"<p>\\udfff</p>"}',
      headers: { "Content-Type": "application/json" },
    });
    assert.deepEqual([status, body.title], [201, "a\uFFFDb"]);
  });

  test("a null character in the address is refused", async () => {
    assert.equal((await garden.call("GET", "/sites/garden/routes?q=%00")).status, 400);
  });

  test("the OpenAPI document names every call with its schemas", async () => {
    const { body } = await garden.call("GET", "/openapi.json", undefined, { actor: null });
    assert.equal(body.openapi, "3.1.0");
    const documented = Object.entries(body.paths as Record<string, object>).flatMap(([path, methods]) =>
      Object.keys(methods).map((method) => `${method.toUpperCase()} ${path}`),
    );
    assert.deepEqual(
      documented.sort(),
      HANDLED.map(({ call: { method, path } }) => `${method} ${path.replace(/:(\w+)/g, "{$1}")}`).sort(),
    );
    const make = body.paths["/sites/{site}/routes"].post;
    const shape = ({ $ref }: { $ref: string }) => body.components.schemas[$ref.split("/").at(-1)!].properties;
    assert.ok(shape(make.requestBody.content["application/json"].schema).destination);
    assert.ok(shape(make.responses["201"].content["application/json"].schema).url);
  });

  test("a database that is gone is a 503, not a stack trace", async () => {
    const lost = {
      ...garden.desk,
      store: {
        ...garden.desk.store,
        rows: () =>
          Promise.reject(Object.assign(new Error("gone"), { name: "SequelizeConnectionRefusedError" })),
      },
    };
    const { answerCall } = await import("../ground/http/answer.ts");
    const response = await answerCall(
      lost as never,
      new Request("http://localhost/api/v1/sites/garden/routes"),
      OWNER,
      () => {},
    );
    assert.deepEqual([response.status, response.headers.get("retry-after")], [503, "5"]);
  });
});

describe("sites", () => {
  test("are made with hosts, and found by key or id", async () => {
    const { status, body } = await garden.call("POST", "/sites", {
      key: "pond",
      name: "Pond",
      hosts: [{ name: "Pond.example", role: "primary" }],
      shortPrefix: "/",
    });
    assert.deepEqual(
      [status, body.hosts[0].name, body.hosts[0].url, body.shortPrefix],
      [201, "pond.example", "https://pond.example/", "/"],
    );
    assert.equal((await garden.call("GET", `/sites/${body.id}`)).body.key, "pond");
    assert.equal((await garden.call("GET", "/sites")).body.total, 2);
  });

  test("never share a key or a host", async () => {
    const key = await garden.call("POST", "/sites", {
      key: "garden",
      name: "G",
      hosts: [{ name: "g2.example", role: "primary" }],
    });
    assert.deepEqual([key.status, key.body.errors[0].path], [422, "key"]);
    const host = await garden.call("POST", "/sites", {
      key: "g3",
      name: "G",
      hosts: [{ name: "gdn.example", role: "primary" }],
    });
    assert.deepEqual([host.status, host.body.errors[0].path], [422, "hosts"]);
  });
});

const HERE = "192.0.2.200";

describe("people and tokens", () => {
  const credentials = { email: "ida@garden.example", password: "three old spades" };

  test("a password opens a session, which ends", async () => {
    await addPerson(garden.desk, { ...credentials, name: "Ida", role: "owner" });
    const { token } = await signIn(garden.desk, credentials, "192.0.2.1");
    assert.equal((await personOfSession(garden.desk, token))?.name, "Ida");
    assert.equal(await personOfSession(garden.desk, `${token}x`), undefined);
    await signOut(garden.desk, token);
    assert.equal(await personOfSession(garden.desk, token), undefined);
  });

  test("neither password nor token is stored as it is", async () => {
    const { token } = await signIn(garden.desk, credentials, "192.0.2.1");
    const rows = await garden.store.rows<{ all: string }>(
      "SELECT (SELECT json_agg(p)::text FROM people p) || (SELECT json_agg(s)::text FROM sessions s) AS all",
    );
    assert.ok(!rows[0]!.all.includes(credentials.password) && !rows[0]!.all.includes(token));
    assert.match(rows[0]!.all, /scrypt\$32768\$8\$1\$/);
  });

  const isTooMany = (error: Problem): boolean =>
    error.status === 429 && Number(error.headers["Retry-After"]) > 0;
  const wrongFrom = (place: string): Promise<unknown> =>
    signIn(garden.desk, { ...credentials, password: "four new spades" }, place);

  // Whoever has to wait does so for a minute: on a busy machine, comparing a few passwords takes longer than two seconds.
  const lengthenWaits = () =>
    garden.store.rows(
      "UPDATE attempts SET until = now() + interval '1 minute' WHERE until > at AND tries >= 6 RETURNING who",
    );

  test("attempts at once are as many as one after another: six are compared, the others wait", async () => {
    const answers = await Promise.allSettled(Array.from({ length: 40 }, () => wrongFrom("192.0.2.2")));
    const statuses = answers.map((one) => (one.status === "rejected" ? (one.reason as Problem).status : 200));
    assert.deepEqual(
      [statuses.filter((one) => one === 401).length, statuses.filter((one) => one === 429).length],
      [6, 34],
    );
    await lengthenWaits();
    await assert.rejects(() => signIn(garden.desk, credentials, "192.0.2.2"), isTooMany);
  });

  test("people of one house who sign in at the same moment do not make each other wait", async () => {
    for (let house = 0; house < 20; house += 1) {
      const everybody = Array.from({ length: 8 }, (_, who) =>
        countAttempt(garden.store, [
          { who: `pair ${house} ${who}`, free: 6 },
          { who: `place of house ${house}`, free: 30 },
        ]),
      );
      assert.deepEqual(await Promise.all(everybody), Array(8).fill(0));
    }
  });

  test("strangers lock nobody out of the place where they usually are", async () => {
    for (let place = 0; place < 25; place += 1)
      await assert.rejects(
        () => wrongFrom(`198.51.100.${place}`),
        (error: Problem) => [401, 429].includes(error.status),
      );
    await lengthenWaits();
    await assert.rejects(() => signIn(garden.desk, credentials, "203.0.113.9"), isTooMany);
    assert.ok((await signIn(garden.desk, credentials, "192.0.2.1")).token);
  });

  test("an IPv6 household is one place", async () => {
    const mail = "nobody@garden.example";
    for (let at = 1; at <= 6; at += 1)
      await assert.rejects(
        () => signIn(garden.desk, { email: mail, password: "x" }, `2001:db8:1:2::${at}`),
        (error: Problem) => error.status === 401,
      );
    await lengthenWaits();
    await assert.rejects(
      () => signIn(garden.desk, { email: mail, password: "x" }, "2001:db8:1:2:ffff::1"),
      isTooMany,
    );
    await assert.rejects(
      () => signIn(garden.desk, { email: mail, password: "x" }, "2001:db8:1:3::1"),
      (error: Problem) => error.status === 401,
    );
  });

  test("failed attempts, signing in and signing out stand in the audit log", async () => {
    const rows = await garden.store.rows<{ action: string; times: number }>(
      "SELECT action, count(*)::int AS times FROM audit WHERE action LIKE 'sign-%' GROUP BY action ORDER BY action",
    );
    assert.deepEqual(
      rows.map(({ action }) => action),
      ["sign-in", "sign-in.failed", "sign-out"],
    );
    assert.ok(rows[1]!.times >= 12);
  });

  test("wrong tokens wait too; the right one is never held up", async () => {
    const ask = (token: string): Promise<unknown> =>
      actorOfToken(garden.desk, token, "the-owners-own-token-of-the-tests", "192.0.2.77");
    for (let at = 0; at < 20; at += 1) assert.equal(await ask(`mr_wrong-${at}`), undefined);
    await assert.rejects(() => ask("mr_wrong-again"), isTooMany);
    assert.ok(await ask("the-owners-own-token-of-the-tests"));
  });

  test("a token is shown once, works until it is ended, and has an end if asked", async () => {
    const { body: made } = await garden.call("POST", "/tokens", { name: "script", role: "editor" });
    assert.match(made.token, /^mr_[\w-]{40,}$/);
    assert.deepEqual(await actorOfToken(garden.desk, made.token, undefined, HERE), {
      name: "token script",
      token: made.id,
      role: "editor",
    });
    const { body: list } = await garden.call("GET", "/tokens");
    assert.equal(list.items[0].token, undefined);
    assert.ok(list.items[0].lastUsedAt);
    await garden.call("DELETE", `/tokens/${made.id}`);
    assert.equal(await actorOfToken(garden.desk, made.token, undefined, HERE), undefined);
    const ended = { name: "old", role: "owner", expiresAt: "2020-01-01T00:00:00Z" };
    const refused = await garden.call("POST", "/tokens", ended);
    assert.deepEqual([refused.status, refused.body.errors[0].path], [422, "expiresAt"]);
    const { body: old } = await garden.call("POST", "/tokens", {
      ...ended,
      expiresAt: "2999-01-01T00:00:00Z",
    });
    await garden.store.rows("UPDATE tokens SET expires_at = now() WHERE id = $id::bigint RETURNING id", {
      id: old.id,
    });
    assert.equal(await actorOfToken(garden.desk, old.token, undefined, HERE), undefined);
  });

  test("the installation's own token is an owner's", async () => {
    const own = "a-token-of-at-least-24-characters";
    assert.equal((await actorOfToken(garden.desk, own, own, HERE))?.role, "owner");
    assert.equal(await actorOfToken(garden.desk, `${own}x`, own, HERE), undefined);
  });
});

test("none of this was a failure of ours", () => assert.deepEqual(garden.failures, []));
