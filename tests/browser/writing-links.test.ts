import assert from "node:assert/strict";
import { after, before, describe, test } from "node:test";
import { ask, until } from "../support/ask.ts";
import { assertAccessible, testApp, type TestApp } from "../support/browser.ts";
import { composer, dot, newPage, paste, rope, saved, textOf } from "../support/writing.ts";

let app: TestApp;
before(async () => {
  app = await testApp();
});
after(() => app.stop());

const delivered = async (path: string): Promise<string> =>
  (await ask(app.sitePort, path, { host: "lowlantern.localhost" })).body;

describe("one composer for every destination, by keyboard alone", () => {
  test("words find pages, drafts, short links, files and headings", async () => {
    const { context, page } = await app.signedIn();
    await newPage(page, "Everywhere", "/everywhere", "words");
    await page.keyboard.press("Enter");
    await page.keyboard.type("## Under the sky");
    await page.keyboard.press("Enter");
    const pick = async (typed: string, option: RegExp, tag: string): Promise<void> => {
      await textOf(page).press("Control+Home");
      await page.keyboard.press("Control+Shift+ArrowRight");
      await page.keyboard.press("Control+k");
      const field = composer(page).getByRole("combobox", { name: "Where it leads" });
      await field.fill(typed);
      const found = composer(page).getByRole("option", { name: option });
      await found.waitFor();
      for (let steps = 0; (await found.getAttribute("aria-selected")) !== "true" && steps < 15; steps += 1)
        await field.press("ArrowDown");
      await field.press("Enter");
      await composer(page).getByTestId("delivered").getByText(tag).waitFor();
      await field.press("Enter");
      await composer(page).waitFor({ state: "detached" });
    };
    await pick("fernhill", /page Three nights at Fernhill/, '<a href="/dark-places/fernhill">words</a>');
    await pick("dew", /Dew, and other enemies.*draft/, '<a href="/instruments/dew">words</a>');
    await pick("eight-inch.svg", /file eight-inch\.svg/, '<a href="/files/eight-inch.svg">words</a>');
    await pick("under", /in this page Under the sky/, '<a href="#under-the-sky">words</a>');
    await pick("thirteen", /short link Starling/, 'sponsored noopener" target="_blank">words</a>');
    await context.close();
  });

  test("an address that has a short link is offered that one first", async () => {
    const { context, page } = await app.signedIn();
    await newPage(page, "Short first", "/short-first", "torch");
    await page.keyboard.press("Control+a");
    const product = `http://starling-eyepieces.localhost:${app.simPort}/item/thirteen-millimetre-wide`;
    const long = `http://go.saltmarsh-partners.localhost:${app.simPort}/c/LL-2291/starling-eyepieces?to=${encodeURIComponent(product)}&sub=short-thirteen`;
    await paste(page, { text: long });
    await composer(page).getByText("Understood as outside").waitFor();
    const offer = composer(page).getByRole("option", { name: /its short link/ });
    await offer.waitFor();
    await composer(page).getByRole("combobox").press("ArrowDown");
    await composer(page).getByRole("combobox").press("Enter");
    await composer(page)
      .getByText(/Understood as short link/)
      .waitFor();
    await context.close();
  });

  test("mail, phone and a reading that was meant otherwise", async () => {
    const { context, page } = await app.signedIn();
    await newPage(page, "Readings", "/readings", "reach us");
    await page.keyboard.press("Control+a");
    await page.keyboard.press("Control+k");
    const field = composer(page).getByRole("combobox");
    const tag = composer(page).getByTestId("delivered");
    await field.fill("post@lowlantern.example");
    await tag.getByText('<a href="mailto:post@lowlantern.example">reach us</a>').waitFor();
    await field.fill("+44 20 7946 0018");
    await tag.getByText('<a href="tel:+442079460018">reach us</a>').waitFor();
    await field.fill("resources");
    await composer(page).getByRole("button", { name: "a path of this site" }).click();
    await tag.getByText('<a href="/resources">reach us</a>').waitFor();
    await composer(page).getByText("Understood as page: “What we lean on”").waitFor();
    await assertAccessible(page, "the composer with its readings");
    await context.close();
  });

  test("a file is opened in the browser, or kept", async () => {
    const { context, page } = await app.signedIn();
    await newPage(page, "Files", "/a-file", "the drawing");
    await page.keyboard.press("Control+a");
    await page.keyboard.press("Control+k");
    await composer(page).getByRole("combobox").fill("/files/moon-three-days.svg");
    await composer(page).getByLabel("Downloads the file").check();
    await composer(page).getByRole("button", { name: "Set link" }).click();
    await saved(page);
    await page.getByRole("button", { name: "Publish", exact: true }).click();
    await until("it is delivered as a download", async () =>
      /<a href="\/files\/moon-three-days\.svg" download="">the drawing/.test(await delivered("/a-file")),
    );
    const file = await ask(app.sitePort, "/files/moon-three-days.svg", { host: "lowlantern.localhost" });
    assert.deepEqual([file.status, file.headers["content-type"]], [200, "image/svg+xml"]);
    assert.match(String(file.headers["content-security-policy"]), /sandbox/);
    await context.close();
  });
});

describe("pictures", () => {
  test("several at once by pasting, with caption, width and side, linked to an item, and remembered", async () => {
    const { context, page } = await app.signedIn();
    await newPage(page, "Pictures", "/pictures", "Before them.");
    await paste(page, { files: [dot(1), dot(2)] });
    await until("both are in the text", async () => (await textOf(page).locator("img").count()) === 2);
    const first = textOf(page).locator("figure").first();
    await first.locator("img").click();
    const panel = page.getByRole("region", { name: "Picture" });
    await panel.getByLabel("Alternative text").fill("A red lamp");
    await panel.getByRole("radio", { name: "small" }).click();
    await panel.getByRole("radio", { name: "right" }).click();
    await assertAccessible(page, "the picture's panel");
    await panel.getByRole("button", { name: "Link the picture" }).click();
    const field = composer(page).getByRole("combobox");
    await field.fill(`http://harbour-optics.localhost:${app.simPort}/item/red-torch`);
    await composer(page).getByRole("button", { name: "Set link" }).click();
    await rope(page)
      .getByRole("button", { name: /A red lamp/ })
      .getByText("new tab nofollow sponsored noopener")
      .waitFor();
    await first.locator("figcaption").click();
    await page.keyboard.type("It hangs in the shed.");
    await page.keyboard.press("Control+End");
    await paste(page, { files: [dot(3)] });
    await until(
      "the next begins with the same frame",
      async () =>
        (await textOf(page).locator('figure[data-width="small"][data-align="right"]').count()) === 2,
    );
    await saved(page);
    await page.getByRole("button", { name: "Publish", exact: true }).click();
    await until("it is delivered whole", async () =>
      /<figure data-width="small" data-align="right"><a href="[^"]*red-torch" rel="nofollow sponsored noopener" target="_blank"><img src="\/files\/dot-\d\.png" alt="A red lamp" width="1" height="1"><\/a><figcaption>It hangs in the shed\./.test(
        await delivered("/pictures"),
      ),
    );
    await context.close();
  });

  test("by address; and one that links to its own file is noticed and mended", async () => {
    const { context, page } = await app.signedIn();
    await newPage(page, "By address", "/by-address", "Text");
    await page.getByRole("button", { name: "Picture from the web" }).click();
    const panel = page.getByRole("region", { name: "Picture" });
    await panel.getByLabel("Picture’s address").fill("/files/moon-three-days.svg");
    await panel.getByLabel("Alternative text").fill("The moon");
    await panel.getByRole("button", { name: "Link the picture" }).click();
    await composer(page).getByRole("combobox").fill("/files/moon-three-days.svg");
    await composer(page).getByRole("button", { name: "Set link" }).click();
    await rope(page).getByText("The picture links to its own file.").waitFor();
    await rope(page).getByRole("button", { name: "Take the link off" }).click();
    await until(
      "the knot is gone",
      async () =>
        (await rope(page)
          .getByRole("button", { name: /The moon/ })
          .count()) === 0,
    );
    assert.equal(await textOf(page).locator("img").count(), 1);
    await context.close();
  });

  test("a picture that is none is refused by its content, and the editor goes on", async () => {
    const { context, page } = await app.signedIn();
    await newPage(page, "Not one", "/not-one", "Text");
    await paste(page, { files: [{ name: "photo.png", type: "image/png", base64: btoa("only words") }] });
    await page.getByRole("alert").getByText("is called a picture, but its content is text").waitFor();
    await textOf(page).click();
    await page.keyboard.type(" goes on");
    await saved(page);
    await context.close();
  });
});

describe("the rope", () => {
  test("is thinned by kind, counted, and walked along with the keyboard", async () => {
    const { context, page } = await app.signedIn();
    await page.goto("/low-lantern/pages/6");
    const line = rope(page);
    await line.getByRole("radio", { name: "all 6" }).waitFor();
    await line.getByRole("radio", { name: /inside/ }).click();
    await until("two inside links are left", async () => (await line.getByRole("listitem").count()) === 2);
    await line.getByRole("radio", { name: /paid/ }).click();
    await until("four paid links are left", async () => (await line.getByRole("listitem").count()) === 4);
    await line.getByRole("radio", { name: /all/ }).click();
    await textOf(page).click();
    await page.keyboard.press("Alt+ArrowDown");
    await composer(page).getByLabel("Words").waitFor();
    const words = async (): Promise<string> =>
      composer(page)
        .getByLabel(/Words|Alternative text/)
        .inputValue();
    const seen = [await words()];
    for (let step = 0; step < 5; step += 1) {
      await page.keyboard.press("Alt+ArrowDown");
      await until("the next link is open", async () => (await words()) !== seen.at(-1));
      seen.push(await words());
    }
    assert.deepEqual([new Set(seen).size, seen[0]], [6, "current price is on Harbour's own page"]);
    await assertAccessible(page, "the rope");
    await context.close();
  });

  test("the check says what is wrong while one writes, why, and mends it", async () => {
    const { context, page } = await app.signedIn();
    await newPage(page, "Faults", "/faults", "click here");
    await page.keyboard.press("Control+a");
    await paste(page, { text: "/resorces" });
    await composer(page).getByRole("button", { name: "Set link" }).click();
    await rope(page).getByText("Nothing on the site answers /resorces.").waitFor();
    await rope(page).getByText("“click here” says nothing about where it leads.").waitFor();
    await page.getByRole("button", { name: /1 fault, 1 piece of advice/ }).click();
    await page
      .getByRole("region", { name: "Page check" })
      .getByText("Readers would get “not found”.")
      .waitFor();
    await rope(page).getByRole("button", { name: "Choose where it leads" }).click();
    await composer(page).getByRole("combobox").fill("/eyepiece");
    await composer(page).getByRole("button", { name: "Set link" }).click();
    await rope(page)
      .getByRole("radio", { name: /faulty 1/ })
      .waitFor();
    await context.close();
  });

  test("a link to a redirect is mended to its end in one step", async () => {
    const { context, page } = await app.signedIn();
    const made = await page.request.post("/api/v1/sites/low-lantern/routes", {
      headers: { Origin: app.workspace },
      data: { kind: "redirect", address: "/went-away", destination: "/resources" },
    });
    assert.equal(made.status(), 201);
    await newPage(page, "Redirected", "/redirected", "what we use");
    await page.keyboard.press("Control+a");
    await paste(page, { text: "/went-away" });
    await composer(page).getByRole("button", { name: "Set link" }).click();
    await rope(page).getByRole("button", { name: "Link to the end" }).click();
    await rope(page)
      .getByRole("button", { name: /what we use/ })
      .getByText("page")
      .first()
      .waitFor();
    await until(
      "it leads to the end",
      async () => (await textOf(page).locator("a").getAttribute("href")) === "/resources",
    );
    await page.keyboard.press("Control+z");
    await until(
      "undo takes it back",
      async () => (await textOf(page).locator("a").getAttribute("href")) === "/went-away",
    );
    await context.close();
  });

  test("a partner's snippet is taken over without its scripts, its placeholder filled", async () => {
    const { context, page } = await app.signedIn();
    await newPage(page, "Snippet", "/snippet", "Ours: ");
    await paste(page, {
      text: '<script src="//n.example/t.js"></script><a href="https://n.example/c?id=YOUR_ACCOUNT" onclick="t()">the lamp</a>',
    });
    const report = page.getByRole("status", { name: "The snippet" });
    await report.getByText("1 link, 0 pictures").waitFor();
    await report.getByText(/Left out: .*script.*onclick|Left out: .*onclick.*script/).waitFor();
    await report.getByText("is filled from the site variable “account”").waitFor();
    await saved(page);
    await page.getByRole("button", { name: "Publish", exact: true }).click();
    await until("readers get it filled", async () =>
      (await delivered("/snippet")).includes('href="https://n.example/c?id=LL-2291"'),
    );
    await context.close();
  });
});
