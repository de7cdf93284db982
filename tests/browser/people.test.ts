import assert from "node:assert/strict";
import { after, before, describe, test } from "node:test";
import type { Page } from "playwright-core";
import { assertAccessible, testApp, type TestApp } from "../support/browser.ts";

let app: TestApp;
before(async () => {
  app = await testApp();
});
after(() => app.stop());

/** What every button of a screen asks for: nothing that is offered to a reader is refused. */
async function nothingIsRefused(page: Page): Promise<void> {
  const refused: string[] = [];
  page.on("response", (answer) => {
    if (answer.status() === 403) refused.push(`${answer.request().method()} ${answer.url()}`);
  });
  const buttons = page.locator("main button:visible:enabled");
  for (const [path, ready] of [
    ["pages", "What we lean on"],
    ["pages/1", "Compare"],
    ["navigation", "First nights"],
    ["files", "pier.jpg"],
    ["routes?open=1", "Changes ("],
    ["routes/findings", "Look"],
    ["misses", "Asked for"],
    ["ledger", "As written"],
    ["rules", "Outside links open in a new tab"],
    ["programs?open=1", "Copy ready to paste"],
    ["earnings", "Approved"],
    ["settings", "Line below the name"],
  ] as const) {
    await page.goto(`/low-lantern/${path}`);
    await page.getByText(ready).first().waitFor();
    const words = await buttons.evaluateAll((all) => all.map((button) => button.textContent));
    for (const word of new Set(words.filter((text) => text && !/\d/.test(text)))) {
      const button = buttons.getByText(word!, { exact: true }).first();
      // A press may take others away, also while they are about to be pressed, or lead to another screen.
      if (await button.isVisible())
        await button.click({ timeout: 5000 }).catch(async (fault: unknown) => {
          if (await button.isVisible()) throw fault;
        });
      await page.keyboard.press("Escape");
      if (!page.url().includes(`/low-lantern/${path.split("?")[0]}`)) await page.goto(`/low-lantern/${path}`);
    }
    assert.equal(await page.locator("main [data-needs]:visible").count(), 0, `${path} offers a change`);
    assert.deepEqual(refused, [], `${path} offers what is refused`);
  }
  assert.equal(await page.getByLabel("Line below the name").isDisabled(), true);
  await page.goto("/low-lantern/pages/1");
  await page.getByRole("radio", { name: "Compare" }).waitFor();
  assert.equal(await page.getByRole("textbox", { name: "Text of the page" }).count(), 0);
}

describe("people", () => {
  test("somebody is let in by a link, sees what a reader may, and is kept out again", async () => {
    const { context, page } = await app.signedIn();
    await page.goto("/low-lantern/routes");
    await page.getByRole("button", { name: "Low Lantern" }).press("ArrowDown");
    await page.getByRole("menuitem", { name: "People" }).click();
    await page.waitForURL(/\/people$/);
    await page
      .getByRole("row", { name: /Tobias Fenn/ })
      .first()
      .waitFor();
    const form = page.getByRole("form", { name: "Invite somebody" });
    await form.getByLabel("Mail address").fill("wren@lowlantern.example");
    await form.getByLabel("As").selectOption("reader");
    await form.getByRole("button", { name: "Invite" }).click();
    await form.getByText(/what are they called/).waitFor();
    await form.getByLabel("Name, of somebody new").fill("Wren");
    await page.keyboard.press("Enter");
    const link = await page.getByRole("status").locator("code").innerText();
    assert.match(link, /^http:\/\/localhost:\d+\/welcome#[\w-]{43}$/);
    await assertAccessible(page, "people");

    const guest = await app.browser.newContext({ baseURL: app.workspace });
    const welcome = await guest.newPage();
    await welcome.goto(link);
    await welcome.getByRole("heading", { name: "Come in" }).waitFor();
    await assertAccessible(welcome, "the welcome");
    await welcome.getByLabel("Your name").fill("Wren Moss");
    await welcome.getByLabel("Your password").fill("password1234");
    await welcome.getByRole("button", { name: "Save and sign in" }).click();
    await welcome.getByText(/^This is too easy to guess/).waitFor();
    await welcome.getByLabel("Your password").fill("nine quiet ponds at dusk");
    await welcome.keyboard.press("Enter");
    await welcome.waitForURL(/\/low-lantern\/pages$/);
    await welcome.getByText("What we lean on").waitFor();
    const refused = await welcome.request.post("/api/v1/sites/low-lantern/pages", {
      headers: { Origin: app.workspace },
      data: { path: "/no", title: "No" },
    });
    assert.equal(refused.status(), 403);
    await nothingIsRefused(welcome);
    await welcome.goto("/low-lantern/people");
    await welcome.getByText("This needs the role owner; yours is reader.").first().waitFor();
    await welcome.goto(link);
    await welcome
      .getByRole("alert")
      .getByText(/^It was used/)
      .waitFor();

    await page.reload();
    const everybody = page.getByRole("table", { name: "Everybody" });
    await everybody.getByRole("button", { name: "Deactivate Wren Moss" }).click();
    await page.getByText("Wren Moss is signed out everywhere and can no longer sign in.").waitFor();
    await welcome.goto("/low-lantern/pages");
    await welcome.waitForURL(/\/sign-in/);
    await page.getByRole("button", { name: "Undo" }).click();
    await everybody.getByRole("button", { name: "Deactivate Wren Moss" }).waitFor();
    await everybody
      .getByRole("combobox", { name: "What Mara Quill may do on every site" })
      .selectOption("editor");
    await page.getByText(/Mara Quill is the last who owns the installation/).waitFor();
    await guest.close();
    await context.close();
  });
});
