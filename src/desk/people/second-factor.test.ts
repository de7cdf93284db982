import assert from "node:assert/strict";
import { after, before, describe, test } from "node:test";
import { Secret, TOTP } from "otpauth";
import { testDesk, type TestDesk } from "../../../tests/support/desk.ts";
import type { Actor } from "../../core/people/actor.ts";
import type { Problem } from "../ground/problem.ts";
import { addPerson, personOfSession, signIn } from "./people.ts";

const IDA = { email: "ida@garden.example", password: "three old spades" };
const OTTO = { email: "otto@garden.example", password: "seven green gates" };

let garden: TestDesk;
before(async () => {
  garden = await testDesk();
  await addPerson(garden.desk, { ...IDA, name: "Ida Fern", role: "owner" });
  await addPerson(garden.desk, { ...OTTO, name: "Otto", role: "editor" });
});
after(() => garden.close());

async function signedIn(credentials: object): Promise<Actor> {
  const { token } = await signIn(garden.desk, credentials as typeof IDA, "192.0.2.1");
  return (await personOfSession(garden.desk, token))!;
}
const codeOf = (secret: string, steps = 0): string =>
  new TOTP({ secret: Secret.fromBase32(secret) }).generate({ timestamp: Date.now() + steps * 30_000 });
const atCode = (error: Problem): boolean => {
  assert.deepEqual([error.status, error.errors[0]?.path], [401, "code"]);
  return true;
};
const asked = (method: string, path: string, actor: Actor, body?: object) =>
  garden.call(method, `/me/second-factor${path}`, body, { actor });

/** Sets one up; the code of the step before is used up by it. */
async function setUp(actor: Actor, password: string): Promise<{ secret: string; recovery: string[] }> {
  const { body } = await asked("POST", "", actor, { password });
  const { status, body: told } = await asked("POST", "/confirm", actor, { code: codeOf(body.secret, -1) });
  assert.equal(status, 200);
  return { secret: body.secret, recovery: told.recovery };
}

describe("a second factor", () => {
  test("counts once it is confirmed; then it is asked for, each code once", async () => {
    const actor = await signedIn(IDA);
    assert.equal((await asked("POST", "", actor, { password: "wrong" })).status, 422);
    const begun = await asked("POST", "", actor, { password: IDA.password });
    assert.equal(begun.status, 201);
    await signedIn(IDA);
    const wrong = await asked("POST", "/confirm", actor, { code: "000000" });
    assert.deepEqual([wrong.status, wrong.body.errors[0].path], [422, "code"]);
    const { secret, recovery } = await setUp(actor, IDA.password);
    assert.deepEqual((await asked("GET", "", actor)).body.recoveryLeft, 10);

    await assert.rejects(() => signedIn(IDA), atCode);
    await assert.rejects(() => signedIn({ ...IDA, code: codeOf(secret, -1) }), atCode, "it confirmed");
    await assert.rejects(
      () => signedIn({ ...IDA, password: "wrong", code: codeOf(secret) }),
      /password is wrong/,
    );
    const code = codeOf(secret);
    const both = await Promise.allSettled([1, 2].map(() => signedIn({ ...IDA, code })));
    assert.deepEqual(both.map(({ status }) => status).sort(), ["fulfilled", "rejected"]);

    await signedIn({ ...IDA, code: recovery[3]!.toUpperCase().replace("-", " ") });
    await assert.rejects(() => signedIn({ ...IDA, code: recovery[3]! }), atCode);
    assert.equal((await asked("GET", "", actor)).body.recoveryLeft, 9);
    const renewed = await asked("POST", "/recovery", actor, { password: IDA.password });
    await assert.rejects(() => signedIn({ ...IDA, code: recovery[4]! }), atCode);
    await signedIn({ ...IDA, code: renewed.body.recovery[0] });
    const [kept] = await garden.store.rows<{ all: string }>(
      "SELECT json_agg(p)::text || (SELECT json_agg(a)::text FROM audit a) AS all FROM people p",
    );
    for (const told of [secret, renewed.body.recovery[1]]) assert.ok(!kept!.all.includes(told));
  });

  test("is not begun anew over one that counts, and is taken away with the password, or by an owner", async () => {
    const actor = await signedIn(OTTO);
    await setUp(actor, OTTO.password);
    assert.equal((await asked("POST", "", actor, { password: OTTO.password })).status, 409);
    assert.equal((await asked("POST", "/end", actor, { password: "wrong" })).status, 422);
    assert.equal((await asked("POST", "/end", actor, { password: OTTO.password })).status, 204);
    await signedIn(OTTO);
    await setUp(actor, OTTO.password);
    await assert.rejects(() => signedIn(OTTO), atCode);
    const owner: Actor = { name: "Ida", role: "owner" };
    const { body } = await garden.call("GET", "/people", undefined, { actor: owner });
    const otto = body.items.find(({ name }: { name: string }) => name === "Otto");
    assert.equal(otto.hasSecondFactor, true);
    const path = `/people/${otto.id}/second-factor`;
    assert.equal((await garden.call("DELETE", path, undefined, { actor })).status, 403);
    assert.equal((await garden.call("DELETE", path, undefined, { actor: owner })).status, 204);
    await signedIn(OTTO);
  });

  test("may be required: whoever has none sets one up and does nothing else", async () => {
    const token: Actor = { name: "token of the installation", role: "owner" };
    const rule = (secondFactor: string, actor: Actor) =>
      garden.call("PATCH", "/installation", { secondFactor }, { actor });
    const otto = await signedIn(OTTO);
    assert.equal((await rule("required", otto)).status, 403);
    await garden.store.rows("UPDATE people SET role = 'owner' WHERE email = $email RETURNING id", {
      email: OTTO.email,
    });
    const { status, body } = await rule("required", await signedIn(OTTO));
    assert.deepEqual([status, body.errors[0].path], [422, "secondFactor"], "nobody locks themselves out");
    assert.equal((await rule("required", token)).status, 200);
    const confined = await signedIn(OTTO);
    for (const [method, path] of [
      ["GET", "/sites"],
      ["GET", "/sites/garden/pages"],
      ["GET", "/people"],
      ["GET", "/me/tokens"],
      ["PATCH", "/installation"],
    ] as const) {
      const answer = await garden.call(method, path, method === "GET" ? undefined : {}, { actor: confined });
      assert.deepEqual([answer.status, answer.body.title], [403, "Second factor needed"], path);
    }
    await setUp(confined, OTTO.password);
    const [row] = await garden.store.rows<{ id: string }>(
      "SELECT id::text FROM people WHERE email = $email",
      {
        email: OTTO.email,
      },
    );
    assert.equal(row!.id, confined.person);
    assert.equal((await rule("optional", token)).status, 200);
  });
});
