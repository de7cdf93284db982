import assert from "node:assert/strict";
import { after, before, describe, test } from "node:test";
import type { Page } from "playwright-core";
import { until } from "../support/ask.ts";
import { choose, testApp, type TestApp } from "../support/browser.ts";

let app: TestApp;
before(async () => {
  app = await testApp();
});
after(() => app.stop());

const focused = (page: Page): Promise<string> =>
  page.evaluate(() => {
    const at = document.activeElement;
    return `${at?.tagName} ${at?.getAttribute("aria-label") ?? at?.closest("[data-key]")?.getAttribute("data-key") ?? ""}`;
  });

describe("a panel beside a table", () => {
  for (const { path, row, panel } of [
    { path: "/low-lantern/routes?sort=address", row: "[data-row='2']", panel: "Route" },
    { path: "/low-lantern/ledger", row: "[data-row='1']", panel: /^The link / },
    { path: "/low-lantern/programs", row: "[data-row='1']", panel: /./ },
  ])
    test(`takes the focus and gives it back to its row: ${path}`, async () => {
      const { context, page } = await app.signedIn();
      await page.goto(path);
      await page.locator(row).focus();
      const key = await page.locator(row).getAttribute("data-key");
      await page.keyboard.press("Enter");
      await page.getByRole("complementary", { name: panel }).last().waitFor();
      await until("the panel has it", async () => (await focused(page)).startsWith("ASIDE"));
      await page.keyboard.press("Escape");
      await until("its row has it", async () => (await focused(page)) === `TR ${key}`);
      await context.close();
    });

  test("opened by its address it leaves the focus where it is; closed, its row has it", async () => {
    const { context, page } = await app.signedIn();
    await page.goto("/low-lantern/files");
    const name = page.getByRole("rowheader").getByRole("button").first();
    await name.click();
    await page.waitForURL(/open=/);
    await page.reload();
    const panel = page.getByRole("complementary", { name: /^File / });
    await panel.getByRole("button", { name: "Close" }).waitFor();
    assert.equal(await focused(page), "BODY ");
    await panel.getByRole("button", { name: "Close" }).click();
    const open = await page.getByRole("rowheader").getByRole("button").first().innerText();
    await until("its row has it", async () =>
      page.evaluate((word) => document.activeElement?.textContent === word, open),
    );
    await context.close();
  });
});

describe("choosing", () => {
  test("one of many: typed towards, put back when left, none where none is allowed", async () => {
    const { context, page } = await app.signedIn();
    await page.goto("/low-lantern/routes?open=new-redirect");
    const host = page.getByRole("combobox", { name: "Host" });
    await host.fill("every");
    const offered = page.getByRole("complementary").getByRole("listbox").getByRole("option");
    assert.deepEqual(await offered.allInnerTexts(), ["every host"]);
    await host.fill("nowhere");
    await page.getByText("Nothing of this name.").waitFor();
    await page.keyboard.press("Escape");
    await page.getByRole("complementary", { name: "New redirect" }).waitFor();
    assert.equal(await host.inputValue(), "lowlantern.localhost");
    await choose(host, "every");
    await until("it is chosen", async () => (await host.inputValue()) === "every host");
    await context.close();
  });

  test("several: a pasted list is taken apart, known ones are found, the last comes out with Backspace", async () => {
    const { context, page } = await app.signedIn();
    await page.goto("/low-lantern/rules");
    await page.getByRole("button", { name: "New rule" }).click();
    const form = page.getByRole("group", { name: /^The rule/ });
    const domains = form.getByRole("combobox", { name: "Domains" }).first();
    const chosen = (): Promise<string[]> =>
      form
        .getByRole("button", { name: /^Remove / })
        .evaluateAll((all) => all.map((one) => one.getAttribute("aria-label")!.slice(7)));
    await domains.evaluate((field) => {
      const data = new DataTransfer();
      data.setData("text", "one.example, two.example\none.example  *.three.example");
      field.dispatchEvent(
        new ClipboardEvent("paste", { clipboardData: data, bubbles: true, cancelable: true }),
      );
    });
    assert.deepEqual(await chosen(), ["one.example", "two.example", "*.three.example"]);
    await domains.pressSequentially("optics");
    await page.keyboard.press("ArrowDown");
    await page.keyboard.press("Enter");
    assert.deepEqual((await chosen()).at(-1), "harbour-optics.localhost");
    await page.keyboard.press("Backspace");
    await until("three are left", async () => (await chosen()).length === 3);
    // What is typed and left is taken over, too.
    const programs = form.getByRole("combobox", { name: "Programs" }).first();
    await programs.fill("harbour optics");
    await form.getByLabel("Name").focus();
    await until("it is chosen", async () => (await chosen()).includes("Harbour Optics"));
    await context.close();
  });

  test("a filter is a field while it is open, and says what is chosen", async () => {
    const { context, page } = await app.signedIn();
    await page.goto("/low-lantern/routes");
    await page.getByRole("button", { name: "Narrow" }).click();
    await page.getByRole("button", { name: "Tag: any tag" }).click();
    await choose(page.getByRole("combobox", { name: "Tag" }), "talk");
    await page.waitForURL(/tag=talks/);
    await page.keyboard.press("Tab");
    await page.getByRole("button", { name: "Tag: talks" }).waitFor();
    await page.getByRole("button", { name: "show all" }).click();
    await page.getByRole("button", { name: "Tag: talks" }).waitFor({ state: "detached" });
    await context.close();
  });
});
