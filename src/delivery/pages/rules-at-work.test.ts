import assert from "node:assert/strict";
import { after, before, describe, test } from "node:test";
import { ask, until } from "../../../tests/support/ask.ts";
import { testDelivery, type TestDelivery } from "../../../tests/support/delivery.ts";
import { testDesk, type TestDesk } from "../../../tests/support/desk.ts";

let garden: TestDesk;
let nodes: TestDelivery[];
before(async () => {
  garden = await testDesk();
  await garden.call("POST", "/sites/garden/pages", {
    path: "/lamps",
    title: "Lamps",
    html: '<p><a href="https://shop.example/x">A lamp</a></p>',
    publish: true,
  });
  await garden.call("POST", "/sites/garden/pages", {
    path: "/plain",
    title: "Plain",
    html: '<p><a href="/lamps">Inside</a></p>',
    publish: true,
  });
  nodes = [await testDelivery(garden.url), await testDelivery(garden.url)];
});
after(async () => {
  assert.deepEqual([garden.failures, ...nodes.map(({ reports }) => reports)], [[], [], []]);
  for (const node of nodes) await node.end();
  await garden.close();
});

const bodies = (path: string): Promise<string[]> =>
  Promise.all(nodes.map(async ({ port }) => (await ask(port, path)).body));
const allHave = (path: string, text: string, isThere = true) =>
  until(`${text} ${isThere ? "is" : "is not"} on ${path} of every process`, async () =>
    (await bodies(path)).every((body) => body.includes(text) === isThere),
  );
async function replace(rules: object[]): Promise<number> {
  const { body } = await garden.call("GET", "/sites/garden/rules");
  return (await garden.call("PUT", "/sites/garden/rules", { version: body.version, rules })).status;
}
const PAID = { name: "Paid", match: { domains: ["shop.example"] }, set: { sponsored: "on" } };

describe("rules reach delivery", () => {
  test("at once, on every process, and pages that were rendered already follow", async () => {
    assert.ok((await bodies("/lamps")).every((body) => body.includes('<a href="https://shop.example/x">')));
    assert.equal(await replace([PAID]), 200);
    await allHave("/lamps", '<a href="https://shop.example/x" rel="sponsored">');
    assert.equal(await replace([{ ...PAID, enabled: false }]), 200);
    await allHave("/lamps", '<a href="https://shop.example/x">');
  });

  test("a set that cannot be taken leaves the last good one", async () => {
    await replace([PAID]);
    await allHave("/lamps", 'rel="sponsored"');
    assert.equal(await replace([{ ...PAID, match: { domains: ["*"] } }]), 422);
    assert.equal(await replace([{ ...PAID, set: { sponsored: "maybe" } }]), 422);
    assert.ok((await bodies("/lamps")).every((body) => body.includes('rel="sponsored"')));
  });

  test("a thousand rules are no hindrance", async () => {
    const many = Array.from({ length: 999 }, (_, index) => ({
      ...PAID,
      name: `R ${index}`,
      match: { domains: [`d${index}.example`] },
    }));
    assert.equal(await replace([...many, { ...PAID, set: { ugc: "on" } }]), 200);
    await allHave("/lamps", 'rel="ugc"');
    await replace([PAID]);
    await allHave("/lamps", 'rel="sponsored"');
  });
});

describe("the disclosure", () => {
  const change = async (part: object): Promise<void> => {
    const { body } = await garden.call("GET", "/sites/garden");
    const { status } = await garden.call("PATCH", "/sites/garden", { version: body.version, ...part });
    assert.equal(status, 200);
  };
  const NOTE = '<p class="disclosure" role="note">Some links here pay us.</p>';

  test("stands on pages that carry paid links, while the site places it, and follows rules and programs", async () => {
    await change({ disclosure: { text: "Some links here pay us.", place: true } });
    await allHave("/lamps", NOTE);
    assert.ok((await bodies("/plain")).every((body) => !body.includes(NOTE)));
    await replace([]);
    await allHave("/lamps", NOTE, false);
    const shop = { name: "Shop", state: "approved", domains: ["shop.example"] };
    assert.equal((await garden.call("POST", "/sites/garden/programs", shop)).status, 201);
    await allHave("/lamps", NOTE);
    await change({ disclosure: { text: "Some links here pay us.", place: false } });
    await allHave("/lamps", NOTE, false);
  });

  test("is not said twice", async () => {
    await change({ disclosure: { text: "Some links here pay us.", place: true } });
    const { body } = await garden.call("POST", "/sites/garden/pages", {
      path: "/told",
      title: "Told",
      html: '<p>Some links here pay us.</p><p><a href="https://shop.example/x">A lamp</a></p>',
      publish: true,
    });
    await until("it is there", async () => (await bodies("/told")).every((one) => one.includes("A lamp")));
    assert.ok((await bodies("/told")).every((one) => !one.includes(NOTE)));
    assert.equal(body.path, "/told");
  });

  test("cannot be placed without words", async () => {
    const { body } = await garden.call("GET", "/sites/garden");
    const answer = await garden.call("PATCH", "/sites/garden", {
      version: body.version,
      disclosure: { text: " ", place: true },
    });
    assert.deepEqual([answer.status, answer.body.errors[0].path], [422, "disclosure.text"]);
  });
});
