import assert from "node:assert/strict";
import { after, before, describe, test } from "node:test";
import { testDesk, type TestDesk } from "../../../tests/support/desk.ts";
import type { Actor } from "../../core/people/actor.ts";
import { SESSION_IDLE_DAYS } from "../../core/people/choices.ts";
import type { Problem } from "../ground/problem.ts";
import { judgePassword } from "./judge-password.ts";
import { addPerson, personOfSession, signIn } from "./people.ts";

let garden: TestDesk;
before(async () => {
  garden = await testDesk();
  await addPerson(garden.desk, { ...IDA, name: "Ida Fern", role: "editor" });
  await addPerson(garden.desk, {
    email: "otto@garden.example",
    password: "seven green gates",
    name: "Otto",
    role: "owner",
  });
});
after(() => garden.close());

const IDA = { email: "ida@garden.example", password: "three old spades" };
const AGENT = "Mozilla/5.0 (X11; Linux x86_64; rv:130.0) Gecko/20100101 Firefox/130.0";

async function signedIn(credentials: { email: string; password: string }, place = "192.0.2.1") {
  const { token } = await signIn(garden.desk, credentials, place, AGENT);
  return { token, actor: (await personOfSession(garden.desk, token)) as Actor };
}
const isHere = async (token: string): Promise<boolean> =>
  (await personOfSession(garden.desk, token)) !== undefined;

describe("one's own account", () => {
  test("a token has none", async () => {
    const actor: Actor = { name: "token script", role: "owner" };
    for (const [method, path] of [
      ["GET", "/me"],
      ["GET", "/me/sessions"],
      ["POST", "/me/sessions/end-others"],
    ] as const)
      assert.equal((await garden.call(method, path, undefined, { actor })).status, 403, path);
  });

  test("sessions are listed with where they are from, and end one by one; nobody ends another's", async () => {
    const [first, second] = [await signedIn(IDA), await signedIn(IDA, "2001:db8:1:2::7")];
    const otto = await signedIn({ email: "otto@garden.example", password: "seven green gates" });
    const { body } = await garden.call("GET", "/me/sessions", undefined, { actor: first.actor });
    assert.deepEqual(
      body.items
        .map((one: { place: string; isThis: boolean; agent: string }) => [one.place, one.isThis, one.agent])
        .sort(),
      [
        ["192.0.2.1", true, AGENT],
        ["2001:db8:1:2::/64", false, AGENT],
      ],
    );
    const other = second.actor.session!;
    const end = (id: string, actor: Actor) =>
      garden.call("DELETE", `/me/sessions/${id}`, undefined, { actor });
    assert.equal((await end(other, otto.actor)).status, 404);
    for (const id of ["x", "1", "00000000-0000-0000-0000-000000000000"])
      assert.equal((await end(id, first.actor)).status, 404, id);
    assert.ok(await isHere(second.token));
    const ended = await end(other, first.actor);
    assert.equal(ended.status, 204, JSON.stringify(ended.body));
    assert.deepEqual([await isHere(second.token), await isHere(first.token)], [false, true]);
  });

  test("one that is not used ends by itself, and using it keeps it", async () => {
    const { token, actor } = await signedIn(IDA);
    const age = (days: number) =>
      garden.store.rows(
        "UPDATE sessions SET last_seen_at = now() - $days::float * interval '1 day' WHERE id = $id::uuid RETURNING id",
        { id: actor.session!, days },
      );
    await age(SESSION_IDLE_DAYS - 0.1);
    assert.ok(await isHere(token));
    const [row] = await garden.store.rows<{ fresh: boolean }>(
      "SELECT last_seen_at > now() - interval '1 minute' AS fresh FROM sessions WHERE id = $id::uuid",
      { id: actor.session! },
    );
    assert.equal(row!.fresh, true);
    await age(SESSION_IDLE_DAYS + 0.1);
    assert.equal(await isHere(token), false);
    assert.equal(await isHere(token), false, "asking does not bring it back");
  });

  test("name and mail address are changed, the latter with the password; both are one's own alone", async () => {
    const { actor } = await signedIn(IDA);
    const change = (body: object) => garden.call("PATCH", "/me", body, { actor });
    const named = await change({ name: "Ida of the Ferns", mail: IDA.email });
    assert.deepEqual([named.status, named.body.name, named.body.role], [200, "Ida of the Ferns", "editor"]);
    const faults = [
      [{ name: "otto", mail: IDA.email }, "name"],
      [{ name: "Ida", mail: "no address" }, "mail"],
      [{ name: "", mail: IDA.email }, "name"],
      [{ name: "Ida", mail: "new@garden.example" }, "password"],
      [{ name: "Ida", mail: "new@garden.example", password: "wrong" }, "password"],
      [{ name: "Ida", mail: "otto@garden.example", password: IDA.password }, "mail"],
    ] as const;
    for (const [body, path] of faults) {
      const { status, body: problem } = await change(body);
      assert.deepEqual([status, problem.errors[0].path], [422, path], JSON.stringify(body));
    }
    const moved = await change({ name: "Ida", mail: "NEW@garden.example", password: IDA.password });
    assert.deepEqual([moved.status, moved.body.mail], [200, "new@garden.example"]);
    await assert.rejects(signIn(garden.desk, IDA, "192.0.2.1"), (error: Problem) => error.status === 401);
    IDA.email = "new@garden.example";
    assert.ok((await signedIn(IDA)).actor.person);
  });

  test("a new password ends all other sessions; a weak one is refused with advice", async () => {
    const [here, there] = [await signedIn(IDA), await signedIn(IDA)];
    const change = (body: object) => garden.call("PUT", "/me/password", body, { actor: here.actor });
    for (const [body, path, says] of [
      [{ current: "wrong one", next: "a rope made of moonlight" }, "current", /not your password/],
      [{ current: IDA.password, next: "short" }, "next", /at least 10/],
      [{ current: IDA.password, next: IDA.password }, "next", /that you have/],
      [{ current: IDA.password, next: "password1234" }, "next", /too easy to guess/],
      [{ current: IDA.password, next: "idaidaidaida" }, "next", /too easy to guess/],
    ] as const) {
      const { status, body: problem } = await change(body);
      assert.deepEqual([status, problem.errors[0].path], [422, path]);
      assert.match(problem.errors[0].message, says);
    }
    const password = "a rope made of moonlight";
    const { status, body } = await change({ current: IDA.password, next: password });
    assert.equal(status, 200);
    assert.ok(body.ended >= 1);
    assert.deepEqual([await isHere(here.token), await isHere(there.token)], [true, false]);
    await assert.rejects(signIn(garden.desk, IDA, "192.0.2.1"), (error: Problem) => error.status === 401);
    IDA.password = password;
    await signedIn(IDA);
    const [kept] = await garden.store.rows<{ all: string }>(
      "SELECT json_agg(a)::text AS all FROM audit a WHERE action LIKE 'account.%'",
    );
    assert.ok(kept!.all.includes("account.password") && !kept!.all.includes(password));
  });

  test("whoever sits down at an open session cannot try passwords as they like", async () => {
    const { actor } = await signedIn(IDA);
    const statuses: number[] = [];
    for (let n = 0; n < 9; n += 1) {
      const guess = { current: `guess number ${n}`, next: "a knot in the evening wind" };
      statuses.push((await garden.call("PUT", "/me/password", guess, { actor })).status);
    }
    assert.deepEqual([statuses[0], statuses.at(-1)], [422, 429]);
  });

  test("tells who one is, one's tokens, and ends the other sessions", async () => {
    const [here, there] = [await signedIn(IDA), await signedIn(IDA, "192.0.2.9")];
    const call = (method: string, path: string) =>
      garden.call(method, path, undefined, { actor: here.actor });
    assert.deepEqual(
      [(await call("GET", "/me")).body.name, (await call("GET", "/me/tokens")).body.total],
      ["Ida", 0],
    );
    assert.ok((await call("POST", "/me/sessions/end-others")).body.ended >= 1);
    assert.deepEqual([await isHere(here.token), await isHere(there.token)], [true, false]);
  });
});

test("what is the person's own is no secret; words that nobody expects together are", async () => {
  const words = ["Ida", "Fern", "ida", "garden", "example"];
  for (const weak of ["Fern123456", "qwertyuiop", "1234567890", "aaaaaaaaaaaa"])
    assert.ok((await judgePassword(weak, words)).advice, weak);
  for (const good of ["a rope made of moonlight", "seven-pale-otters-knit", "vK9#qLm2!xTz"])
    assert.equal((await judgePassword(good, words)).advice, null, good);
});
