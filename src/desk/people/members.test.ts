import assert from "node:assert/strict";
import { after, before, describe, test } from "node:test";
import { testDesk, type TestDesk } from "../../../tests/support/desk.ts";
import type { Actor } from "../../core/people/actor.ts";
import { ROLES, type Role } from "../../core/people/choices.ts";
import { reaches } from "../../core/people/roles.ts";
import { HANDLED } from "../handlers.ts";
import { createSite } from "../sites/sites.ts";
import { addPerson, personOfSession, signIn } from "./people.ts";
import { actorOfToken } from "./tokens.ts";

const OWNER = { email: "ida@garden.example", password: "three old spades" };
const MEMBER = { email: "wren@garden.example", password: "nine quiet ponds" };

let garden: TestDesk;
let other: string;
let owner: Actor;
before(async () => {
  garden = await testDesk();
  const hosts = [{ name: "orchard.example", role: "primary" as const }];
  other = (
    await createSite(
      garden.desk,
      { name: "Ida", role: "owner" },
      { key: "orchard", name: "The walled orchard", hosts },
    )
  ).id;
  await addPerson(garden.desk, { ...OWNER, name: "Ida Fern", role: "owner" });
  await addPerson(garden.desk, { ...MEMBER, name: "Wren Moss", role: null });
  owner = await signedIn(OWNER);
});
after(() => garden.close());

async function signedIn(credentials: { email: string; password: string }): Promise<Actor> {
  const { token } = await signIn(garden.desk, credentials, "192.0.2.1");
  return (await personOfSession(garden.desk, token))!;
}
async function idOf(name: string): Promise<string> {
  const { body } = await garden.call("GET", "/people", undefined, { actor: owner });
  return body.items.find((one: { name: string }) => one.name === name).id;
}
const bodyOf = ({ method }: { method: string }): object | undefined => (method === "GET" ? undefined : {});
const pathOf = (path: string, site: string): string =>
  path
    .replace(":site", site)
    .replace(":item", "page-1")
    .replace(":host", "garden.example")
    .replace(/:(?:job|session)/, "00000000-0000-4000-8000-000000000000")
    .replace(/:\w+/g, "1");

describe("roles over the whole API", () => {
  test("nothing of a site one is not in is seen, by any call; it is as if there were none", async () => {
    const actor: Actor = { name: "Wren", role: null, sites: { [garden.site.id]: "owner" } };
    for (const { call } of HANDLED.filter((one) => one.call.path.startsWith("/sites/:site")))
      for (const site of [other, "orchard"]) {
        const name = `${call.method} ${call.path}`;
        const { status, body } = await garden.call(call.method, pathOf(call.path, site), bodyOf(call), {
          actor,
        });
        assert.deepEqual(
          [status, body.detail],
          [404, `The site “${site}” does not exist, or was deleted.`],
          name,
        );
      }
    const { body } = await garden.call("GET", "/sites", undefined, { actor });
    assert.deepEqual(
      body.items.map(({ key }: { key: string }) => key),
      ["garden"],
    );
  });

  for (const role of ROLES)
    test(`on a site, as ${role}: what needs more is refused before anything of it is looked at`, async () => {
      const actor: Actor = { name: "Wren", role: null, sites: { [garden.site.id]: role } };
      for (const { call } of HANDLED.filter((one) => !reaches(role, one.call.role))) {
        const { status } = await garden.call(call.method, pathOf(call.path, "garden"), bodyOf(call), {
          actor,
        });
        assert.equal(status, 403, `${call.method} ${call.path}`);
      }
      const { status } = await garden.call("GET", "/sites/garden/routes", undefined, { actor });
      assert.equal(status, 200);
    });

  test("an owner of a site owns nothing of the installation", async () => {
    const actor: Actor = { name: "Wren", role: null, sites: { [garden.site.id]: "owner" } };
    for (const { call } of HANDLED.filter(
      (one) => one.call.role !== "reader" && !/:site/.test(one.call.path),
    ))
      assert.equal(
        (await garden.call(call.method, pathOf(call.path, ""), bodyOf(call), { actor })).status,
        403,
        `${call.method} ${call.path}`,
      );
  });

  test("roles are read with every request: what is given or taken holds at once", async () => {
    const id = await idOf("Wren Moss");
    const see = async (): Promise<number> =>
      (await garden.call("GET", "/sites/garden", undefined, { actor: await signedIn(MEMBER) })).status;
    assert.equal(await see(), 404);
    const give = { roles: [{ site: garden.site.id, role: "reader" }] };
    assert.equal((await garden.call("PATCH", `/people/${id}`, give, { actor: owner })).status, 200);
    assert.equal(await see(), 200);
    assert.equal((await garden.call("PATCH", `/people/${id}`, { roles: [] }, { actor: owner })).status, 200);
    assert.equal(await see(), 404);
  });
});

describe("people", () => {
  test("the last owner stays one, and may not be kept out, however many try at once", async () => {
    const id = await idOf("Ida Fern");
    for (const change of [{ role: "editor" }, { role: null }, { isActive: false }]) {
      const { status, body } = await garden.call("PATCH", `/people/${id}`, change, { actor: owner });
      assert.deepEqual([status, /last who owns/.test(body.detail)], [409, true], JSON.stringify(change));
    }
    await addPerson(garden.desk, { ...OWNER, email: "otto@garden.example", name: "Otto", role: "owner" });
    const both = [id, await idOf("Otto")];
    const answers = await Promise.all(
      both.map((one) => garden.call("PATCH", `/people/${one}`, { role: "reader" }, { actor: owner })),
    );
    assert.deepEqual(answers.map(({ status }) => status).sort(), [200, 409]);
    for (const one of both) await garden.call("PATCH", `/people/${one}`, { role: "owner" }, { actor: owner });
  });

  test("who is deactivated is out at once, with every session and token, and may come back", async () => {
    const id = await idOf("Wren Moss");
    await garden.call("PATCH", `/people/${id}`, { role: "reader" }, { actor: owner });
    const { token } = await signIn(garden.desk, MEMBER, "192.0.2.9");
    const wren = (await personOfSession(garden.desk, token))!;
    const { body: made } = await garden.call(
      "POST",
      "/me/tokens",
      { name: "script", role: "owner" },
      { actor: wren },
    );
    assert.equal((await actorOfToken(garden.desk, made.token, undefined, "192.0.2.9"))!.role, "reader");
    await garden.call("PATCH", `/people/${id}`, { isActive: false }, { actor: owner });
    assert.equal(await personOfSession(garden.desk, token), undefined);
    assert.equal(await actorOfToken(garden.desk, made.token, undefined, "192.0.2.9"), undefined);
    await assert.rejects(() => signIn(garden.desk, MEMBER, "192.0.2.9"), /or password is wrong/);
    await garden.call("PATCH", `/people/${id}`, { isActive: true }, { actor: owner });
    assert.equal((await signedIn(MEMBER)).name, "Wren Moss");
    await garden.call("PATCH", `/people/${id}`, { role: null }, { actor: owner });
  });

  test("an owner of a site sees who may come into it and what they may do, and changes what the site says", async () => {
    const id = await idOf("Wren Moss");
    const actor: Actor = { name: "Rea", role: null, sites: { [other]: "owner" } };
    const members = async (): Promise<(string | null)[][]> =>
      (await garden.call("GET", "/sites/orchard/people", undefined, { actor })).body.items.map(
        (one: { name: string; role: string; everywhere: string }) => [one.name, one.role, one.everywhere],
      );
    assert.deepEqual(await members(), [
      ["Ida Fern", null, "owner"],
      ["Otto", null, "owner"],
    ]);
    // Somebody of another site is nobody here.
    const path = `/sites/orchard/people/${id}`;
    assert.equal((await garden.call("PUT", path, { role: "editor" }, { actor })).status, 404);
    await garden.call(
      "PATCH",
      `/people/${id}`,
      { roles: [{ site: other, role: "reader" }] },
      { actor: owner },
    );
    assert.equal((await garden.call("PUT", path, { role: "editor" }, { actor })).body.role, "editor");
    assert.deepEqual((await members()).at(-1), ["Wren Moss", "editor", null]);
    assert.equal((await garden.call("DELETE", path, undefined, { actor })).status, 204);
    assert.equal((await members()).length, 2);
    const everywhere = await garden.call("DELETE", `/sites/orchard/people/${await idOf("Otto")}`, undefined, {
      actor,
    });
    assert.equal(everywhere.status, 409);
  });

  test("a site or a person that there is not is refused at its field, or not found", async () => {
    const id = await idOf("Wren Moss");
    const change = { roles: [{ site: "999999", role: "reader" }] };
    const { status, body } = await garden.call("PATCH", `/people/${id}`, change, { actor: owner });
    assert.deepEqual([status, body.errors[0].path], [422, "roles.0"]);
    assert.equal((await garden.call("PATCH", "/people/999999", {}, { actor: owner })).status, 404);
  });
});

describe("tokens of sites", () => {
  const may = async (token: string, site: string): Promise<Role | number> => {
    const actor = (await actorOfToken(garden.desk, token, undefined, "192.0.2.4"))!;
    const { status } = await garden.call("GET", `/sites/${site}/routes`, undefined, { actor });
    return status;
  };
  test("the installation's for chosen sites; where it was last used from", async () => {
    const body = { name: "one site", role: "editor", sites: [other] };
    const { body: made } = await garden.call("POST", "/tokens", body, { actor: owner });
    assert.deepEqual([await may(made.token, "orchard"), await may(made.token, "garden")], [200, 404]);
    const { body: list } = await garden.call("GET", "/tokens", undefined, { actor: owner });
    const kept = list.items.find((one: { name: string }) => one.name === "one site");
    assert.deepEqual([kept.sites, kept.lastUsedFrom], [[other], "192.0.2.4"]);
  });

  test("one's own are one's own alone, and follow what one may", async () => {
    const id = await idOf("Wren Moss");
    await garden.call(
      "PATCH",
      `/people/${id}`,
      { roles: [{ site: other, role: "reader" }] },
      { actor: owner },
    );
    const wren = await signedIn(MEMBER);
    const body = { name: "mine", role: "owner" };
    const { body: made } = await garden.call("POST", "/me/tokens", body, { actor: wren });
    assert.deepEqual([await may(made.token, "orchard"), await may(made.token, "garden")], [200, 404]);
    const foreign = { name: "x", role: "reader", sites: [garden.site.id] };
    const { status, body: told } = await garden.call("POST", "/me/tokens", foreign, { actor: wren });
    assert.deepEqual([status, told.errors[0].path], [422, "sites.0"]);
    const mine = `/me/tokens/${made.id}`;
    assert.equal((await garden.call("DELETE", mine, undefined, { actor: owner })).status, 404);
    assert.equal(
      (await garden.call("DELETE", `/tokens/${made.id}`, undefined, { actor: owner })).status,
      404,
    );
    assert.equal((await garden.call("DELETE", mine, undefined, { actor: wren })).status, 204);
    assert.equal(await actorOfToken(garden.desk, made.token, undefined, "192.0.2.4"), undefined);
  });
});
