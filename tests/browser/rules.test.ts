import assert from "node:assert/strict";
import { after, before, describe, test } from "node:test";
import type { Page } from "playwright-core";
import { ask, until } from "../support/ask.ts";
import { choose, type TestApp, testApp } from "../support/browser.ts";

let app: TestApp;
before(async () => {
  app = await testApp();
});
after(() => app.stop());

const delivered = async (path: string): Promise<string> =>
  (await ask(app.sitePort, path, { host: "lowlantern.localhost" })).body;
const rule = (page: Page, name: string) =>
  page.getByRole("listitem").filter({ has: page.getByRole("button", { name, exact: true }) });
const trial = (page: Page) => page.getByRole("region", { name: "What it would change" });

describe("rules on the bench", () => {
  test("one is made, tried down to its links, switched on, believed in the delivered page, and taken back", async () => {
    const { context, page } = await app.signedIn();
    await page.goto("/low-lantern/rules");
    await rule(page, "Network links are paid")
      .getByText(/decides \d+/)
      .waitFor();
    await page.getByRole("button", { name: "New rule" }).click();
    const form = page.getByRole("group", { name: /^The rule/ });
    await form.getByLabel("Name").fill("Harbour Optics is plain");
    await choose(form.getByLabel("Domains").first(), "harbour.*.localhost");
    await form.getByText("the star stands alone in front").waitFor();
    await form.getByText("The set keeps this rule as it was").waitFor();
    await form.getByRole("button", { name: "Remove harbour.*.localhost" }).click();
    await choose(form.getByLabel("Domains").first(), "harbour-optics.localhost");
    await form
      .getByRole("radiogroup", { name: "ugc" })
      .or(form.getByRole("group", { name: "ugc" }))
      .getByText("add")
      .click();
    await form.getByText("replacing what the author set").click();
    await page
      .getByText(
        "Links to outside hosts to harbour-optics.localhost: add ugc, replacing what the author set.",
      )
      .waitFor();
    await trial(page)
      .getByText(/Applied, it changes/)
      .waitFor();
    await trial(page).locator("summary").filter({ hasText: "+ugc" }).click();
    await trial(page).getByText("harbour-optics.localhost").first().waitFor();
    assert.ok(
      !(await delivered("/calendar/november")).includes("ugc"),
      "nothing acts before it is switched on",
    );

    await page.reload();
    await page.getByText("Not in force yet.").waitFor();
    await page.getByRole("button", { name: "Apply now" }).click();
    await page.getByText("Set 3 is in force").first().waitFor();
    await until("delivered pages follow", async () =>
      /harbour-optics[^>]* rel="[^"]*\bugc\b[^"]*noopener/.test(await delivered("/calendar/november")),
    );
    await page.getByRole("button", { name: "Undo" }).click();
    await until("and back", async () => !(await delivered("/calendar/november")).includes("ugc"));
    await context.close();
  });

  test("order by keyboard; a contradiction and a rule that never decides are told", async () => {
    const { context, page } = await app.signedIn();
    await page.goto("/low-lantern/rules");
    await page.getByRole("button", { name: "Copy “Outside links open in a new tab”" }).click();
    await page.getByText("can never decide anything").waitFor();
    const handle = page.getByRole("button", { name: /^Move “Network links are paid”/ });
    await handle.focus();
    for (const [key, told] of [
      ["Space", "“Network links are paid” is picked up from place 3"],
      ["ArrowUp", "“Network links are paid” is over place 2"],
      ["ArrowUp", "“Network links are paid” is over place 1"],
      ["Space", "“Network links are paid” is put down at place 1"],
    ] as const) {
      await page.keyboard.press(key);
      await page.getByText(told).waitFor();
    }
    await page.getByRole("button", { name: "Move “Network links are paid”, now at place 1" }).waitFor();
    await page.getByRole("button", { name: "Discard my changes" }).click();
    await page.getByRole("button", { name: "Move “Network links are paid”, now at place 2" }).waitFor();

    const rule = page.getByRole("button", { name: "Network links are paid", exact: true });
    await rule.press("Enter");
    const form = page.getByRole("group", { name: /Network links are paid/ });
    await form.getByLabel("Name").press("Escape");
    await form.waitFor({ state: "detached" });
    assert.equal(await rule.evaluate((one) => one === document.activeElement), true);
    await context.close();
  });

  test("a starting set is looked at, waits for its time, is dropped; an earlier set is put back", async () => {
    const { context, page } = await app.signedIn();
    await page.goto("/low-lantern/rules");
    await page.getByRole("button", { name: "Begin from a starting set…" }).click();
    await page
      .getByRole("region", { name: "Starting sets" })
      .getByRole("button", { name: "Begin with this" })
      .first()
      .click();
    await page.getByText("Not in force yet.").waitFor();
    await page.getByRole("button", { name: "At a time…" }).click();
    const day = page.getByRole("textbox", { name: "Comes into force", exact: true });
    await day.fill("1/1/2020");
    await page.getByRole("button", { name: "Apply it then" }).click();
    await page.getByText("That time has passed.").waitFor();
    await day.fill("1/1/2099");
    await page.getByLabel("Comes into force: time").fill("10:00");
    await page.getByRole("button", { name: "Apply it then" }).click();
    await page
      .getByText(/comes into force by itself/)
      .first()
      .waitFor();
    await page.getByRole("button", { name: "Cancel it" }).click();
    await page.getByText("The scheduled set is cancelled").waitFor();

    await page.goto("/low-lantern/rules/earlier");
    await page.getByRole("button", { name: "Set 1", exact: true }).click();
    await page.getByRole("button", { name: "Put set 1 back" }).click();
    await page.getByText(/is in force, the same as that earlier one/).waitFor();
    await page.goto("/low-lantern/rules");
    await page.getByText("Network links are paid").waitFor();
    assert.equal(await page.getByText("Inside links stay in the tab").count(), 0);
    await page.goto("/low-lantern/rules/earlier");
    await page.getByRole("button", { name: "Set 2", exact: true }).click();
    await page.getByRole("button", { name: "Put set 2 back" }).click();
    await page.getByText(/is in force, the same/).waitFor();
    await context.close();
  });

  test("a half-made set of an earlier time that nobody can go on with gives way to the one in force", async () => {
    const { context, page } = await app.signedIn();
    for (const kept of ["{", '{"base":1,"rules":[{"text":"mark them"}]}']) {
      await page.goto("/low-lantern/routes");
      await page.evaluate((text) => localStorage.setItem("maprope:rules:1", text), kept);
      await page.goto("/low-lantern/rules");
      await page.getByText("Network links are paid").first().waitFor();
    }
    await context.close();
  });

  test("two people at once: the later one is told, and loses nothing", async () => {
    const mara = await app.signedIn();
    const tobias = await app.signedIn("tobias");
    for (const { page } of [mara, tobias]) {
      await page.goto("/low-lantern/rules");
      await page.getByRole("switch", { name: /Inside links/ }).waitFor();
    }
    await tobias.page.getByRole("switch", { name: /Inside links/ }).click();
    await mara.page.getByRole("switch", { name: /Linked pictures/ }).click();
    await mara.page.getByRole("button", { name: "Apply now" }).click();
    await mara.page.getByText(/is in force; delivered/).waitFor();
    await tobias.page.getByRole("button", { name: "Apply now" }).click();
    await tobias.page.getByRole("alert").getByText("Nothing of yours is lost").waitFor();
    await tobias.page.getByRole("button", { name: /^go on over set/ }).click();
    await tobias.page.getByRole("button", { name: "Apply now" }).click();
    await tobias.page.getByText(/is in force; delivered/).waitFor();
    await tobias.page.goto("/low-lantern/rules/earlier");
    await tobias.page.getByText("switched off").first().waitFor();
    await mara.context.close();
    await tobias.context.close();
  });

  test("the disclosure follows on delivered pages", async () => {
    const { context, page } = await app.signedIn();
    await page.goto("/low-lantern/rules/disclosure");
    await page.getByLabel("What readers are told").fill("");
    await page.getByText("Write the disclosure before it is placed").waitFor();
    await page.getByLabel("What readers are told").fill("Links marked so pay for the coffee.");
    await page.getByRole("button", { name: "Save" }).click();
    await page.getByText("Saved; ledger and delivered pages follow").waitFor();
    await until("readers are told", async () =>
      (await delivered("/resources")).includes("pay for the coffee"),
    );
    await context.close();
  });
});
