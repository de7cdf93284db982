import assert from "node:assert/strict";
import { after, before, describe, test } from "node:test";
import { testDesk, type Answered, type TestDesk } from "../../../tests/support/desk.ts";

let garden: TestDesk;
before(async () => {
  garden = await testDesk();
});
after(() => garden.close());

const SITE = "/sites/garden";
const call = (method: string, path: string, body?: unknown, raw?: string): Promise<Answered> =>
  garden.call(
    method,
    `${SITE}${path}`,
    body,
    raw === undefined ? {} : { raw, headers: { "Content-Type": "text/csv" } },
  );

async function made(path: string, body: object): Promise<Answered["body"]> {
  const answer = await call("POST", path, body);
  assert.ok(answer.status < 300, JSON.stringify(answer.body));
  return answer.body;
}

let number = 0;
const route = () =>
  made("/routes", { kind: "redirect", address: `/r${(number += 1)}`, destination: "/there" });
const page = (publish = true) =>
  made("/pages", {
    path: `/p${(number += 1)}`,
    title: "A page",
    html: '<p><a href="https://a.example/x">a</a></p>',
    publish,
  });
const program = () =>
  made("/programs", { name: `Program ${(number += 1)}`, state: "approved", domains: [`p${number}.example`] });

/** What is stored, but for the log itself. */
async function stored(): Promise<string> {
  const tables = await garden.store.rows<{ name: string }>(
    "SELECT relname AS name FROM pg_stat_user_tables WHERE schemaname = 'public' AND relname <> ALL(ARRAY['audit', 'ledger_state']) AND relname NOT LIKE 'ledger%' ORDER BY 1",
  );
  const digests = await Promise.all(
    tables.map(({ name }) =>
      garden.store.rows<{ digest: string }>(
        `SELECT '${name} ' || coalesce(md5(string_agg(t::text, '|' ORDER BY t::text)), '') AS digest FROM "${name}" t`,
      ),
    ),
  );
  return digests
    .flat()
    .map(({ digest }) => digest)
    .join("\n");
}

// Each makes what it needs, and answers the call that is to leave no trace.
const calls: Readonly<Record<string, () => Promise<() => Promise<Answered>>>> = {
  "a page is made": async () => () => call("POST", "/pages", { path: "/n", title: "N", html: "<p>n</p>" }),
  "a page is published": async () => {
    const { id, version } = await page(false);
    return () => call("POST", `/pages/${id}/publish`, { version });
  },
  "a page is deleted": async () => {
    const { id } = await page();
    return () => call("DELETE", `/pages/${id}`);
  },
  "a text is put aside": async () => {
    const { id } = await page();
    return () => call("POST", `/pages/${id}/aside`, { html: "<p>aside</p>" });
  },
  "a route is made": async () => () =>
    call("POST", "/routes", { kind: "redirect", address: "/n1", destination: "/there" }),
  "a route is changed": async () => {
    const { id, version } = await route();
    return () => call("PATCH", `/routes/${id}`, { version, title: "Other" });
  },
  "a route is deleted": async () => {
    const { id } = await route();
    return () => call("DELETE", `/routes/${id}`);
  },
  "a route counts from now": async () => {
    const { id } = await route();
    return () => call("POST", `/routes/${id}/zero`);
  },
  "many routes are changed": async () => {
    const { id } = await route();
    return () =>
      call("POST", "/routes/bulk", { ids: [id], action: { do: "tag", tag: "new" }, dryRun: false });
  },
  "routes are imported": async () => () =>
    call("POST", "/routes/import", undefined, "kind,address,destination\nredirect,/imported,/there\n"),
  "rules are replaced": async () => {
    const { version } = (await call("GET", "/rules")).body;
    const rules = [{ name: "Out", match: { destination: "external" }, set: { nofollow: "on" } }];
    return () => call("PUT", "/rules", { version, rules });
  },
  "the navigation is replaced": async () => {
    const { version } = (await call("GET", "/navigation")).body;
    return () =>
      call("PUT", "/navigation", {
        version,
        items: [{ id: "n", label: "Unnoted", kind: "address", address: "/n" }],
      });
  },
  "a program is made": async () => () =>
    call("POST", "/programs", { name: "Unnoted", state: "approved", domains: ["unnoted.example"] }),
  "a program is changed": async () => {
    const { id, version } = await program();
    return () => call("PATCH", `/programs/${id}`, { version, notes: "Other" });
  },
  "a program is deleted": async () => {
    const { id } = await program();
    return () => call("DELETE", `/programs/${id}`);
  },
  "a network is kept": async () => () =>
    call("PUT", "/networks", { name: "Tidewater", hosts: ["go.tidewater.example"] }),
  "a token is made": async () => () => garden.call("POST", "/tokens", { name: "t", role: "reader" }),
  "a token is ended": async () => {
    const { body } = await garden.call("POST", "/tokens", { name: "t", role: "reader" });
    return () => garden.call("DELETE", `/tokens/${body.id}`);
  },
  "a site is made": async () => () =>
    garden.call("POST", "/sites", {
      key: "other",
      name: "Other",
      hosts: [{ name: "other.example", role: "primary" }],
    }),
  "the site is changed": async () => {
    const { version } = (await call("GET", "")).body;
    return () => call("PATCH", "", { version, tagline: "Other" });
  },
};

describe("what cannot be noted in the audit log is not done", () => {
  for (const [what, ready] of Object.entries(calls))
    test(what, async () => {
      const act = await ready();
      const before = await stored();
      await garden.store.rows("ALTER TABLE audit ADD CONSTRAINT unnoted CHECK (false) NOT VALID");
      const refused = await act();
      await garden.store.rows("ALTER TABLE audit DROP CONSTRAINT unnoted");
      assert.equal(refused.status, 500, JSON.stringify(refused.body));
      assert.equal(await stored(), before);
      const done = await act();
      assert.ok(done.status < 300, JSON.stringify(done.body));
      assert.notEqual(await stored(), before);
    });
});
