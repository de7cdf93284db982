import assert from "node:assert/strict";
import { after, before, describe, test } from "node:test";
import { testDesk, type Answered, type TestDesk } from "../../../tests/support/desk.ts";

let garden: TestDesk;
before(async () => {
  garden = await testDesk();
  // Its part in long work writes in transactions of its own, which are none of a call's.
  await garden.endJobs();
});
after(async () => {
  await garden.close();
  assert.deepEqual(garden.failures, []);
});

const SITE = "/sites/garden";

/** Lets `other` happen once, after the call has read what it works on and before it writes: as its transaction begins. */
async function between(other: () => Promise<Answered>, call: () => Promise<Answered>): Promise<Answered> {
  const { store } = garden;
  const begin = store.transaction;
  let changed: Answered | undefined;
  store.transaction = (async (work: never) => {
    store.transaction = begin;
    changed = await other();
    assert.ok(changed.status < 300, `the change in between was refused: ${JSON.stringify(changed.body)}`);
    return begin(work);
  }) as typeof begin;
  try {
    const answer = await call();
    assert.ok(changed, "nothing came in between: the call does not write in a transaction");
    return answer;
  } finally {
    store.transaction = begin;
  }
}

let number = 0;
const made = async (path: string, body: object): Promise<Answered["body"]> => {
  const answer = await garden.call("POST", `${SITE}${path}`, body);
  assert.ok(answer.status < 300, JSON.stringify(answer.body));
  return answer.body;
};
const route = () =>
  made("/routes", {
    kind: "redirect",
    address: `/r${(number += 1)}`,
    destination: "/there",
    title: "First",
    tags: ["old"],
  });
const page = (publish = true) =>
  made("/pages", {
    path: `/p${(number += 1)}`,
    title: "First",
    html: '<p><a href="https://a.example/x">a</a></p>',
    publish,
  });
const program = () =>
  made("/programs", {
    name: `Program ${(number += 1)}`,
    state: "approved",
    domains: [`p${number}.example`],
    notes: "First",
  });
const read = async (path: string) => (await garden.call("GET", `${SITE}${path}`)).body;

interface Case {
  says: string;
  /** Makes the object; answers the path by which it is read and changed, and its version. */
  make(): Promise<{ path: string; version: number; id: string }>;
  /** What somebody else changes in between, and how it is seen to stand. */
  other(at: { path: string; version: number }): Promise<Answered>;
  stands(now: Record<string, unknown>): boolean;
  call(at: { path: string; version: number; id: string }): Promise<Answered>;
  /** The call is refused as stale; else both changes stand. */
  refused: boolean;
}

const ofRoute: Pick<Case, "make" | "other" | "stands"> = {
  make: async () => {
    const { id, version } = await route();
    return { path: `/routes/${id}`, version, id };
  },
  other: ({ path, version }) =>
    garden.call("PATCH", SITE + path, { version, title: "Changed in between", destination: "/elsewhere" }),
  stands: ({ title, destination }) => title === "Changed in between" && destination === "/elsewhere",
};
const ofPage: Pick<Case, "make" | "other" | "stands"> = {
  make: async () => {
    const { id, version } = await page();
    return { path: `/pages/${id}`, version, id };
  },
  other: ({ path, version }) => garden.call("PUT", SITE + path, { version, title: "Changed in between" }),
  stands: ({ title, status }) => title === "Changed in between" && status === "published",
};
const bulk =
  (action: object) =>
  ({ id }: { id: string }) =>
    garden.call("POST", `${SITE}/routes/bulk`, { ids: [id], action });

const cases: readonly Case[] = [
  {
    says: "a route",
    ...ofRoute,
    call: ({ path, version }) => garden.call("PATCH", SITE + path, { version, tags: ["mine"] }),
    refused: true,
  },
  { says: "many routes: a tag", ...ofRoute, call: bulk({ do: "tag", tag: "new" }), refused: false },
  {
    says: "many routes: a tag taken off",
    ...ofRoute,
    call: bulk({ do: "untag", tag: "old" }),
    refused: false,
  },
  { says: "many routes: switched off", ...ofRoute, call: bulk({ do: "switch", on: false }), refused: false },
  {
    says: "many routes: led elsewhere",
    ...ofRoute,
    call: bulk({ do: "retarget", find: "/there", replace: "/new" }),
    refused: false,
  },
  {
    says: "many routes, put back",
    ...ofRoute,
    make: async () => {
      const { id } = await route();
      const { body } = await garden.call("POST", `${SITE}/routes/bulk`, {
        ids: [id],
        action: { do: "tag", tag: "new" },
      });
      return { path: `/routes/${id}`, version: 2, id: body.batch };
    },
    call: ({ id }) => garden.call("POST", `${SITE}/routes/bulk/${id}/undo`),
    refused: false,
  },
  {
    says: "routes from a file",
    ...ofRoute,
    call: async ({ path }) => {
      const { address } = await read(path);
      return garden.call("POST", `${SITE}/routes/import`, undefined, {
        raw: `address,destination,title\n${address},/there,From a file`,
        headers: { "Content-Type": "text/csv" },
      });
    },
    refused: true,
  },
  {
    says: "a page saved",
    ...ofPage,
    call: ({ path, version }) => garden.call("PUT", SITE + path, { version, html: "<p>mine</p>" }),
    refused: true,
  },
  {
    says: "a page published",
    ...ofPage,
    make: async () => {
      const { id, version } = await page(false);
      return { path: `/pages/${id}`, version, id };
    },
    stands: ({ title, status }) => title === "Changed in between" && status === "draft",
    call: ({ path, version }) => garden.call("POST", `${SITE}${path}/publish`, { version }),
    refused: true,
  },
  {
    says: "a page taken back from readers",
    ...ofPage,
    call: ({ path, version }) => garden.call("POST", `${SITE}${path}/unpublish`, { version }),
    refused: true,
  },
  {
    says: "links of many pages",
    ...ofPage,
    make: async () => {
      const { id, version } = await page();
      const links = await garden.call("GET", `${SITE}/links?page=${id}`, undefined, {
        headers: { Prefer: "wait=30" },
      });
      return { path: `/pages/${id}`, version, id: links.body.items[0].id };
    },
    call: async ({ id }) => {
      const answer = await garden.call("POST", `${SITE}/links/bulk`, {
        ids: [id],
        action: { do: "override", set: { nofollow: "on" } },
      });
      // It does not write over what was changed: it leaves it, and names it.
      assert.deepEqual([answer.status, answer.body.links, answer.body.left], [200, 0, 1]);
      return answer;
    },
    refused: false,
  },
  {
    says: "a program",
    make: async () => {
      const { id, version } = await program();
      return { path: `/programs/${id}`, version, id };
    },
    other: ({ path, version }) => garden.call("PATCH", SITE + path, { version, notes: "Changed in between" }),
    stands: ({ notes }) => notes === "Changed in between",
    call: ({ path, version }) => garden.call("PATCH", SITE + path, { version, contacts: "mine" }),
    refused: true,
  },
  {
    says: "the site's settings",
    make: async () => ({ path: "", version: (await read("")).version, id: "" }),
    other: ({ version }) => garden.call("PATCH", SITE, { version, tagline: "Changed in between" }),
    stands: ({ tagline }) => tagline === "Changed in between",
    call: ({ version }) => garden.call("PATCH", SITE, { version, name: "Mine" }),
    refused: true,
  },
  {
    says: "the navigation",
    make: async () => ({ path: "/navigation", version: (await read("/navigation")).version, id: "" }),
    other: ({ version }) =>
      garden.call("PUT", `${SITE}/navigation`, {
        version,
        items: [{ id: "b", label: "Changed in between", kind: "address", address: "/b" }],
      }),
    stands: ({ items }) => (items as { label: string }[])[0]?.label === "Changed in between",
    call: ({ version }) =>
      garden.call("PUT", `${SITE}/navigation`, {
        version,
        items: [{ id: "a", label: "Mine", kind: "address", address: "/a" }],
      }),
    refused: true,
  },
  {
    says: "the rules",
    make: async () => ({ path: "/rules", version: (await read("/rules")).version, id: "" }),
    other: ({ version }) =>
      garden.call("PUT", `${SITE}/rules`, {
        version,
        rules: [{ name: "Changed in between", match: {}, set: { target: "new" } }],
      }),
    stands: ({ rules }) => (rules as { name: string }[])[0]?.name === "Changed in between",
    call: ({ version }) =>
      garden.call("PUT", `${SITE}/rules`, {
        version,
        rules: [{ name: "Mine", match: {}, set: { nofollow: "on" } }],
      }),
    refused: true,
  },
  {
    says: "rules for later",
    make: async () => ({ path: "/rules", version: (await read("/rules")).version, id: "" }),
    other: ({ version }) =>
      garden.call("PUT", `${SITE}/rules`, {
        version,
        rules: [{ name: "Again in between", match: {}, set: { target: "new" } }],
      }),
    stands: ({ rules }) => (rules as { name: string }[])[0]?.name === "Again in between",
    call: ({ version }) =>
      garden.call("PUT", `${SITE}/rules/schedule`, { version, rules: [], at: "2999-01-01T00:00:00Z" }),
    refused: true,
  },
  {
    says: "a creative",
    make: async () => {
      const { id } = await program();
      const creative = await made(`/programs/${id}/creatives`, {
        name: "Banner",
        html: '<a href="https://a.example/{id}">words</a>',
      });
      return { path: `/programs/${id}/creatives`, version: creative.version, id: creative.id };
    },
    other: ({ path, version }) =>
      read(path).then(({ items }) =>
        garden.call("PUT", `${SITE}/creatives/${items[0].id}`, {
          version,
          name: "Changed in between",
          html: '<a href="https://a.example/{id}">words</a>',
        }),
      ),
    stands: ({ items }) => (items as { name: string }[])[0]?.name === "Changed in between",
    call: ({ id, version }) =>
      garden.call("PUT", `${SITE}/creatives/${id}`, {
        version,
        name: "Mine",
        html: '<a href="https://a.example/{id}">words</a>',
      }),
    refused: true,
  },
];

describe("a change that comes in between stands", () => {
  for (const { says, make, other, stands, call, refused } of cases)
    test(says, async () => {
      const at = await make();
      const answer = await between(
        () => other(at),
        () => call(at),
      );
      assert.equal(answer.status, refused ? 409 : 200, JSON.stringify(answer.body));
      assert.ok(stands(await read(at.path)), JSON.stringify(await read(at.path)));
    });

  test("what was changed, its entry in the audit log and its notification come together or not at all", async () => {
    const { id, version } = await route();
    const counted = () =>
      garden.store
        .rows<{ n: number }>(
          "SELECT (SELECT count(*) FROM audit)::int + (SELECT count(*) FROM changes)::int AS n",
        )
        .then(([row]) => row!.n);
    const before = await counted();
    assert.equal(
      (await garden.call("PATCH", `${SITE}/routes/${id}`, { version: version + 5, title: "x" })).status,
      409,
    );
    assert.equal(await counted(), before);
    assert.equal((await garden.call("PATCH", `${SITE}/routes/${id}`, { version, title: "x" })).status, 200);
    assert.equal(await counted(), before + 2);
  });
});

describe("a change of many names what it leaves", () => {
  test("links that are so already, are gone, or stand only in what readers get", async () => {
    const { id } = await made("/pages", {
      path: "/many",
      title: "Many",
      html: '<p><a href="https://b.example/1">one</a></p><p><a href="https://b.example/2" data-override="nofollow=on">two</a></p>',
    });
    const { body } = await garden.call("GET", `${SITE}/links?page=${id}`);
    const ids = [...body.items.map((one: { id: string }) => one.id), "999999"];
    const answer = await garden.call("POST", `${SITE}/links/bulk`, {
      ids,
      action: { do: "override", set: { nofollow: "on" } },
    });
    assert.deepEqual([answer.body.links, answer.body.left], [1, 2]);
    assert.equal(answer.body.links + answer.body.left, ids.length);
    assert.deepEqual(answer.body.refused.map(({ message }: { message: string }) => message).sort(), [
      "It is not there any more; look again.",
      "https://b.example/2: It is set so already.",
    ]);
  });

  test("short links for which no text is left are taken away again", async () => {
    const { id, version } = await page();
    const { body } = await garden.call("GET", `${SITE}/links?page=${id}`);
    const shorts = async () => (await garden.call("GET", `${SITE}/routes?kind=short`)).body.total as number;
    const before = await shorts();
    const answer = await between(
      () => garden.call("PUT", `${SITE}/pages/${id}`, { version, title: "Changed in between" }),
      () => garden.call("POST", `${SITE}/links/bulk`, { ids: [body.items[0].id], action: { do: "shorten" } }),
    ).catch((error: unknown) => error as Error);
    assert.ok(!(answer instanceof Error), String(answer));
    assert.equal(await shorts(), before);
  });

  test("routes that are so already, or gone", async () => {
    const { id } = await route();
    const { body } = await garden.call("POST", `${SITE}/routes/bulk`, {
      ids: [id, "999999"],
      action: { do: "tag", tag: "old" },
    });
    assert.deepEqual([body.changed, body.refused.length], [0, 2]);
  });
});
