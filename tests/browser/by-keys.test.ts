import assert from "node:assert/strict";
import { after, before, describe, test } from "node:test";
import type { Page } from "playwright-core";
import { ask, until } from "../support/ask.ts";
import { assertAccessible, testApp, type TestApp } from "../support/browser.ts";

let app: TestApp;
before(async () => {
  app = await testApp();
});
after(() => app.stop());

/** What has the focus: its key where it is a row, else what it is called. */
const focused = (page: Page): Promise<string> =>
  page.evaluate(() => {
    const at = document.activeElement as HTMLElement;
    return at.matches("tr") ? at.dataset.key! : (at.getAttribute("aria-label") ?? at.textContent!.trim());
  });

async function on(path: string, ready: string, work: (page: Page) => Promise<void>): Promise<void> {
  const { context, page } = await app.signedIn();
  await page.goto(path);
  await page.getByText(ready).first().waitFor();
  await work(page);
  await context.close();
}

describe("without a pointer", () => {
  for (const [screen, ready] of [
    ["routes", "/gift"],
    ["ledger", "An hour with nothing"],
    ["programs", "Fernhill Dark-Sky Cabins"],
  ] as const)
    test(`on ${screen} the search leads to rows, Enter opens one, and Escape gives the focus back to it`, () =>
      on(`/low-lantern/${screen}`, ready, async (page) => {
        await page.keyboard.press("f");
        await page.keyboard.press("ArrowDown");
        await page.keyboard.press("ArrowDown");
        const row = await focused(page);
        await page.keyboard.press("Enter");
        const panel = page.locator("aside[tabindex='-1']");
        await panel.waitFor();
        await until("the panel has the focus", async () =>
          panel.evaluate((element) => element.contains(document.activeElement)),
        );
        await until(
          "the title says what is open",
          async () => !/^(?:Routes|Ledger|Programs) ·/.test(await page.title()),
        );
        await page.keyboard.press("Escape");
        await panel.waitFor({ state: "detached" });
        await until(`the row ${row} has the focus`, async () => (await focused(page)) === row);
        // From the row itself, too.
        await page.keyboard.press("Enter");
        await panel.waitFor();
        await page.locator(`tr[data-key="${row}"]`).focus();
        await page.keyboard.press("Escape");
        await panel.waitFor({ state: "detached" });
      }));

  test("a column is made wider by the arrows, is so the next time, and gives its width up again", () =>
    on("/low-lantern/routes", "/gift", async (page) => {
      const head = page.getByRole("columnheader", { name: "Leads to" });
      const edge = page.getByRole("slider", { name: "Width of the column Leads to" });
      const width = async (): Promise<number> => (await head.boundingBox())!.width;
      const before = await width();
      await edge.focus();
      for (let step = 0; step < 4; step += 1) await page.keyboard.press("ArrowLeft");
      const narrower = await width();
      assert.ok(narrower < before - 40, `${narrower} is not narrower than ${before}`);
      await page.reload();
      assert.equal(await width(), narrower);
      // Whoever sorts by it hears its name alone.
      assert.equal(await head.getByRole("button").textContent(), "Leads to");
      await edge.focus();
      await page.keyboard.press("Delete");
      await until("it is as wide as it was", async () => Math.abs((await width()) - before) < 2);
    }));

  test("columns that were chosen are there the next time, on whatever address", () =>
    on("/low-lantern/ledger", "An hour with nothing", async (page) => {
      await page.getByRole("button", { name: "Columns" }).focus();
      await page.keyboard.press("Enter");
      await page.getByRole("checkbox", { name: "Decided by" }).focus();
      await page.keyboard.press("Space");
      await page.keyboard.press("Escape");
      await page.getByRole("columnheader", { name: "Decided by" }).waitFor();
      await page.goto("/low-lantern/ledger?q=hour");
      await page.getByRole("columnheader", { name: "Decided by" }).waitFor();
    }));

  test("a deleted route gives the focus to the next row", () =>
    on("/low-lantern/routes?kind=redirect", "/dobsonian", async (page) => {
      await page.keyboard.press("f");
      await page.keyboard.press("ArrowDown");
      await page.keyboard.press("ArrowDown");
      const rows = await page
        .locator("tr[data-key]")
        .evaluateAll((all) => all.map((row) => row.dataset.key!));
      assert.equal(await focused(page), rows[1]);
      await page.keyboard.press("Delete");
      await page.locator(`tr[data-key="${rows[1]}"]`).waitFor({ state: "detached" });
      await until("the next row has the focus", async () => (await focused(page)) === rows[2]);
    }));

  test("? says what keys do here, and gives the focus back", () =>
    on("/low-lantern/ledger", "An hour with nothing", async (page) => {
      await page.keyboard.press("f");
      await page.keyboard.press("ArrowDown");
      const row = await focused(page);
      await page.keyboard.press("?");
      const help = page.getByRole("dialog", { name: "Keys" });
      await help.getByText("go to the words in their page").waitFor();
      await assertAccessible(page, "the keys");
      await page.keyboard.press("Escape");
      await help.waitFor({ state: "detached" });
      assert.equal(await focused(page), row);
    }));

  test("the first stop of Tab leads past the head", () =>
    on("/low-lantern/routes", "/gift", async (page) => {
      await page.keyboard.press("Tab");
      assert.equal(await focused(page), "To the screen");
      await page.keyboard.press("Enter");
      await page.keyboard.press("Tab");
      assert.ok(await page.evaluate(() => document.querySelector("main")!.contains(document.activeElement)));
    }));

  test("a switch keeps the focus, and says what became of it", () =>
    on("/low-lantern/routes?q=dobsonian", "/dobsonian", async (page) => {
      const toggle = page.getByRole("switch").first();
      const was = await toggle.getAttribute("aria-checked");
      await toggle.focus();
      await page.keyboard.press("Space");
      await until("it is switched", async () => (await toggle.getAttribute("aria-checked")) !== was);
      assert.ok(await toggle.evaluate((element) => element === document.activeElement));
    }));
});

/** Presses Tab until something of this name has the focus, as somebody does who has no pointer. */
async function tabTo(page: Page, name: string | RegExp, key = "Tab"): Promise<void> {
  for (let steps = 0; steps < 80; steps += 1) {
    const there = await focused(page);
    if (typeof name === "string" ? there === name : name.test(there)) return;
    await page.keyboard.press(key);
  }
  assert.fail(`Tab never came to ${String(name)}`);
}

describe("an editor's first five minutes, without a pointer", () => {
  const ADDRESS = () => `http://harbour-optics.localhost:${app.simPort}/item/red-torch?a=1`;
  const delivered = async (path: string): Promise<string> =>
    (await ask(app.sitePort, path, { host: "lowlantern.localhost" })).body;

  test("a page is found, words are linked, and readers get it", () =>
    on("/low-lantern/pages", "What we lean on", async (page) => {
      await page.keyboard.press("f");
      await page.keyboard.type("Forty nights with");
      await until("it stands first", async () =>
        /^Forty nights/.test(await page.locator("tbody tr").first().innerText()),
      );
      await page.keyboard.press("ArrowDown");
      await page.keyboard.press("Enter");
      await page.waitForURL(/\/pages\/\d+/);
      const text = page.getByRole("textbox", { name: "Text of the page" });
      await text.waitFor();
      await tabTo(page, "Text of the page");
      await page.keyboard.press("Control+End");
      await page.keyboard.type(" A red torch");
      await page.keyboard.press("Control+Shift+ArrowLeft");
      await page.keyboard.press("Control+k");
      const form = page.getByRole("form", { name: /link$/ });
      await form.getByRole("combobox").waitFor();
      await page.keyboard.insertText(ADDRESS());
      await form.getByTestId("delivered").getByText("red-torch").waitFor();
      await page.keyboard.press("Enter");
      await form.waitFor({ state: "detached" });
      await tabTo(page, "Publish", "Shift+Tab");
      await page.keyboard.press("Enter");
      await until("readers get it", async () =>
        /red-torch\?a=1"[^>]*>torch</.test(await delivered("/reviews/harbour-eight-inch")),
      );
    }));

  test("a rule is switched off, which readers notice, and on again", () =>
    on("/low-lantern/rules", "Outside links open in a new tab", async (page) => {
      const isNew = async () =>
        /harbour-optics[^>]*target="_blank"/.test(await delivered("/calendar/november"));
      assert.ok(await isNew());
      for (const [before, then] of [
        ["on", false],
        ["off", true],
      ] as const) {
        await tabTo(page, `Outside links open in a new tab: ${before}`);
        await page.keyboard.press("Space");
        await page.getByText("Not in force yet.").waitFor();
        await tabTo(page, "Apply now", "Shift+Tab");
        await page.keyboard.press("Enter");
        await until("readers get it", async () => (await isNew()) === then);
        await page.getByText("Not in force yet.").waitFor({ state: "detached" });
      }
    }));

  test("a short link is made from anywhere, and a miss is answered", () =>
    on("/low-lantern/clicks", "clicks by people", async (page) => {
      await page.keyboard.press("/");
      await page.keyboard.insertText(`${ADDRESS()}&keys=1`);
      await page.getByRole("button", { name: "Make a short link" }).waitFor();
      await page.keyboard.press("Enter");
      const form = page.getByRole("form", { name: "New short link" });
      await form.getByText(/is free$/).waitFor();
      await page.keyboard.press("Enter");
      await page
        .getByRole("status")
        .getByText(/^Copied http/)
        .waitFor();
      await ask(app.sitePort, "/calendar/novemberr", { host: "lowlantern.localhost" });
      await page.goto("/low-lantern/misses");
      await page.getByText("/almanack").first().waitFor();
      await page.keyboard.press("f");
      await page.keyboard.type("novemberr");
      await until("one is left", async () => (await page.locator("tbody tr").count()) === 1);
      await page.keyboard.press("ArrowDown");
      await tabTo(page, /november(?!r)/);
      await page.keyboard.press("Enter");
      await page
        .getByRole("status")
        .getByText("/calendar/novemberr now leads to /calendar/november")
        .waitFor();
    }));
});

describe("what is opened has no accessibility finding", () => {
  const press =
    (...keys: string[]) =>
    async (page: Page): Promise<void> => {
      for (const key of keys) await page.keyboard.press(key);
    };
  const name = (role: "button" | "menuitem", words: string | RegExp) => async (page: Page) => {
    await page.getByRole(role, { name: words }).first().click();
  };
  const states: readonly (readonly [
    what: string,
    path: string,
    ready: string,
    open: (page: Page) => Promise<void>,
    shown: string,
  ])[] = [
    ["the site's menu", "/low-lantern/routes", "/gift", name("button", "Low Lantern"), "Sign out"],
    ["columns", "/low-lantern/routes", "/gift", name("button", "Columns"), "Changed"],
    ["a route", "/low-lantern/routes", "/gift", press("f", "ArrowDown", "Enter"), "Trace"],
    [
      "a link",
      "/low-lantern/ledger",
      "An hour with nothing",
      press("f", "ArrowDown", "Enter"),
      "Readers get",
    ],
    [
      "marked links",
      "/low-lantern/ledger",
      "An hour with nothing",
      press("f", "ArrowDown", "Space"),
      "1 marked",
    ],
    [
      "a rule",
      "/low-lantern/rules",
      "Network links are paid",
      name("button", /^Network links are paid$/),
      "What becomes of them",
    ],
    ["a file", "/low-lantern/files", "pier.jpg", name("button", "pier.jpg"), "Used by"],
    [
      "about a page",
      "/low-lantern/pages/6",
      "Who it is for",
      name("button", "About this page"),
      "Description",
    ],
  ];
  for (const [what, path, ready, open, shown] of states)
    test(what, () =>
      on(path, ready, async (page) => {
        await open(page);
        await page.getByText(shown).first().waitFor();
        for (const colorScheme of ["light", "dark"] as const) {
          await page.emulateMedia({ colorScheme });
          await assertAccessible(page, `${what}, ${colorScheme}`);
        }
      }),
    );
});
