import assert from "node:assert/strict";
import { after, before, describe, test } from "node:test";
import { ask, until } from "../support/ask.ts";
import { assertAccessible, testApp, type TestApp } from "../support/browser.ts";

let app: TestApp;
before(async () => {
  app = await testApp();
});
after(() => app.stop());

describe("settings of a site", () => {
  test("a host is added, looked at, given another name, and the old one leads on", async () => {
    const { context, page } = await app.signedIn();
    await page.goto("/low-lantern/settings");
    const added = page.getByRole("form", { name: "New host" });
    await added.getByLabel("Another host").fill("moth.localhost");
    await added.getByRole("button", { name: "Add it" }).click();
    const hosts = page.getByRole("table", { name: "Hosts of Low Lantern" });
    await hosts.getByRole("button", { name: "Change moth.localhost" }).click();
    const panel = page.getByRole("region", { name: "The host moth.localhost" });
    await panel
      .getByText("Nothing hangs on moth.localhost alone.")
      .or(panel.getByText(/^On it hang/))
      .waitFor();
    await panel.getByRole("button", { name: "Does it lead here?" }).click();
    await panel.getByRole("status").getByText("leads here.").waitFor();
    await assertAccessible(page, "a host in the settings");
    await panel.getByLabel("Name").fill("moths.localhost");
    await panel.getByText("moth.localhost goes on leading readers to the new name").waitFor();
    await panel.getByRole("button", { name: "Save" }).click();
    await hosts.getByText("leads to moths.localhost").waitFor();
    // By its own name of the host, a browser finds the new one.
    await until("the old name leads there", async () => {
      await page.goto(`http://moth.localhost:${app.sitePort}/`);
      return new URL(page.url()).hostname === "moths.localhost";
    });
    await context.close();
  });

  test("short links move to another directory: each is shown first, and all come back by one undo", async () => {
    const { context, page } = await app.signedIn();
    await page.goto("/low-lantern/settings");
    await page.getByText("Move short links to another directory").click();
    const form = page.getByRole("form", { name: "Move short links" });
    await form.getByLabel("On the host").selectOption("lntn.localhost");
    await form.getByLabel("From").fill("/");
    await form.getByLabel("To", { exact: true }).fill("/moon/");
    const shown = form.getByRole("table", { name: "What would change" });
    await shown.waitFor();
    const moves = await shown.getByText(/^→ \/moon\//).count();
    assert.ok(moves > 10, `only ${moves} are shown`);
    await form.getByRole("button", { name: /^Move \d+$/ }).click();
    await page.getByText(/^Changed .*routes/).waitFor();
    const answer = await context.request.get("/api/v1/sites/low-lantern/routes?q=/moon/&limit=1");
    const [moved] = ((await answer.json()) as { items: { address: string; aliases: string[] }[] }).items;
    assert.deepEqual(moved!.aliases, [moved!.address.replace("/moon/", "/")]);
    await page.getByRole("button", { name: "Undo" }).click();
    await page.getByText("Put back as it was").waitFor();
    const after_ = await context.request.get("/api/v1/sites/low-lantern/routes?q=/moon/&limit=1");
    assert.equal(((await after_.json()) as { total: number }).total, 0);
    await context.close();
  });

  test("what search engines are told of short links, of all that there are", async () => {
    const { context, page } = await app.signedIn();
    await page.goto("/low-lantern/settings");
    await page.getByText("New short links", { exact: true }).click();
    await page.getByLabel("search engines do not list them (noindex)").check();
    await page.getByRole("button", { name: "Say so for all short links that there are" }).click();
    await page.getByText(/^Changed \d+ routes/).waitFor();
    const told = async (): Promise<unknown> =>
      (await ask(app.sitePort, "/thirteen", { host: "lntn.localhost" })).headers["x-robots-tag"];
    await until("robots are told", async () => (await told()) === "noindex");
    await page.getByRole("button", { name: "Undo" }).click();
    await until("and no more", async () => (await told()) === undefined);
    await context.close();
  });

  test("a site rests and is woken; while it rests everybody is told, and nothing is saved", async () => {
    const { context, page } = await app.signedIn();
    await page.goto("/low-lantern/settings");
    await page.getByText("Export, archive or delete the whole site").click();
    await page.getByRole("button", { name: "Archive it" }).click();
    const told = page
      .getByRole("note")
      .filter({ hasText: /^\s*Low Lantern is archived: readers get what they got/ });
    await told.waitFor();
    assert.equal(await page.getByLabel("Line below the name").isDisabled(), true);
    assert.equal(await page.getByRole("button", { name: "Save", exact: true }).count(), 0);
    await page.getByRole("button", { name: "Reopen it" }).click();
    await told.waitFor({ state: "detached" });
    await page.getByRole("button", { name: "Save", exact: true }).waitFor();
    await context.close();
  });

  test("what a change has set is put back from the history", async () => {
    const { context, page } = await app.signedIn();
    await page.goto("/low-lantern/settings");
    await page.getByLabel("Line below the name").fill("Watching from the roof");
    await page.getByRole("button", { name: "Save", exact: true }).click();
    await page.getByText("Saved").waitFor();
    await page.goto("/low-lantern/history?action=site");
    await page
      .getByRole("button", { name: /^Put back/ })
      .first()
      .click();
    await page.getByText("Put back as it was before").waitFor();
    await page.goto("/low-lantern/settings");
    assert.notEqual(await page.getByLabel("Line below the name").inputValue(), "Watching from the roof");
    await context.close();
  });

  test("another site is made from the menu, with the settings of this one", async () => {
    const { context, page } = await app.signedIn();
    await page.goto("/low-lantern/pages");
    await page.getByRole("button", { name: /^Low Lantern/ }).click();
    await page.getByRole("menuitem", { name: "A new site" }).click();
    const form = page.getByRole("form", { name: "A new site" });
    await form.getByLabel("Name").fill("Night Moths");
    await form.getByLabel("Host", { exact: true }).fill("nightmoths.localhost");
    await form.getByLabel("Settings").selectOption({ label: "those of Low Lantern" });
    await assertAccessible(page, "a new site");
    await form.getByRole("button", { name: "Make the site" }).click();
    await page.waitForURL("**/night-moths/pages");
    await context.close();
  });
});
