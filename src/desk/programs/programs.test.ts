import assert from "node:assert/strict";
import { after, before, describe, test } from "node:test";
import type { TestDesk } from "../../../tests/support/desk.ts";
import { HARBOUR, deskWithProgram } from "../../../tests/support/program.ts";

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

describe("a program", () => {
  test("is kept whole, with the day it came into each state", async () => {
    const { body } = await garden.call("GET", `${AT}/${harbour.id}`);
    assert.deepEqual(
      [body.name, body.domains, body.cookieDays, body.hasCredentials],
      ["Harbour Optics", ["harbour.example"], 30, false],
    );
    assert.deepEqual(Object.keys(body.stateDates), ["approved"]);
    const paused = await garden.call("PATCH", `${AT}/${harbour.id}`, {
      version: body.version,
      state: "paused",
    });
    assert.deepEqual(Object.keys(paused.body.stateDates).sort(), ["approved", "paused"]);
    assert.equal(paused.body.trackingId, "GD-7", "what is not named stays");
    const stale = await garden.call("PATCH", `${AT}/${harbour.id}`, {
      version: body.version,
      state: "closed",
    });
    assert.deepEqual([stale.status, stale.body.current.state], [409, "paused"]);
    const back = await garden.call("PATCH", `${AT}/${harbour.id}`, {
      version: paused.body.version,
      state: "approved",
    });
    harbour = back.body;
  });

  test("that cannot be is refused at its field", async () => {
    for (const [change, path, message] of [
      [{ name: "" }, "name", /missing/],
      [{ domains: [] }, "domains", /at least one/],
      [{ domains: ["https://x.example/"] }, "domains.0", /is an address/],
      [{ template: "https://go.saltmarsh.example/c/{id}" }, "template", /no \{destination\}/],
      [
        { template: "https://go.saltmarsh.example/{who}/{id}?to={destination}" },
        "template",
        /no placeholder/,
      ],
      [
        { template: "https://thief.example/{id}?to={destination}" },
        "template",
        /none of Other’s domains and Saltmarsh’s hosts/,
      ],
      [{ commission: "seven" }, "commission", /number/],
      [{ commission: "120" }, "commission", /at most 100/],
      [{ currency: "QQQ" }, "currency", /ISO 4217/],
      [{ payoutThreshold: "50.001" }, "payoutThreshold", /more decimals/],
      [{ subIdPattern: "{campaign}" }, "subIdPattern", /not known/],
      [{ signInAddress: "/inside" }, "signInAddress", /web address/],
      [{ state: "married" }, "state", /considering/],
      [{ colour: "red" }, "colour", /no field/],
    ] as const) {
      const { status, body } = await garden.call(
        "POST",
        AT,
        Object.assign({}, HARBOUR, { name: "Other" }, change),
      );
      assert.ok([400, 422].includes(status), JSON.stringify(change));
      const told = body.errors.find((error: { path: string }) => error.path === path);
      assert.ok(told, `${JSON.stringify(change)}: ${JSON.stringify(body.errors)}`);
      if (path !== "domains" && path !== "name") assert.match(told.message, message);
    }
    for (const [change, path] of [
      [{ template: "https://go.saltmarsh.example/c/{id}" }, "template"],
      [{ subIdPattern: "{campaign}" }, "subIdPattern"],
      [{ commission: "120" }, "commission"],
      [{ payoutThreshold: "1.001" }, "payoutThreshold"],
    ] as const) {
      const changed = await garden.call("PATCH", `${AT}/${harbour.id}`, {
        version: harbour.version,
        ...change,
      });
      assert.deepEqual([changed.status, changed.body.errors[0].path], [422, path], "by a change, too");
    }
    const twice = await garden.call("POST", AT, { ...HARBOUR, name: "harbour optics" });
    assert.match(twice.body.errors[0].message, /already/);
  });

  test("renamed is renamed in the rules that name it", async () => {
    const { body: rules } = await garden.call("GET", "/sites/garden/rules");
    const rule = (programs: string[], except?: object) => ({
      name: "Paid",
      match: { programs },
      ...(except ? { except } : {}),
      set: { sponsored: "on" },
      mode: "fill",
    });
    const { body: made } = await garden.call("POST", AT, { name: "Moss Lamps", domains: ["moss.example"] });
    await garden.call("PUT", "/sites/garden/rules", {
      version: rules.version,
      rules: [rule(["Moss Lamps", "Other"]), rule(["Other"], { programs: ["Moss Lamps"] })],
    });
    const { body: renamed } = await garden.call("PATCH", `${AT}/${made.id}`, {
      version: made.version,
      name: "Moss Lights",
    });
    assert.equal(renamed.name, "Moss Lights");
    const { body: now } = await garden.call("GET", "/sites/garden/rules");
    assert.deepEqual(
      now.rules.map(({ match, except }: { match: object; except?: object }) => [match, except ?? null]),
      [
        [{ programs: ["Moss Lights", "Other"] }, null],
        [{ programs: ["Other"] }, { programs: ["Moss Lights"] }],
      ],
    );
    await garden.call("DELETE", `${AT}/${made.id}`);
    await garden.call("PUT", "/sites/garden/rules", { version: now.version, rules: rules.rules });
  });

  test("taken away and brought back is the same, and is gone meanwhile", async () => {
    const { body: made } = await garden.call("POST", AT, { name: "Brief", domains: ["brief.example"] });
    assert.equal((await garden.call("DELETE", `${AT}/${made.id}`)).status, 204);
    assert.equal((await garden.call("GET", `${AT}/${made.id}`)).status, 404);
    assert.equal((await garden.call("DELETE", `${AT}/${made.id}`)).status, 404);
    assert.equal((await garden.call("POST", `${AT}/${made.id}/restore`)).body.name, "Brief");
    assert.equal((await garden.call("POST", `${AT}/99999/restore`)).status, 404);
    await garden.call("DELETE", `${AT}/${made.id}`);
  });
});

describe("a tracked link", () => {
  const link = (body: object) => garden.call("POST", `${AT}/${harbour.id}/link`, body);

  test("is built with a label of its own for each placement", async () => {
    const { body: page } = await garden.call("POST", "/sites/garden/pages", {
      path: "/lamps",
      title: "Lamps",
      html: "<p>x</p>",
    });
    const first = await link({ destination: "harbour.example/item/8?x=1", page: page.id });
    assert.equal(first.status, 200, JSON.stringify(first.body));
    assert.equal(
      first.body.address,
      "https://go.saltmarsh.example/c/GD-7/harbour?to=https%3A%2F%2Fharbour.example%2Fitem%2F8%3Fx%3D1&sub=lamps-1",
    );
    const second = await link({ destination: "https://harbour.example/item/9", page: page.id });
    assert.equal(second.body.subId, "lamps-2");
  });

  test("whose pattern cannot tell placements apart gets a number behind it, and no label is another program's", async () => {
    const long = { ...HARBOUR, name: "Long", subIdPattern: "{text}-{position}-{text}", subIdLimit: 8 };
    const { body: made } = await garden.call("POST", AT, long);
    for (const [item, label] of [
      [1, "a-long-l"],
      [2, "a-long-2"],
      [3, "a-long-3"],
      [2, "a-long-2"],
    ] as const) {
      const built = await garden.call("POST", `${AT}/${made.id}/link`, {
        destination: `https://harbour.example/${item}`,
        text: "a long label",
      });
      assert.deepEqual([built.status, built.body.subId], [200, label]);
    }
    // Another program's placements on a page go on where the first one's end, also when both are made at once.
    const { body: page } = await garden.call("POST", "/sites/garden/pages", {
      path: "/two",
      title: "Two",
      html: "<p>x</p>",
    });
    await garden.call("PATCH", `${AT}/${made.id}`, {
      version: made.version,
      subIdPattern: "{page}-{position}",
      subIdLimit: 40,
    });
    const both = await Promise.all(
      [harbour.id, made.id, harbour.id, made.id].map((program: string, at) =>
        garden.call("POST", `${AT}/${program}/link`, {
          destination: `https://harbour.example/both/${at}`,
          page: page.id,
        }),
      ),
    );
    assert.deepEqual(both.map(({ body }) => body.subId).sort(), ["two-1", "two-2", "two-3", "two-4"]);
    const chosen = await garden.call("POST", `${AT}/${made.id}/link`, {
      destination: "https://harbour.example/",
      subId: "lamps-1",
    });
    assert.deepEqual([chosen.status, chosen.body.errors[0].path], [422, "subId"]);
    await garden.call("DELETE", `${AT}/${made.id}`);
  });

  test("that would earn nothing is refused, with the reason at its field", async () => {
    for (const [question, path, message] of [
      [{ destination: "https://other.example/" }, "destination", /does not belong to Harbour Optics/],
      [{ destination: "javascript:x" }, "destination", /./],
      [{ destination: "https://harbour.example/?a={id}" }, "destination", /placeholder/],
      [{ destination: "https://go.saltmarsh.example/c/GD-7/harbour?to=x" }, "destination", /tracked already/],
      [{ destination: "https://harbour.example/", subId: "a".repeat(51) }, "subId", /51 characters/],
    ] as const) {
      const { status, body } = await link(question);
      assert.equal(status, 422, JSON.stringify(question));
      assert.equal(body.errors[0].path, path);
      assert.match(body.errors[0].message, message);
    }
    assert.equal((await link({ destination: "https://harbour.example/", page: "999" })).status, 404);
  });

  test("of a program without template or not joined says so", async () => {
    const { body: bare } = await garden.call("POST", AT, { name: "Bare", domains: ["bare.example"] });
    const none = await garden.call("POST", `${AT}/${bare.id}/link`, { destination: "https://bare.example/" });
    assert.match(none.body.detail, /no link template/);
    const known = await garden.call("PATCH", `${AT}/${bare.id}`, {
      version: bare.version,
      trackingId: "B",
      template: "{destination}?p={id}",
    });
    assert.equal(known.status, 200, JSON.stringify(known.body));
    const built = await garden.call("POST", `${AT}/${bare.id}/link`, {
      destination: "https://bare.example/",
    });
    assert.deepEqual(
      [built.body.address, built.body.warnings],
      ["https://bare.example/?p=B", ["Bare is not joined yet: the link earns nothing until it is approved."]],
    );
    await garden.call("DELETE", `${AT}/${bare.id}`);
  });

  test("is known wherever it stands, and so is one without tracking", async () => {
    await garden.call("POST", "/sites/garden/pages", {
      path: "/mixed",
      title: "Mixed",
      html: '<p><a href="https://go.saltmarsh.example/c/GD-7/harbour?to=https%3A%2F%2Fharbour.example%2Fa&amp;sub=hand">A</a></p><p><a href="https://harbour.example/item/8">B</a></p><p><a href="https://go.saltmarsh.example/c/ELSE/harbour?to=x">C</a></p><p><a href="https://go.saltmarsh.example/c/GD-7/other?to=x">D</a></p>',
      publish: true,
    });
    const { body } = await garden.call("GET", "/sites/garden/links?page=/mixed");
    assert.deepEqual(
      body.items.map(({ programs, findings }: { programs: string[]; findings: string[] }) => [
        programs,
        findings.includes("untracked"),
      ]),
      [
        [["Harbour Optics"], false],
        [["Harbour Optics"], true],
        [["Harbour Optics"], true],
        [[], false],
      ],
    );
    const { body: list } = await garden.call("GET", `${AT}?q=harbour`);
    assert.deepEqual([list.items[0].links, list.items[0].untracked], [3, 2]);
    await garden.call("POST", "/sites/garden/routes", {
      kind: "short",
      host: "gdn.example",
      address: "/h",
      destination: "https://go.saltmarsh.example/c/GD-7/harbour?to=https%3A%2F%2Fharbour.example%2Fshort",
    });
    await garden.call("GET", AT);
    for (const program of [harbour.id, "Harbour Optics"])
      assert.equal(
        (await garden.call("GET", `/sites/garden/routes?program=${encodeURIComponent(program)}`)).body.total,
        1,
      );
    assert.equal((await garden.call("GET", "/sites/garden/routes?program=Nobody")).body.total, 0);
    const { body: facts } = await garden.call("POST", "/sites/garden/attributes", {
      href: "https://go.saltmarsh.example/c/GD-7/harbour?to=x",
    });
    assert.ok(Array.isArray(facts.rel));
  });
});

describe("links of a program, when its terms change", () => {
  const change = (action: object, dryRun = false) =>
    garden.call("POST", "/sites/garden/links/bulk", {
      action: { do: "program", ...action },
      published: true,
      dryRun,
    });
  const hrefs = async (path: string): Promise<string[]> =>
    (await garden.call("GET", `/sites/garden/links?page=${path}&edition=readers`)).body.items.map(
      ({ href }: { href: string }) => href,
    );
  const BEFORE = { trackingId: HARBOUR.trackingId, template: HARBOUR.template, domains: HARBOUR.domains };
  let program: { id: string; version: number };

  before(async () => {
    program = (await garden.call("GET", `${AT}/${harbour.id}`)).body;
  });

  test("become links on the new ones, sub-IDs and all, in routes too, and go back by one undo", async () => {
    const changed = await garden.call("PATCH", `${AT}/${program.id}`, {
      version: program.version,
      trackingId: "NEW",
      template: "https://go.saltmarsh.example/v2/{id}?to={destination}&label={sub}",
    });
    program = changed.body;
    const seen = await change({ program: program.id, become: "reissue", before: BEFORE }, true);
    assert.deepEqual(
      [seen.status, seen.body.links, seen.body.routes, seen.body.batch],
      [200, 1, 1, null],
      JSON.stringify(seen.body),
    );
    const was = await hrefs("/mixed");
    const done = await change({ program: program.id, become: "reissue", before: BEFORE });
    assert.deepEqual(
      (await hrefs("/mixed"))[0],
      "https://go.saltmarsh.example/v2/NEW?to=https%3A%2F%2Fharbour.example%2Fa&label=hand",
    );
    const { body: routes } = await garden.call("GET", `/sites/garden/routes?program=${program.id}`);
    assert.match(routes.items[0].destination, /\/v2\/NEW\?to=/);
    await garden.call("POST", `/sites/garden/links/bulk/${done.body.batch}/undo`);
    assert.deepEqual(await hrefs("/mixed"), was);
    await change({ program: program.id, become: "reissue", before: BEFORE });
  });

  test("without tracking become tracked, each with a label of its place", async () => {
    const done = await change({ program: program.id, become: "track" });
    assert.equal(done.body.links, 1, JSON.stringify(done.body));
    assert.match(
      (await hrefs("/mixed"))[1]!,
      /\/v2\/NEW\?to=https%3A%2F%2Fharbour\.example%2Fitem%2F8&label=mixed-2$/,
    );
  });

  test("become plain when it closes, or another program's; what cannot be built stays, with the reason", async () => {
    const { body: twin } = await garden.call("POST", AT, {
      name: "Twin",
      state: "approved",
      trackingId: "T",
      template: "{destination}?twin={id}",
      domains: ["harbour.example"],
    });
    const other = await change({ program: program.id, become: "reissue", other: twin.id }, true);
    assert.deepEqual(other.body.changes.map(({ after }: { after: string }) => after).sort(), [
      "https://harbour.example/a?twin=T",
      "https://harbour.example/item/8?twin=T",
      "https://harbour.example/short?twin=T",
    ]);
    const { body: far } = await garden.call("POST", AT, {
      name: "Far",
      state: "approved",
      trackingId: "F",
      template: "{destination}?far={id}",
      domains: ["far.example"],
    });
    const refused = await change({ program: program.id, become: "reissue", other: far.id }, true);
    assert.deepEqual(
      [refused.body.links, /does not belong to Far/.test(refused.body.refused[0].message)],
      [0, true],
    );
    const plain = await change({ program: program.id, become: "plain" });
    assert.equal(plain.body.links, 2);
    assert.deepEqual((await hrefs("/mixed")).slice(0, 2), [
      "https://harbour.example/a",
      "https://harbour.example/item/8",
    ]);
    await garden.call("POST", `/sites/garden/links/bulk/${plain.body.batch}/undo`);
    for (const { id } of [twin, far]) await garden.call("DELETE", `${AT}/${id}`);
    const back = await garden.call("PATCH", `${AT}/${program.id}`, { version: program.version, ...BEFORE });
    harbour = back.body;
  });

  test("of a program that is not there, or with a wish that makes no sense, are refused", async () => {
    assert.equal((await change({ program: "99999", become: "plain" })).status, 404);
    assert.equal((await change({ program: harbour.id, become: "gold" })).status, 422);
  });
});
