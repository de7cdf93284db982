import assert from "node:assert/strict";
import { after, before, describe, test } from "node:test";
import { ask, until } from "../support/ask.ts";
import { assertAccessible, testApp, type TestApp } from "../support/browser.ts";

let app: TestApp;
before(async () => {
  app = await testApp();
});
after(() => app.stop());

const delivered = async (path: string): Promise<string> =>
  (await ask(app.sitePort, path, { host: "lowlantern.localhost" })).body;

describe("the ledger", () => {
  test("narrowed by facets and words, all of it in the address; why a link is as it is; to its words and back", async () => {
    const { context, page } = await app.signedIn();
    await page.goto("/low-lantern/ledger");
    const facets = page.getByRole("complementary", { name: "Narrow the links" }).first();
    await facets.getByRole("button", { name: /^sponsored/ }).click();
    await facets.getByRole("button", { name: /^hop\.gannet-row/ }).click();
    await page.waitForURL(/treatment=sponsored&host=hop\.gannet-row\.localhost/);
    await page.getByText("7 links", { exact: true }).waitFor();
    await page.keyboard.press("f");
    await page.keyboard.type("quiet");
    await page.waitForURL(/q=quiet/);
    const first = page.getByRole("row").nth(1);
    await first.waitFor();
    await first.click({ position: { x: 500, y: 10 } });
    await page.keyboard.press("Enter");
    const panel = page.getByRole("complementary", { name: /^The link/ });
    await panel.getByText("Network links are paid").first().waitFor();
    await panel.locator("summary").first().click();
    await panel
      .getByText(/change “.*”, or make an exception in it/)
      .first()
      .waitFor();
    await assertAccessible(page, "the ledger with a link open");
    const address = page.url();
    await panel.getByRole("link", { name: /To the words/ }).click();
    await page.getByRole("form", { name: /link$/ }).getByLabel("Where it leads").waitFor();
    assert.match(
      await page.getByRole("form", { name: /link$/ }).getByLabel("Where it leads").inputValue(),
      /gannet-row/,
    );
    await page.getByRole("link", { name: "Back to the ledger" }).click();
    await page.getByRole("complementary", { name: /^The link/ }).waitFor();
    await page.waitForURL(address);
    await context.close();
  });

  test("says that it is behind what was changed last, and follows by itself", async () => {
    const { context, page } = await app.signedIn();
    let asked = 0;
    await page.route(/\/links\?/, async (route) => {
      const response = await route.fetch();
      const links = (await response.json()) as object;
      asked += 1;
      await route.fulfill({ response, json: asked > 1 ? links : { ...links, items: [], current: false } });
    });
    await page.goto("/low-lantern/ledger");
    // The first rows came with the screen: asked for is what is looked for then.
    await page.getByRole("button", { name: "Page", exact: true }).click();
    await page.getByRole("status").getByText("Reading what was changed last").waitFor();
    await page.getByRole("row").nth(1).waitFor();
    await page.getByText("Reading what was changed last").waitFor({ state: "detached" });
    await context.close();
  });

  test("by host and by page, a view kept and opened again, columns chosen", async () => {
    const { context, page } = await app.signedIn();
    await page.goto("/low-lantern/ledger");
    await page.getByRole("radio", { name: "By host" }).click();
    await page.getByRole("rowheader", { name: "harbour-optics.localhost" }).getByRole("button").click();
    await page.waitForURL(/host=harbour-optics/);
    await page.getByRole("button", { name: "Columns" }).click();
    await page.getByRole("checkbox", { name: "Short link" }).click();
    await page.keyboard.press("Escape");
    await page.getByRole("button", { name: "Views", exact: true }).click();
    await page.getByLabel("Name for this view").fill("Harbour");
    await page.getByRole("button", { name: "Save view", exact: true }).click();
    await page.getByText("This view is saved as “Harbour”").waitFor();
    await page.goto("/low-lantern/ledger");
    await page.getByRole("button", { name: "Views", exact: true }).click();
    await page.getByRole("link", { name: "Harbour", exact: true }).click();
    await page.waitForURL(/host=harbour-optics.*columns=|columns=.*host=harbour-optics/);
    await page.getByRole("columnheader", { name: "Short link" }).waitFor();
    await context.close();
  });

  test("many at once: shown before, drafts alone, then readers too, undone as one", async () => {
    const { context, page } = await app.signedIn();
    await page.goto("/low-lantern/ledger?host=starling-eyepieces.localhost");
    await page.getByRole("checkbox", { name: "Mark all links shown" }).click();
    await page.getByRole("button", { name: "Replace a host" }).click();
    const bar = page.getByRole("region", { name: "Marked links" });
    await bar.getByLabel("Links to the host").fill("starling-eyepieces.localhost");
    await bar.getByLabel("go to the host").fill("starling.example");
    await bar.getByRole("table", { name: "What would change" }).getByText("→").first().waitFor();
    assert.ok((await delivered("/resources")).includes("starling-eyepieces.localhost"));
    await bar.getByRole("checkbox", { name: "in routes too" }).uncheck();
    await bar.getByRole("checkbox", { name: "in what readers get, too" }).check();
    await bar.getByRole("button", { name: /^Change \d/ }).click();
    await page.getByText(/^Changed \d+ links in \d+ places/).waitFor();
    await until("readers get it", async () => (await delivered("/resources")).includes("//starling.example"));
    await page.getByRole("button", { name: "Undo" }).click();
    await page.getByText("Put back as it was").waitFor();
    await until("and no longer", async () => !(await delivered("/resources")).includes("//starling.example"));
    await context.close();
  });

  test("by the keyboard alone: walk, mark, set by hand, give back", async () => {
    const { context, page } = await app.signedIn();
    await page.goto("/low-lantern/ledger?host=drowned-lens.localhost");
    const row = page.getByRole("row").nth(1);
    await row.focus();
    await page.keyboard.press("Space");
    await page.getByRole("button", { name: "Set tab and rel by hand" }).focus();
    await page.keyboard.press("Enter");
    const bar = page.getByRole("region", { name: "Marked links" });
    await bar.getByLabel("nofollow").selectOption("on");
    await bar.getByRole("button", { name: "Change 1" }).waitFor();
    await bar.getByLabel("nofollow").focus();
    await bar.getByRole("button", { name: "Change 1" }).press("Enter");
    await page.getByText(/^Changed 1 links/).waitFor();
    await page.getByText("by hand", { exact: true }).first().waitFor();
    await page.getByRole("button", { name: "Undo" }).press("Enter");
    await page.getByText("Put back as it was").waitFor();
    await context.close();
  });

  test("the report prints without the workspace around it", async () => {
    const { context, page } = await app.signedIn();
    await page.goto("/low-lantern/ledger/report");
    await page.getByText("say that they are paid (sponsored)").waitFor();
    await page
      .getByRole("region", { name: "Over time" })
      .getByRole("img", { name: /^Outside links by treatment/ })
      .waitFor();
    await page.emulateMedia({ media: "print" });
    assert.equal(await page.getByRole("navigation", { name: "Sections" }).isVisible(), false);
    assert.equal(await page.getByRole("button", { name: "Print or save as PDF" }).isVisible(), false);
    assert.equal(await page.getByRole("heading", { name: /How outside links are marked/ }).isVisible(), true);
    await context.close();
  });

  test("the preview says of each link why it is delivered so", async () => {
    const { context, page } = await app.signedIn();
    await page.goto("/low-lantern/pages/6?view=preview");
    await page.frameLocator("iframe").locator('.body a[rel*="sponsored"]').first().hover();
    await page
      .getByRole("region", { name: /^Why “/ })
      .getByText("Network links are paid")
      .first()
      .waitFor();
    await context.close();
  });
});
