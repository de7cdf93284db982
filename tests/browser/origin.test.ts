import assert from "node:assert/strict";
import { after, before, test } from "node:test";
import { ask, until } from "../support/ask.ts";
import type { Page } from "playwright-core";
import { assertAccessible, takenOver, testApp, type TestApp } from "../support/browser.ts";

let app: TestApp;
before(async () => {
  app = await testApp();
});
after(() => app.stop());

// From its top: what stands under the head that stays is covered by it.
async function accessible(page: Page, screen: string): Promise<void> {
  await page.evaluate(() => scrollTo(0, 0));
  await assertAccessible(page, screen);
}

const HOST = "saltmarsh-notes.localhost";

test("the content area of a page there is pointed at, widened, and typed", async () => {
  const { context, page } = await app.signedIn();
  await page.goto("/saltmarsh-notes/origin/front");
  await takenOver(page);
  const form = page.getByRole("form", { name: "Pages of ours in their look" });
  await form.getByRole("button", { name: "Show it" }).click();
  const shown = page.frameLocator('iframe[title="The page there"]');
  const selector = form.getByRole("textbox", { name: "Its content area" });
  await shown.locator("main p").first().click();
  assert.equal(await selector.inputValue(), "article");
  await shown.locator("footer p, footer a").first().click();
  assert.match(await selector.inputValue(), /footer/);
  const around = form.getByRole("group", { name: "Around it:" });
  await shown.locator("main p").first().click();
  await around.getByRole("button").first().click();
  const widened = await selector.inputValue();
  assert.ok(
    await shown
      .locator(widened)
      .first()
      .evaluate((element) => element.matches("[data-maprope-area]")),
    widened,
  );
  await selector.fill("main");
  await shown.locator("main[data-maprope-area]").waitFor();
  await accessible(page, "pointing at a content area");
  await form.getByRole("button", { name: "Use this look" }).click();
  await page.getByText("Pages that are written here stand in that look").first().waitFor();
  await form.getByRole("button", { name: "Use our own look" }).click();
  await page.getByText("Pages that are written here have their own look again").first().waitFor();
  await context.close();
});

test("from naming an address to a marked link in a page of the other system", async () => {
  const { context, page } = await app.signedIn();
  const api = `/api/v1/sites/saltmarsh-notes/origin`;
  await page.request.delete(`${new URL(app.workspace).origin}${api}`, {
    headers: { Origin: new URL(app.workspace).origin },
  });

  await page.goto("/saltmarsh-notes/origin");
  await takenOver(page);
  await accessible(page, "naming an address");
  const address = page.getByRole("textbox", { name: "Address of the site" });
  await address.fill("ftp://nowhere");
  await page.getByRole("button", { name: "Look at it" }).click();
  await page.getByText("This is no address of a website").waitFor();
  assert.equal(await address.inputValue(), "ftp://nowhere");
  await address.fill(`http://${HOST}:${app.simPort}`);
  await page.getByRole("button", { name: "Look at it" }).click();

  await page.getByText("/sitemap_index.xml").waitFor();
  // Read fast: it is our own.
  await page.getByText("What is read").click();
  await page.getByRole("textbox", { name: "Seconds between two requests" }).fill("0");
  await page.getByRole("textbox", { name: "Pages at most" }).fill("60");
  await page.getByRole("button", { name: "Save", exact: true }).click();
  await page.getByText("Saved.").first().waitFor();
  await page.getByRole("button", { name: /^Read \d+ pages$/ }).click();
  await page
    .getByText(/links on 6\d pages|links on 5\d pages|links on 60 pages/)
    .waitFor({ timeout: 60_000 });
  await page.getByText("Stands on many pages").waitFor();
  await accessible(page, "what a reading found");

  await page.getByRole("link", { name: "To do there" }).click();
  await page.getByRole("table", { name: "To do there" }).waitFor();
  assert.match(await page.getByRole("table", { name: "To do there" }).innerText(), /Network links are paid/);
  await accessible(page, "what is to be done there");

  await page.getByRole("link", { name: "On the way to readers" }).click();
  await page.getByRole("radio", { name: /^Through us, as a shadow/ }).check();
  await page.getByRole("button", { name: "Set it" }).click();
  const through = (): Promise<string> =>
    ask(app.sitePort, "/", { host: `${HOST}:${app.sitePort}` }).then(({ body }) => body);
  await until("it passes as it is", async () => /<h1>Saltmarsh Notes<\/h1>/.test(await through()));
  assert.doesNotMatch(await through(), /sponsored/);
  await page.getByText(/requests? passed.*would be changed/).waitFor();
  await accessible(page, "the shadow");
  for (const [word, isMarked] of [
    ["With what would be changed", true],
    ["As it is there", false],
  ] as const) {
    const { pathname, search } = new URL(
      (await page.getByRole("link", { name: word }).getAttribute("href"))!,
    );
    const { body } = await ask(app.sitePort, pathname + search, { host: `${HOST}:${app.sitePort}` });
    assert.equal(/rel="nofollow sponsored noopener"/.test(body), isMarked, word);
  }
  await page.getByRole("radio", { name: /^Through us, changed/ }).check();
  await page.getByRole("button", { name: "Set it" }).click();
  await until(
    "its links are marked",
    async () =>
      /Harbour Optics/.test(await through()) && /rel="nofollow sponsored noopener"/.test(await through()),
  );
  await page.getByRole("button", { name: "Let all pass untouched now" }).click();
  await until("they are not", async () => !/sponsored/.test(await through()));
  await page.getByRole("radio", { name: /^Through us, untouched/, checked: true }).waitFor();
  const alone = page.getByLabel("Written here alone");
  await alone.fill("/\nnotes");
  await page.getByRole("button", { name: "Set it" }).click();
  await page.getByText("A path begins with a slash").waitFor();
  assert.equal(await alone.inputValue(), "/\nnotes");
  await alone.fill("/");
  await page.getByRole("button", { name: "Set it" }).click();
  await until("nothing of it is asked for", async () => !/<h1>Saltmarsh Notes<\/h1>/.test(await through()));

  await page.getByRole("button", { name: "Ask the origin as a reader would" }).click();
  await page.getByRole("status").getByText("it answers.").waitFor();
  await context.close();
});
