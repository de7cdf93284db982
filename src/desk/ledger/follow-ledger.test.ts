import assert from "node:assert/strict";
import { after, before, describe, test } from "node:test";
import fc from "fast-check";
import { testDesk, type TestDesk } from "../../../tests/support/desk.ts";
import { UNWATCHED } from "../../threads/progress.ts";
import { catchUpLedger, rebuildLedger } from "./follow-ledger.ts";
import { openSite } from "../sites/open-site.ts";

let garden: TestDesk;
before(async () => {
  garden = await testDesk();
});
after(async () => {
  assert.deepEqual(garden.failures, []);
  await garden.close();
});

const PATHS = ["/a", "/b", "/c"] as const;
const ADDRESSES = [
  "/a",
  "/b",
  "/c",
  "/old/1",
  "/go",
  "https://shop.example/x",
  "https://news.example/",
  "mailto:a@b.example",
];

/** Everything the ledger says, without its own numbers. */
async function ledger(): Promise<object[]> {
  return garden.store.rows(
    `SELECT s.kind, s.path, s.edition, s.live, s.title, s.category, s.words, s.disclosed, s.findings, l.ordinal, l.words AS anchor, l.href, l.ends, l.host,
       l.kind AS link_kind, l.reach, l.own_key, l.destination_key, (l.route_id IS NOT NULL) AS through, l.leads_to, (l.short_id IS NOT NULL) AS short,
       l.rel, l.target, l.treatment, l.rules, l.programs, l.text_findings, l.rule_findings, l.search
     FROM ledger_sources s LEFT JOIN ledger_links l ON l.source_id = s.id ORDER BY s.page_id, s.edition, l.ordinal`,
  );
}

type Step =
  | { do: "page"; path: (typeof PATHS)[number]; links: string[]; publish: boolean }
  | { do: "publish" | "unpublish" | "delete"; path: (typeof PATHS)[number] }
  | { do: "move"; path: (typeof PATHS)[number]; to: (typeof PATHS)[number] }
  | { do: "route"; address: string; destination: string; match: "exact" | "prefix" }
  | { do: "unroute"; address: string }
  | { do: "rules"; nofollow: boolean; onPage: boolean }
  | { do: "program"; joined: boolean }
  | { do: "navigation"; links: string[] };

const path = fc.constantFrom(...PATHS);
const links = fc.array(fc.constantFrom(...ADDRESSES), { minLength: 1, maxLength: 4 });
const step: fc.Arbitrary<Step> = fc.oneof(
  {
    weight: 4,
    arbitrary: fc.record({ do: fc.constant("page" as const), path, links, publish: fc.boolean() }),
  },
  fc.record({ do: fc.constantFrom("publish" as const, "unpublish" as const, "delete" as const), path }),
  fc.record({ do: fc.constant("move" as const), path, to: path }),
  fc.record({
    do: fc.constant("route" as const),
    address: fc.constantFrom("/old/1", "/go", "/old"),
    destination: fc.constantFrom("https://shop.example/x", "/a", "/b"),
    match: fc.constantFrom("exact" as const, "prefix" as const),
  }),
  fc.record({ do: fc.constant("unroute" as const), address: fc.constantFrom("/old/1", "/go", "/old") }),
  fc.record({ do: fc.constant("rules" as const), nofollow: fc.boolean(), onPage: fc.boolean() }),
  fc.record({ do: fc.constant("program" as const), joined: fc.boolean() }),
  fc.record({ do: fc.constant("navigation" as const), links }),
);

const htmlOf = (addresses: readonly string[]): string =>
  addresses.map((href, at) => `<p>Some words <a href="${href}">link ${at}</a></p>`).join("");

async function pageAt(at: string): Promise<{ id: string; version: number } | undefined> {
  const { body } = await garden.call("GET", "/sites/garden/pages?limit=500");
  return body.items.find((page: { path: string }) => page.path === at);
}

// Steps may be refused (a path that is taken, a route that would loop): what is refused changes nothing.
async function take(one: Step): Promise<void> {
  switch (one.do) {
    case "page": {
      const there = await pageAt(one.path);
      const html = htmlOf(one.links);
      if (!there) {
        await garden.call("POST", "/sites/garden/pages", {
          path: one.path,
          title: `Page ${one.path}`,
          html,
          publish: one.publish,
        });
        return;
      }
      await garden.call("PUT", `/sites/garden/pages/${there.id}`, { version: there.version, html });
      if (one.publish) await take({ do: "publish", path: one.path });
      return;
    }
    case "publish":
    case "unpublish":
    case "delete": {
      const there = await pageAt(one.path);
      if (!there) return;
      const at = `/sites/garden/pages/${there.id}`;
      if (one.do === "delete") await garden.call("DELETE", at);
      else await garden.call("POST", `${at}/${one.do}`, { version: there.version });
      return;
    }
    case "move": {
      const there = await pageAt(one.path);
      if (there)
        await garden.call("PUT", `/sites/garden/pages/${there.id}`, {
          version: there.version,
          path: one.to,
        });
      return;
    }
    case "route":
      await garden.call("POST", "/sites/garden/routes", {
        kind: one.match === "exact" && one.address === "/go" ? "short" : "redirect",
        address: one.address,
        host: "garden.example",
        destination: one.destination,
        match: one.address === "/go" ? "exact" : one.match,
      });
      return;
    case "unroute": {
      const { body } = await garden.call("GET", "/sites/garden/routes?limit=500");
      const there = body.items.find((route: { address: string }) => route.address === one.address);
      if (there) await garden.call("DELETE", `/sites/garden/routes/${there.id}`);
      return;
    }
    case "rules": {
      const { body } = await garden.call("GET", "/sites/garden/rules");
      const match = one.onPage ? { pages: ["/a"] } : { programs: ["Shop"] };
      const set = one.nofollow ? { nofollow: "on" } : { sponsored: "on", target: "new" };
      await garden.call("PUT", "/sites/garden/rules", {
        version: body.version,
        rules: [{ name: "R", match, set }],
      });
      return;
    }
    case "program": {
      const { body } = await garden.call("GET", "/sites/garden/programs");
      const there = body.items[0];
      if (!there && one.joined)
        await garden.call("POST", "/sites/garden/programs", {
          name: "Shop",
          state: "approved",
          domains: ["shop.example"],
        });
      else if (there)
        await garden.call("PATCH", `/sites/garden/programs/${there.id}`, {
          version: there.version,
          state: one.joined ? "approved" : "applied",
        });
      return;
    }
    case "navigation": {
      const { body } = await garden.call("GET", "/sites/garden/navigation");
      await garden.call("PUT", "/sites/garden/navigation", {
        version: body.version,
        items: one.links.map((address, at) => ({
          id: `n${at}`,
          label: `Entry ${at}`,
          kind: "address",
          address,
        })),
      });
    }
  }
}

describe("the ledger", () => {
  test("followed through whatever is done, is what reading all anew would make of it", async () => {
    await fc.assert(
      fc.asyncProperty(fc.array(step, { minLength: 1, maxLength: 7 }), async (steps) => {
        for (const one of steps) await take(one);
        const site = await openSite(garden.desk, "garden");
        await catchUpLedger(garden.desk, site, UNWATCHED);
        const followed = await ledger();
        await rebuildLedger(garden.desk, site, UNWATCHED);
        assert.deepEqual(followed, await ledger(), JSON.stringify(steps));
      }),
      { numRuns: 30, endOnFailure: true },
    );
  });

  test("caught up twice, nothing changes the second time", async () => {
    const site = await openSite(garden.desk, "garden");
    await catchUpLedger(garden.desk, site, UNWATCHED);
    const [before] = await garden.store.rows<{ kept: string }>(
      "SELECT kept_at::text AS kept FROM ledger_states",
    );
    await catchUpLedger(garden.desk, site, UNWATCHED);
    const [after] = await garden.store.rows<{ kept: string }>(
      "SELECT kept_at::text AS kept FROM ledger_states",
    );
    assert.deepEqual(before, after);
  });

  test("links go with their page, and with their site", async () => {
    await take({ do: "page", path: "/a", links: ["/b"], publish: true });
    const count = async (): Promise<number> =>
      (await garden.store.rows<{ links: number }>("SELECT count(*)::int AS links FROM ledger_links"))[0]!
        .links;
    assert.ok((await count()) > 0);
    await garden.store.rows("DELETE FROM ledger_sources");
    assert.equal(await count(), 0);
  });
});
