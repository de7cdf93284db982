import assert from "node:assert/strict";
import { after, before, describe, test } from "node:test";
import { testDesk, type TestDesk } from "../../../tests/support/desk.ts";
import { forgetOldHistory } from "../../store/sites/history.ts";
import { withRequestId } from "../ground/request-id.ts";

let garden: TestDesk;
before(async () => {
  garden = await testDesk();
});
after(() => garden.close());

const SITE = "/sites/garden";
const call = (method: string, path: string, body?: unknown, options = {}) =>
  garden.call(method, `${SITE}${path}`, body, options);
async function made(path: string, body: object) {
  const { status, body: answer } = await call("POST", path, body);
  assert.equal(status, 201, JSON.stringify(answer));
  return answer;
}
interface Entry {
  id: string;
  action: string;
  before: Record<string, unknown> | null;
  after: Record<string, unknown> | null;
  canPutBack: boolean;
  requestId: string | null;
}
const latest = async (action: string): Promise<Entry> =>
  (await call("GET", `/history?action=${action}&limit=1`)).body.items[0];
const putBack = (entry: Entry, options = {}) =>
  call("POST", `/history/${entry.id}/put-back`, undefined, options);

describe("what a change has set is put back", () => {
  test("of a route, with all that it says; and the putting back can be put back", async () => {
    const route = await made("/routes", {
      kind: "short",
      address: "/to/rake",
      destination: "https://harbour.example/rake",
      title: "Rake",
      validFrom: "2026-01-01T00:00:00.000Z",
    });
    const change = {
      destination: "https://harbour.example/hoe",
      title: "Hoe",
      tags: ["tools"],
      validFrom: null,
      status: 301,
      version: route.version,
    };
    assert.equal((await call("PATCH", `/routes/${route.id}`, change)).status, 200);
    const entry = await latest("route.change");
    assert.deepEqual(entry.before, {
      destination: "https://harbour.example/rake",
      status: 302,
      title: "Rake",
      tags: [],
      validFrom: "2026-01-01T00:00:00.000Z",
    });
    assert.equal(entry.canPutBack, true);
    const done = await putBack(entry);
    assert.equal(done.status, 204, JSON.stringify(done.body));
    const { body } = await call("GET", `/routes/${route.id}`);
    assert.deepEqual(
      [body.destination, body.title, body.tags, body.status, body.validFrom],
      ["https://harbour.example/rake", "Rake", [], 302, "2026-01-01T00:00:00.000Z"],
    );
    assert.equal((await putBack(await latest("route.change"))).status, 204);
    assert.equal((await call("GET", `/routes/${route.id}`)).body.title, "Hoe");
  });

  test("of a creative, a network and what somebody may do", async () => {
    const program = await made("/programs", {
      name: "Harbour",
      network: "Pier",
      state: "approved",
      domains: ["harbour.example"],
    });
    const html = (words: string) => `<a href="https://harbour.example/in?to=1">${words}</a>`;
    const creative = await made(`/programs/${program.id}/creatives`, {
      name: "Rakes",
      html: html("Rakes here"),
    });
    const changed = { name: "Hoes", html: html("Hoes here"), version: creative.version };
    assert.equal((await call("PUT", `/creatives/${creative.id}`, changed)).status, 200);
    assert.equal((await putBack(await latest("creative.change"))).status, 204);
    const { body: creatives } = await call("GET", `/programs/${program.id}/creatives`);
    assert.deepEqual(
      creatives.items.map((one: { name: string; words: string }) => [one.name, one.words]),
      [["Rakes", "Rakes here"]],
    );

    const network = { name: "Pier", hosts: ["pier.example"], catalogue: "", report: "" };
    await call("PUT", "/networks", network);
    await call("PUT", "/networks", { ...network, hosts: ["pier.example", "quay.example"] });
    assert.equal((await putBack(await latest("network.keep"))).status, 204);
    assert.deepEqual((await call("GET", "/networks")).body.items[0].hosts, ["pier.example"]);

    const member = await made("/people", { mail: "cy@garden.example", name: "Cy", role: "reader" });
    assert.equal((await call("PUT", `/people/${member.id}`, { role: "editor" })).status, 200);
    const entry = await latest("member.change");
    assert.equal((await putBack(entry, { actor: { name: "Bea", role: "editor" } })).status, 403);
    assert.equal((await putBack(entry)).status, 204);
    const { body: people } = await call("GET", "/people");
    const cy = people.items.find(({ name }: { name: string }) => name === "Cy");
    assert.equal(cy.role, "reader");
  });

  test("of a site, by its owners alone; of its variables and limits, too", async () => {
    const { body: site } = await call("GET", "");
    const change = { tagline: "All that grows", variables: { account: "A-1" }, historyMonths: 12 };
    assert.equal((await call("PATCH", "", { ...change, version: site.version })).status, 200);
    const entry = await latest("site.change");
    assert.deepEqual(entry.before, { tagline: "", variables: {}, historyMonths: 36 });
    assert.equal((await putBack(entry, { actor: { name: "Bea", role: "editor" } })).status, 403);
    assert.equal((await putBack(entry)).status, 204);
    const { body: now } = await call("GET", "");
    assert.deepEqual([now.tagline, now.variables, now.historyMonths], ["", {}, 36]);
  });

  test("of a program and of the navigation", async () => {
    const program = await made("/programs", {
      name: "Shears",
      network: "Hedge",
      domains: ["shears.example"],
    });
    const change = { domains: ["shears.example", "sharp.example"], name: "Sharp", version: program.version };
    assert.equal((await call("PATCH", `/programs/${program.id}`, change)).status, 200);
    assert.equal((await putBack(await latest("program.change"))).status, 204);
    const { body } = await call("GET", `/programs/${program.id}`);
    assert.deepEqual([body.name, body.domains], ["Shears", ["shears.example"]]);

    const items = [{ id: "a", label: "Moss", kind: "address", address: "/moss" }];
    const set = (version: number, list: object[]) => call("PUT", "/navigation", { version, items: list });
    const first = await set(0, items);
    assert.equal(first.status, 200, JSON.stringify(first.body));
    assert.equal((await set(first.body.version, [])).status, 200);
    assert.equal((await putBack(await latest("navigation.replace"))).status, 204);
    const { body: now } = await call("GET", "/navigation");
    assert.deepEqual(
      now.items.map(({ label }: { label: string }) => label),
      ["Moss"],
    );
  });

  test("not over what somebody has changed since: that is named, and stays", async () => {
    const route = await made("/routes", {
      kind: "redirect",
      address: "/old",
      destination: "/moss",
      title: "One",
    });
    const set = (title: string, version: number) => call("PATCH", `/routes/${route.id}`, { title, version });
    assert.equal((await set("Two", 1)).status, 200);
    const entry = await latest("route.change");
    assert.equal((await set("Three", 2)).status, 200);
    const refused = await putBack(entry);
    assert.deepEqual([refused.status, /title/.test(refused.body.detail)], [409, true]);
    assert.equal((await call("GET", `/routes/${route.id}`)).body.title, "Three");
    // A field that it did not set may have been changed: it stays so.
    assert.equal(
      (await call("PATCH", `/routes/${route.id}`, { title: "Two", tags: ["x"], version: 3 })).status,
      200,
    );
    assert.equal((await putBack(entry)).status, 204);
    const { body } = await call("GET", `/routes/${route.id}`);
    assert.deepEqual([body.title, body.tags], ["One", ["x"]]);
  });

  test("not where nothing was kept, nor of another site or a thing that is gone", async () => {
    const route = await made("/routes", { kind: "redirect", address: "/gone-soon", destination: "/moss" });
    assert.equal((await putBack(await latest("route.create"))).status, 422);
    await call("PATCH", `/routes/${route.id}`, { title: "x", version: 1 });
    const entry = await latest("route.change");
    assert.equal((await call("DELETE", `/routes/${route.id}`)).status, 204);
    assert.equal((await putBack(entry)).status, 404);
    assert.equal((await call("POST", "/history/999999/put-back")).status, 404);
    assert.equal((await putBack(entry, { actor: { name: "Rea", role: "reader" } })).status, 403);
  });
});

describe("rules and views in the bin", () => {
  const rule = (name: string, domain: string) => ({
    name,
    enabled: true,
    match: { domains: [domain] },
    set: { nofollow: "on" },
    mode: "fill",
  });
  const bin = async (kind: string) => (await call("GET", `/bin?kind=${kind}`)).body.items;
  const setRules = async (rules: object[]) => {
    const { version } = (await call("GET", "/rules")).body;
    const { status, body } = await call("PUT", "/rules", { version, rules });
    assert.equal(status, 200, JSON.stringify(body));
  };
  const names = async (): Promise<string[]> =>
    (await call("GET", "/rules")).body.rules.map(({ name }: { name: string }) => name);

  test("a rule that was taken out comes back to its place; one that was only renamed was not deleted", async () => {
    const [one, two, three] = [
      rule("One", "a.example"),
      rule("Two", "b.example"),
      rule("Three", "c.example"),
    ];
    await setRules([one, two, three]);
    await setRules([one, { ...three, name: "Drei" }]);
    const items = await bin("rule");
    assert.deepEqual(
      items.map(({ name, deletedBy }: { name: string; deletedBy: string }) => [name, deletedBy]),
      [["Two", "Ida"]],
    );
    assert.equal((await call("POST", `/bin/${items[0].id}/restore`, {})).status, 204);
    assert.deepEqual(await names(), ["One", "Two", "Drei"]);
    assert.deepEqual(await bin("rule"), []);
    const taken = await call("POST", `/bin/${items[0].id}/restore`, {});
    assert.deepEqual([taken.status, taken.body.errors[0].path], [422, "address"]);
    assert.equal((await call("POST", `/bin/${items[0].id}/restore`, { address: "Zwei" })).status, 204);
    assert.deepEqual(await names(), ["One", "Zwei", "Two", "Drei"]);
    for (const id of ["rule-1", "rule-99900000", "rule-200999"])
      assert.equal((await call("POST", `/bin/${id}/restore`, {})).status, 404, id);
  });

  test("a saved view comes back; under another name where its own was given away", async () => {
    const view = await made("/links/views", { name: "Paid", query: "treatment=sponsored" });
    assert.equal((await call("DELETE", `/links/views/${view.id}`)).status, 204);
    assert.equal((await call("DELETE", `/links/views/${view.id}`)).status, 404);
    assert.deepEqual((await call("GET", "/links/views")).body.items, []);
    await made("/links/views", { name: "Paid", query: "treatment=plain" });
    const [item] = await bin("view");
    assert.deepEqual([item.name, item.address, item.deletedBy], ["Paid", "treatment=sponsored", "Ida"]);
    const taken = await call("POST", `/bin/${item.id}/restore`, {});
    assert.deepEqual([taken.status, taken.body.errors[0].path], [422, "address"]);
    assert.equal((await call("POST", `/bin/${item.id}/restore`, { address: "Paid before" })).status, 204);
    assert.deepEqual(
      (await call("GET", "/links/views")).body.items.map(({ name }: { name: string }) => name),
      ["Paid", "Paid before"],
    );
  });
});

test("the id of the request that did it stands in the history, and in the problem of one that was refused", async () => {
  const route = await made("/routes", { kind: "redirect", address: "/asked", destination: "/moss" });
  await withRequestId("request-7", () => call("PATCH", `/routes/${route.id}`, { title: "x", version: 1 }));
  assert.equal((await latest("route.change")).requestId, "request-7");
  const refused = await withRequestId("request-8", () =>
    call("PATCH", `/routes/${route.id}`, { title: "y", version: 1 }),
  );
  assert.deepEqual([refused.status, refused.body.requestId], [409, "request-8"]);
});

test("history is kept as long as the site says", async () => {
  const old = async (months: number) =>
    garden.store.rows(
      `INSERT INTO audit (at, actor, site_id, action, object) VALUES (now() - make_interval(months => $months::int), 'Ida', $site::bigint, 'page.save', 'old') RETURNING id`,
      { months, site: garden.site.id },
    );
  await old(35);
  await old(37);
  assert.equal(await forgetOldHistory(garden.store), 1);
  const { version } = (await call("GET", "")).body;
  assert.equal((await call("PATCH", "", { historyMonths: 12, version })).status, 200);
  assert.equal(await forgetOldHistory(garden.store), 1);
  assert.equal(await forgetOldHistory(garden.store), 0);
});
