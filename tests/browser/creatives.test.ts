import assert from "node:assert/strict";
import { after, before, describe, test } from "node:test";
import { until } from "../support/ask.ts";
import { assertAccessible, testApp, type TestApp } from "../support/browser.ts";
import { composer, newPage, rope, saved } from "../support/writing.ts";

let app: TestApp;
before(async () => {
  app = await testApp();
});
after(() => app.stop());

const go = (): string => `http://go.saltmarsh-partners.localhost:${app.simPort}/c`;

describe("a creative", () => {
  test("is kept from a snippet, put in at the caret, changed once, and its place follows", async () => {
    const { context, page } = await app.signedIn();
    await page.goto("/low-lantern/programs?open=1");
    const creatives = page.getByRole("region", { name: "Creatives" });
    const fresh = creatives.getByRole("form", { name: "New creative" });
    await fresh.getByLabel("Snippet").fill("<script>x()</script>");
    await fresh.getByText("There is no link beside a script").waitFor();
    await fresh.getByLabel("Name", { exact: true }).fill("Spring text");
    // What is in a snippet is told before it is kept, and placeholders of the program's own are filled in one step.
    const banner = `<a href="${go()}/[ACCOUNT]/harbour-optics?to=/&sub={sub}"><img src="http://harbour-optics.localhost:${app.simPort}/banner.svg" width="300" height="100" alt="Dark nights"></a><img src="${go()}/seen" width="1" height="1"><script>x()</script>`;
    await fresh.getByLabel("Snippet").fill(banner);
    const reading = fresh.getByRole("group", { name: "What is in it" });
    await reading.getByText("A banner, 300 × 100; a dot of one pixel counts who sees it").waitFor();
    await reading.getByText("a script will be left out").waitFor();
    await reading.getByRole("img", { name: "Dark nights" }).waitFor();
    await assertAccessible(page, "a snippet as it was understood");
    await reading.getByRole("button", { name: "Our account" }).click();
    assert.equal(await fresh.getByLabel("Snippet").inputValue(), banner.replace("[ACCOUNT]", "{id}"));
    await reading.getByText("What is [ACCOUNT]?").waitFor({ state: "detached" });
    const snippet = `<a href="${go()}/{id}/harbour-optics?to=/&sub={sub}" onclick="x()">Glass for dark nights</a>`;
    await fresh.getByLabel("Snippet").fill(snippet);
    await fresh.getByRole("button", { name: "Keep it" }).click();
    await creatives.getByText("Not kept of it: event handlers.").waitFor();
    const kept = creatives.getByRole("listitem").filter({ hasText: "Spring text" });
    await kept.getByText("Used nowhere.").waitFor();
    await kept.getByRole("button", { name: "Copy ready to paste" }).click();
    await page.getByText(/^Copied/).waitFor();
    assert.match(
      await page.evaluate(() => navigator.clipboard.readText()),
      /^<a href="[^"]*\/c\/LL-2291\/harbour-optics\?to=\/&amp;sub=" data-creative="\d+">Glass for dark nights<\/a>$/,
    );

    await newPage(page, "Spring nights", "/spring-nights", "We look through ");
    await page.keyboard.press("Control+k");
    await composer(page).getByRole("button", { name: "Put in a creative of a program" }).click();
    await assertAccessible(page, "creatives in the composer");
    await composer(page).getByRole("button", { name: "Spring text Harbour Optics" }).click();
    const knot = rope(page).getByRole("button", { name: /Glass for dark nights/ });
    await knot.getByText("Harbour Optics").waitFor();
    await knot.getByText("new tab nofollow sponsored noopener").waitFor();
    await saved(page);
    const id = /pages\/(\d+)$/.exec(page.url())![1]!;
    const html = async (): Promise<string> =>
      ((await (await page.request.get(`/api/v1/sites/1/pages/${id}`)).json()) as { html: string }).html;
    assert.match(await html(), /sub=spring-nights-1" data-creative="\d+">Glass for dark nights<\/a>/);
    await page.getByRole("button", { name: "Publish", exact: true }).click();
    await page
      .getByText(/^Published/)
      .first()
      .waitFor();

    await page.goto("/low-lantern/programs?open=1");
    await kept.getByRole("link", { name: "Spring nights" }).waitFor();
    await kept.getByRole("button", { name: "Change Spring text" }).click();
    const form = creatives.getByRole("form", { name: "Change Spring text" });
    await form.getByLabel("Snippet").fill(snippet.replace("Glass for dark nights", "Glass for short nights"));
    await form.getByRole("button", { name: "See what changes" }).click();
    await form
      .getByRole("table", { name: "What would change" })
      .getByText("Glass for short nights")
      .waitFor();
    await assertAccessible(page, "a creative that changes");
    await form.getByRole("button", { name: "Change it" }).click();
    await page.getByText("Changed Spring text; 1 place follows").waitFor();
    assert.match(await html(), /sub=spring-nights-1" data-creative="\d+">Glass for short nights<\/a>/);
    await page.getByRole("button", { name: "Undo" }).last().click();
    await until("it is as it was", async () => (await html()).includes("Glass for dark nights"));
    await context.close();
  });

  test("becomes the link of a picture, which stays the author's own", async () => {
    const { context, page } = await app.signedIn();
    await page.goto("/low-lantern/pages/6");
    const picture = page.locator(".ProseMirror img").first();
    await picture.click();
    await page.keyboard.press("Control+k");
    await composer(page).getByRole("button", { name: "Put in a creative of a program" }).click();
    await composer(page).getByRole("button", { name: "Night sky banner Harbour Optics" }).click();
    const html = async (): Promise<string> => (await page.request.get("/api/v1/sites/1/pages/6")).text();
    await until("it is saved", async () =>
      /<a href=[^<>]*\/c\/LL-2291\/harbour-optics[^<>]* data-creative=[^<>]*><img src=[^<>]*eight-inch/.test(
        await html(),
      ),
    );
    await context.close();
  });

  test("pasted at the top of any screen, is kept in one step of the program that it leads to", async () => {
    const { context, page } = await app.signedIn();
    await page.goto("/low-lantern/ledger");
    await page.keyboard.press("/");
    await page
      .getByRole("combobox", { name: /^Paste an address/ })
      .fill(
        `<a href="${go()}/{id}/starling-eyepieces?to=/"><img src="http://starling-eyepieces.localhost:${app.simPort}/banner.svg" width="300" height="100" alt="Starling, wide"></a>`,
      );
    const form = page.getByRole("form", { name: "Keep the snippet" });
    await form.getByText("A snippet with a banner.").waitFor();
    assert.equal(await form.getByLabel("Name", { exact: true }).inputValue(), "Starling, wide");
    await until(
      "its program is found",
      async () =>
        (await form.getByRole("combobox", { name: "Program" }).inputValue()) === "Starling Eyepieces",
    );
    await form.getByRole("button", { name: "Keep as a creative" }).click();
    await page.getByText("Kept Starling, wide as a creative of Starling Eyepieces").waitFor();
    await context.close();
  });
});
