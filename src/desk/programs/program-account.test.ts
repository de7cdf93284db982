import assert from "node:assert/strict";
import { after, before, describe, test } from "node:test";
import type { TestDesk } from "../../../tests/support/desk.ts";
import { until } from "../../../tests/support/ask.ts";
import { deskWithProgram } from "../../../tests/support/program.ts";
import { sealWith } from "../ground/seal.ts";

const AT = "/sites/garden/programs";
let garden: TestDesk;
let harbour: { id: string; version: number };

before(async () => {
  ({ garden, harbour } = await deskWithProgram());
});
after(async () => {
  assert.deepEqual(garden.failures, []);
  await garden.close();
});

const audited = async (action: string): Promise<number> =>
  (await garden.store.rows("SELECT 1 FROM audit WHERE action = $action", { action })).length;

describe("credentials", () => {
  const SECRET = { name: "mara@garden.example", password: "fog on the lawn" };

  test("are stored unreadable, shown on request only, and each showing is noted", async () => {
    assert.equal((await garden.call("PUT", `${AT}/${harbour.id}/credentials`, SECRET)).status, 204);
    const everywhere = await garden.store.rows<{ all: string }>(
      "SELECT p::text AS all FROM programs p UNION ALL SELECT a::text FROM audit a",
    );
    assert.ok(everywhere.every(({ all }) => !all.includes(SECRET.password) && !all.includes(SECRET.name)));
    for (const path of [AT, `${AT}/${harbour.id}`, "/sites/garden"]) {
      const { bytes } = await garden.call("GET", path);
      assert.ok(!new TextDecoder().decode(bytes).includes("fog"), path);
    }
    assert.equal((await garden.call("GET", `${AT}/${harbour.id}`)).body.hasCredentials, true);
    const before = await audited("credentials.show");
    const shown = await garden.call("POST", `${AT}/${harbour.id}/credentials/show`);
    assert.deepEqual(shown.body, SECRET);
    assert.equal(await audited("credentials.show"), before + 1);
  });

  test("are not shown to readers", async () => {
    const reader = { actor: { name: "Rea", role: "reader" as const } };
    const shown = await garden.call("POST", `${AT}/${harbour.id}/credentials/show`, undefined, reader);
    assert.deepEqual([shown.status, shown.body.password], [403, undefined]);
  });

  test("outlive a change of the key while the earlier one is named, and are not shown under a wrong one", async () => {
    const own = garden.desk.seal;
    garden.desk.seal = sealWith(["another secret"]);
    const wrong = await garden.call("POST", `${AT}/${harbour.id}/credentials/show`);
    assert.deepEqual([wrong.status, wrong.body.title], [422, "These cannot be opened"]);
    const unreadable = await garden.call("POST", "/sites/garden/credentials/renew");
    assert.deepEqual(unreadable.body, { renewed: 0, unreadable: ["Harbour Optics"] });
    garden.desk.seal = sealWith(["another secret", "a secret of the tests"]);
    assert.deepEqual((await garden.call("POST", "/sites/garden/credentials/renew")).body, {
      renewed: 1,
      unreadable: [],
    });
    garden.desk.seal = sealWith(["another secret"]);
    assert.deepEqual((await garden.call("POST", `${AT}/${harbour.id}/credentials/show`)).body, SECRET);
    assert.equal((await garden.call("DELETE", `${AT}/${harbour.id}/credentials`)).status, 204);
    assert.equal((await garden.call("POST", `${AT}/${harbour.id}/credentials/show`)).status, 404);
    garden.desk.seal = own;
  });

  test("sealed for one program do not open at another, nor when a sign was changed", () => {
    const seal = sealWith(["k"]);
    const closed = seal.close("text", "1/2");
    assert.equal(seal.open(closed, "1/2"), "text");
    assert.equal(seal.open(closed, "1/3"), undefined);
    const at = closed.length - 4;
    assert.equal(
      seal.open(closed.slice(0, at) + (closed[at] === "A" ? "B" : "A") + closed.slice(at + 1), "1/2"),
      undefined,
    );
    assert.equal(seal.open("nonsense", "1/2"), undefined);
    assert.notEqual(seal.close("text", "1/2"), closed, "no two are alike");
  });
});

describe("a network's catalogue", () => {
  const ENTRY = { name: "Fernhill", domains: ["fernhill.example"], commission: 12, about: "Cabins" };
  const outside = (
    answer: { ok: true; type: string; bytes: Uint8Array } | { ok: false; reason: string },
  ): void => {
    garden.desk.outgoing = { ...garden.desk.outgoing, read: async () => answer };
  };
  const json = (value: unknown) => ({
    ok: true as const,
    type: "application/json",
    bytes: Buffer.from(JSON.stringify(value)),
  });
  const search = (query = "") => garden.call("GET", `/sites/garden/catalogue?network=Saltmarsh${query}`);

  test("is searched, with what is joined already", async () => {
    await garden.call("PUT", "/sites/garden/networks", {
      name: "Saltmarsh",
      hosts: ["go.saltmarsh.example"],
      catalogue: "https://go.saltmarsh.example/catalogue.json",
    });
    outside(
      json({
        programs: [
          ENTRY,
          { ...ENTRY, name: "Harbour", domains: ["harbour.example"] },
          { name: "No domain", commission: 1 },
        ],
      }),
    );
    const { body } = await search();
    assert.deepEqual(
      body.items.map(({ name, known }: { name: string; known: { name: string } | null }) => [
        name,
        known?.name,
      ]),
      [
        ["Fernhill", undefined],
        ["Harbour", "Harbour Optics"],
      ],
    );
    assert.equal(body.refused.length, 1);
    assert.deepEqual((await search("&q=cabins fern")).body.total, 1);
  });

  test("that stops half-way, never answers or is no catalogue is told in words, and the last one stays", async () => {
    assert.equal((await search()).body.total, 2);
    for (const [answer, message] of [
      [{ ok: false as const, reason: "stopped half-way" }, /stopped half-way/],
      [
        { ok: true as const, type: "application/json", bytes: Buffer.from('{"programs": [') },
        /no JSON to its end/,
      ],
      [json({ shops: [] }), /no list of programs/],
    ] as const) {
      outside(answer);
      const asked = await garden.call("POST", "/sites/garden/catalogue/pull", { network: "Saltmarsh" });
      assert.equal(asked.status, 202);
      const failed = await until("it has failed", async () => {
        const now = await garden.call("GET", `/jobs/${asked.body.id}`);
        return now.body.state === "failed" ? now : undefined;
      });
      assert.match(failed!.body.problem.detail, message);
      // Nobody asks the network for what it gave within a day.
      assert.equal((await search()).body.total, 2);
    }
    await garden.call("PUT", "/sites/garden/networks", {
      name: "Saltmarsh",
      hosts: ["go.saltmarsh.example"],
      catalogue: "https://go.saltmarsh.example/other.json",
    });
    assert.equal((await search()).status, 422);
    assert.equal((await garden.call("GET", "/sites/garden/catalogue?network=Nobody")).status, 422);
  });

  test("may come as a file of one's own, CSV with whatever separator", async () => {
    const csv =
      "\uFEFFname;domains;commission;about\r\nFernhill;fernhill.example *.fernhill.example;12;Cabins\r\n";
    const { body } = await garden.call("POST", "/sites/garden/catalogue", undefined, {
      raw: csv,
      headers: { "Content-Type": "text/csv" },
    });
    assert.deepEqual(
      [body.items[0].name, body.items[0].domains],
      ["Fernhill", ["fernhill.example", "*.fernhill.example"]],
    );
    const bad = await garden.call("POST", "/sites/garden/catalogue", undefined, {
      raw: "a,b\n1,2",
      headers: { "Content-Type": "text/csv" },
    });
    assert.match(bad.body.detail, /first line/);
  });
});
