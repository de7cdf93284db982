import assert from "node:assert/strict";
import { after, before, describe, test } from "node:test";
import { assertAccessible, testApp, type TestApp } from "../support/browser.ts";
import { createJobs } from "../../src/desk/jobs.ts";
import { createOutgoing } from "../../src/outgoing/outgoing.ts";
import { addPerson } from "../../src/desk/people.ts";
import { openStore } from "../../src/store/store.ts";
import { DEMO_SIGN_IN } from "../../demo/load.ts";

let app: TestApp;
before(async () => {
  app = await testApp({ demo: false });
  const store = openStore(app.databaseUrl);
  const desk = {
    store,
    deliveryPort: app.sitePort,
    workspaceHosts: [],
    outgoing: createOutgoing(),
    jobs: createJobs(() => undefined),
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
    await page.waitForURL(/\/pond-path\/write$/);

    for (const [path, sentence] of [
      ["write", "There are no pages yet."],
      ["routes", "There are no routes yet."],
      ["misses", "Nobody has missed anything."],
      ["rules", "No rules yet"],
      ["clicks", "No route has been used in these days."],
    ] as const) {
      await page.goto(`/pond-path/${path}`);
      await page.getByText(sentence).waitFor();
      await assertAccessible(page, `${path}, empty`);
    }
    await page.goto("/pond-path/rules");
    await page.getByRole("button", { name: "Let outside links open in a new tab" }).click();
    await page.getByText("Links to outside hosts: open in a new tab").waitFor();
    await page.goto("/pond-path/write/1");
    await page.getByText("This page does not exist, or was deleted.").waitFor();
    assert.equal((await page.goto("/nobody/write"))?.status(), 200, "an unknown site leads to the first one");
    await page.waitForURL(/\/pond-path\/write$/);
    await context.close();
  });
});
