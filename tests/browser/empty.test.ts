import { readText, type TextTask } from "../../src/desk/pages/texts/read-text.ts";
import { sealWith } from "../../src/desk/ground/seal.ts";
import assert from "node:assert/strict";
import { after, before, describe, test } from "node:test";
import { assertAccessible, testApp, type TestApp } from "../support/browser.ts";
import { createJobs } from "../../src/desk/jobs/jobs.ts";
import { createOutgoing } from "../../src/outgoing/outgoing.ts";
import { addPerson } from "../../src/desk/people/people.ts";
import { openStore } from "../../src/store/ground/store.ts";
import { DEMO_SIGN_IN } from "../../demo/people.ts";

let app: TestApp;
before(async () => {
  app = await testApp({ demo: false });
  const store = openStore(app.databaseUrl);
  const desk = {
    store,
    deliveryPort: app.sitePort,
    workspaceHosts: [],
    outgoing: createOutgoing(),
    texts: { read: async (task: TextTask) => readText(task) as never, end: async () => {} },
    seal: sealWith(["nothing is sealed here"]),
    thread: { run: () => Promise.reject(new Error("nobody asks")), end: async () => {} },
    report: () => undefined,
    jobs: createJobs(store),
    health: async () => ({}),
    preview: () => undefined,
  };
  await addPerson(desk, { ...DEMO_SIGN_IN, name: "Mara", role: "owner" });
  await store.close();
});
after(() => app.stop());

describe("an installation without a site", () => {
  test("begins with one, and every list says what to do while it is empty", async () => {
    const { context, page } = await app.signedIn();
    await page.goto("/");
    await page.getByRole("heading", { name: "Your first site" }).waitFor();
    await assertAccessible(page, "the first site");
    await page.getByLabel("Name", { exact: true }).fill("Pond & Path");
    await page.getByLabel("Host", { exact: true }).fill("not a host");
    await page.getByRole("button", { name: "Make the site" }).click();
    await page.getByText("“not a host” is not a host name").waitFor();
    await page.getByLabel("Host", { exact: true }).fill("pond.localhost");
    await page.getByRole("button", { name: "Make the site" }).click();
    await page.waitForURL(/\/pond-path\/pages$/);

    for (const [path, sentence] of [
      ["pages", "There are no pages yet."],
      ["routes", "There are no routes yet."],
      ["misses", "Nobody has missed anything."],
      ["rules", "Begin with what fits your site"],
      ["rules/disclosure", "What readers are told"],
      ["programs", "No programs yet."],
      ["programs/catalogue", "No network is known yet."],
      ["earnings", "Nothing was earned in these days"],
      ["rules/earlier", "No set has been in force yet."],
      ["ledger", "There are no links yet."],
      ["ledger/report", "outside links, of which"],
      ["clicks", "No route has been used in these days."],
    ] as const) {
      await page.goto(`/pond-path/${path}`);
      await page.getByText(sentence).waitFor();
      await assertAccessible(page, `${path}, empty`);
    }
    await page.goto("/pond-path/rules");
    await page.getByRole("button", { name: "Begin with this" }).first().click();
    await page.getByRole("button", { name: "Apply now" }).click();
    await page.getByText("Set 1 is in force").first().waitFor();
    await page.getByText("Links to outside hosts: open in a new tab").waitFor();
    await page.goto("/pond-path/pages/1");
    await page.getByText("This page does not exist, or was deleted.").waitFor();
    assert.equal((await page.goto("/nobody/pages"))?.status(), 200, "an unknown site leads to the first one");
    await page.waitForURL(/\/pond-path\/pages$/);
    await context.close();
  });
});
