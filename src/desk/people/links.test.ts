import assert from "node:assert/strict";
import { after, before, describe, test } from "node:test";
import { testDesk, type TestDesk } from "../../../tests/support/desk.ts";
import type { Actor } from "../../core/people/actor.ts";
import type { HandedLink } from "../../core/people/member.ts";
import type { Problem } from "../ground/problem.ts";
import { lookAtLink, resetLink, takeLink } from "./links.ts";
import { addPerson, personOfSession, signIn } from "./people.ts";

const OWNER: Actor = { name: "Ida", role: "owner" };
const PASSWORD = "eleven slow herons";
const KNOWN = "known@garden.example";

let garden: TestDesk;
let siteOwner: Actor;
before(async () => {
  garden = await testDesk();
  siteOwner = { name: "Rea", role: null, sites: { [garden.site.id]: "owner" } };
  await addPerson(garden.desk, { email: KNOWN, password: PASSWORD, name: "Known", role: null });
});
after(() => garden.close());

async function signedIn(email: string, password = PASSWORD): Promise<Actor> {
  const { token } = await signIn(garden.desk, { email, password }, "192.0.2.1");
  return (await personOfSession(garden.desk, token))!;
}
function tokenOf(link: HandedLink): string {
  assert.match(link.path, /^\/welcome#[\w-]{43}$/);
  return link.path.split("#")[1]!;
}
const refused =
  (status: number, path?: string) =>
  (error: Problem): boolean => {
    assert.deepEqual([error.status, error.errors[0]?.path], [status, path]);
    return true;
  };
const invite = (body: object, path = "/people", actor = OWNER) => garden.call("POST", path, body, { actor });
const people = async (): Promise<{ id: string; name: string; mail: string; state: string }[]> =>
  (await garden.call("GET", "/people", undefined, { actor: OWNER })).body.items;

describe("somebody new", () => {
  test("comes in by a link, once, with a password that is judged and a name of their own", async () => {
    const site = garden.site.id;
    const roles = [{ site, role: "editor" }];
    const byKey = [{ site: "garden", role: "editor" }];
    const { status, body } = await invite({ mail: "New@Garden.example", name: "Nell", roles: byKey });
    assert.deepEqual(
      [status, body.mail, body.role, body.roles, body.state],
      [201, "new@garden.example", null, roles, "invited"],
    );
    const token = tokenOf(body.link);
    assert.equal((await people()).find(({ name }) => name === "Nell")!.state, "invited");
    await assert.rejects(() => signedIn("new@garden.example", ""), /or password is wrong/);
    assert.deepEqual(await lookAtLink(garden.desk, token), {
      mail: "new@garden.example",
      name: "Nell",
      isNew: true,
    });
    await assert.rejects(
      () => takeLink(garden.desk, { token, name: "Nell", password: "password1234" }),
      refused(422, "password"),
    );
    await assert.rejects(
      () => takeLink(garden.desk, { token, name: "KNOWN", password: PASSWORD }),
      refused(422, "name"),
    );
    const both = await Promise.allSettled(
      [1, 2].map(() => takeLink(garden.desk, { token, name: "Nell Fern", password: PASSWORD })),
    );
    assert.deepEqual(both.map(({ status: how }) => how).sort(), ["fulfilled", "rejected"]);
    const nell = await signedIn("new@garden.example");
    assert.deepEqual([nell.name, nell.sites], ["Nell Fern", { [site]: "editor" }]);
    await assert.rejects(() => lookAtLink(garden.desk, token), refused(410));
  });

  test("is let into a site by its owner, with a link; who has an account comes in at once, without one", async () => {
    const path = "/sites/garden/people";
    const unnamed = await invite({ mail: "b@garden.example", role: "reader" }, path, siteOwner);
    assert.deepEqual([unnamed.status, unnamed.body.errors[0].path], [422, "name"]);
    const fresh = await invite({ mail: "b@garden.example", name: "Bee", role: "reader" }, path, siteOwner);
    assert.deepEqual(
      [fresh.status, fresh.body.role, fresh.body.everywhere, fresh.body.state],
      [201, "reader", null, "invited"],
    );
    tokenOf(fresh.body.link);
    const known = await invite({ mail: KNOWN, role: "editor" }, path, siteOwner);
    assert.deepEqual([known.status, known.body.name, known.body.link], [201, "Known", null]);
    assert.deepEqual((await signedIn(KNOWN)).sites, { [garden.site.id]: "editor" });
    // Whoever never came in is gone with their only role; whoever did stays, and only not here.
    for (const { id } of [fresh.body, known.body])
      assert.equal(
        (await garden.call("DELETE", `${path}/${id}`, undefined, { actor: siteOwner })).status,
        204,
      );
    const left = (await people()).map(({ name }) => name);
    assert.deepEqual([left.includes("Bee"), left.includes("Known")], [false, true]);
  });

  test("who is kept out is not let in by an owner of a site", async () => {
    const { id } = (await people()).find(({ name }) => name === "Known")!;
    const active = (isActive: boolean) =>
      garden.call("PATCH", `/people/${id}`, { isActive }, { actor: OWNER });
    await active(false);
    const { status } = await invite({ mail: KNOWN, role: "owner" }, "/sites/garden/people", siteOwner);
    assert.equal(status, 409);
    await active(true);
    assert.deepEqual((await signedIn(KNOWN)).sites, {});
  });

  test("what makes no sense is refused at its field", async () => {
    for (const [body, path] of [
      [{ mail: "c@garden.example", name: "C" }, "roles"],
      [{ mail: "c@garden.example", name: "C", roles: [{ site: "999999", role: "reader" }] }, "roles.0"],
      [
        {
          mail: "c@garden.example",
          name: "C",
          roles: [
            { site: "garden", role: "reader" },
            { site: garden.site.id, role: "editor" },
          ],
        },
        "roles.1",
      ],
      [{ mail: "c@garden.example", role: "reader" }, "name"],
      [{ mail: "not a mail", name: "C", role: "reader" }, "mail"],
      [{ mail: KNOWN, name: "C", role: "reader" }, "mail"],
      [{ mail: "c@garden.example", name: "known", role: "reader" }, "name"],
    ] as const) {
      const { status, body: told } = await invite(body);
      assert.deepEqual([status, told.errors[0].path], [422, path], JSON.stringify(body));
    }
  });
});

describe("somebody who lost their password", () => {
  test("chooses a new one by a link, once; their sessions end, and an earlier link is none any more", async () => {
    const session = await signIn(garden.desk, { email: KNOWN, password: PASSWORD }, "192.0.2.1");
    const { id } = (await people()).find(({ name }) => name === "Known")!;
    const first = tokenOf(
      (await garden.call("POST", `/people/${id}/reset-link`, undefined, { actor: OWNER })).body,
    );
    const token = tokenOf(await resetLink(garden.desk, OWNER, { email: KNOWN }));
    await assert.rejects(() => lookAtLink(garden.desk, first), refused(410));
    assert.deepEqual(await lookAtLink(garden.desk, token), { mail: KNOWN, name: "Known", isNew: false });
    await assert.rejects(() => takeLink(garden.desk, { token, password: KNOWN }), refused(422, "password"));
    assert.notEqual(await personOfSession(garden.desk, session.token), undefined);
    const next = "forty dry umbrellas";
    await takeLink(garden.desk, { token, name: "Somebody else", password: next });
    assert.equal(await personOfSession(garden.desk, session.token), undefined);
    await assert.rejects(() => signedIn(KNOWN));
    assert.equal((await signedIn(KNOWN, next)).name, "Known", "a name is chosen by whoever is new");
    await assert.rejects(() => takeLink(garden.desk, { token, password: PASSWORD }), refused(410));
  });

  test("nobody who is not there", async () => {
    for (const who of [{ id: "999999" }, { id: "x" }, { email: "nobody@garden.example" }])
      await assert.rejects(() => resetLink(garden.desk, OWNER, who), refused(404));
  });
});

test("a person is taken away with what they had; their name may be another's then", async () => {
  const { body } = await invite({ mail: "gone@garden.example", name: "Gone", role: "reader" });
  await takeLink(garden.desk, { token: tokenOf(body.link), password: PASSWORD });
  const { token } = await signIn(
    garden.desk,
    { email: "gone@garden.example", password: PASSWORD },
    "192.0.2.1",
  );
  assert.equal((await garden.call("DELETE", `/people/${body.id}`, undefined, { actor: OWNER })).status, 204);
  assert.equal(await personOfSession(garden.desk, token), undefined);
  assert.equal((await invite({ mail: "gone@garden.example", name: "Gone", role: "reader" })).status, 201);
});
