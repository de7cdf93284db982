import assert from "node:assert/strict";
import { after, before, describe, test } from "node:test";
import { unzipSync, zipSync, strFromU8, strToU8 } from "fflate";
import { readFileSync } from "node:fs";
import { ask, until } from "../support/ask.ts";
import { assertAccessible, testApp, type TestApp } from "../support/browser.ts";
import { composer, dot, newPage, rope, saved, textOf } from "../support/writing.ts";

let app: TestApp;
before(async () => {
  app = await testApp();
});
after(() => app.stop());

const delivered = async (path: string): Promise<string> =>
  (await ask(app.sitePort, path, { host: "lowlantern.localhost" })).body;
const REVIEW = "/low-lantern/pages/6";

describe("the page as source", () => {
  test("has the same knots and checks, and changes nothing but what was edited", async () => {
    const { context, page } = await app.signedIn();
    await page.goto("/low-lantern/pages/3");
    await textOf(page).waitFor();
    const before = (await (await page.request.get("/api/v1/sites/low-lantern/pages/3")).json())
      .html as string;
    await page.getByRole("radio", { name: "HTML" }).click();
    const source = page.getByRole("textbox", { name: "HTML of the page" });
    await source.getByText("surprisingly good").waitFor();
    await rope(page)
      .getByRole("button", { name: /Harbour 10×50/ })
      .getByText(/sponsored/)
      .waitFor();
    await assertAccessible(page, "the HTML view");
    await source.getByText("surprisingly good").click();
    await page.keyboard.press("Control+f");
    await page.getByRole("textbox", { name: "Find" }).fill("spoilt");
    await page.keyboard.press("Escape");
    await source.click();
    await page.keyboard.press("Control+Home");
    await page.keyboard.insertText('<p>New <a href="/nowhere">click here</a>.</p>');
    await rope(page).getByText("Nothing on the site answers /nowhere.").waitFor();
    await saved(page);
    await page.getByRole("radio", { name: "Text" }).click();
    await textOf(page).getByText("New click here.").waitFor();
    const { html } = await (await page.request.get("/api/v1/sites/low-lantern/pages/3")).json();
    assert.equal(html, `<p>New <a href="/nowhere">click here</a>.</p>${before}`);
    await context.close();
  });

  test("a page too long for an editor is written as source, and stays alive", async () => {
    const { context, page } = await app.signedIn();
    const html = `<p>${"word ".repeat(900)}<a href="/resources">what we lean on</a></p>`.repeat(380);
    const made = await page.request.post("/api/v1/sites/low-lantern/pages", {
      headers: { Origin: app.workspace },
      data: { path: "/long", title: "Long", html },
    });
    await page.goto(`/low-lantern/pages/${(await made.json()).id}`);
    await page.getByText("million characters: it is written as source").waitFor();
    await rope(page).getByRole("radio", { name: "inside 380" }).waitFor();
    await page.getByRole("textbox", { name: "HTML of the page" }).click();
    await page.keyboard.type("typed");
    await saved(page);
    await context.close();
  });

  test("what cannot be kept is told, and never runs", async () => {
    const { context, page } = await app.signedIn();
    await newPage(page, "Source", "/source", "Words");
    await saved(page);
    await page.getByRole("radio", { name: "HTML" }).click();
    const source = page.getByRole("textbox", { name: "HTML of the page" });
    await source.click();
    await page.keyboard.press("Control+End");
    await page.keyboard.insertText("<p onclick='x()'>more</p><script>document.title='ran'</script>");
    await page.getByText(/The last save left out: .*onclick/).waitFor();
    await page.getByRole("radio", { name: "Text" }).click();
    await textOf(page).getByText("more").waitFor();
    assert.notEqual(await page.title(), "ran");
    await context.close();
  });
});

describe("the page as a reader gets it", () => {
  test("in the site's look, with each link's end, and the delivered HTML beside what is stored", async () => {
    const { context, page } = await app.signedIn();
    await page.goto(`${REVIEW}?view=preview`);
    const frame = page.frameLocator("iframe");
    await frame.getByRole("link", { name: "the Starling 13 mm" }).hover();
    await page
      .getByRole("status")
      .getByText(/go\.saltmarsh-partners/)
      .waitFor();
    await frame.getByRole("link", { name: "Fernhill" }).focus();
    await page.getByRole("status").getByText("/dark-places/fernhill").waitFor();
    const source = page.getByRole("region", { name: "Delivered HTML" });
    await source.getByText("4 of 6 links are delivered otherwise than they are stored.").waitFor();
    assert.equal(await source.locator("pre mark").first().textContent(), 'rel="nofollow sponsored noopener"');
    await source
      .getByText(/^stored: <a href=/)
      .first()
      .waitFor();
    await assertAccessible(page, "the preview");
    await context.close();
  });
});

describe("nothing is lost", () => {
  test("a tab that crashes before its save: the text is there when one comes back", async () => {
    const { context, page } = await app.signedIn();
    await newPage(page, "Crash", "/crash", "Saved words.");
    await saved(page);
    const address = page.url();
    await context.setOffline(true);
    await textOf(page).click();
    await page.keyboard.press("Control+End");
    await page.keyboard.type(" Words that never reached the server.");
    await page.getByText("Not saved yet").waitFor();
    await page.close();
    await context.setOffline(false);
    const again = await context.newPage();
    await again.goto(address);
    await textOf(again).getByText("Saved words. Words that never reached the server.").waitFor();
    await again.getByText("Restored what this browser had not been able to save.").waitFor();
    await saved(again);
    const id = address.split("/").at(-1);
    await until("the server has it", async () =>
      (await (await again.request.get(`/api/v1/sites/low-lantern/pages/${id}`)).json()).html.includes(
        "never reached",
      ),
    );
    await context.close();
  });

  test("two people see each other's saves; a conflict keeps both", async () => {
    const [mara, tobias] = [await app.signedIn(), await app.signedIn("tobias")];
    await newPage(mara.page, "Two", "/two", "First.");
    await saved(mara.page);
    await tobias.page.goto(mara.page.url());
    await textOf(tobias.page).getByText("First.").waitFor();
    await mara.page.getByText("Tobias Fenn has this page open too.").waitFor();
    await textOf(mara.page).click();
    await mara.page.keyboard.press("Control+End");
    await mara.page.keyboard.type(" Second.");
    await textOf(tobias.page).getByText("First. Second.").waitFor();

    await tobias.context.setOffline(true);
    await textOf(tobias.page).click();
    await tobias.page.keyboard.press("Control+End");
    await tobias.page.keyboard.type(" From Tobias.");
    await mara.page.keyboard.type(" From Mara.");
    await saved(mara.page);
    await tobias.context.setOffline(false);
    const conflict = tobias.page.getByRole("alert");
    await conflict.getByRole("button", { name: "Save mine over it" }).click();
    await saved(tobias.page);
    await tobias.page.getByRole("radio", { name: "Compare" }).click();
    await tobias.page.getByText("Kept beside it").first().waitFor();
    await tobias.page.locator("del").getByText("Mara").waitFor();
    await tobias.page.locator("ins").getByText("Tobias").waitFor();
    await assertAccessible(tobias.page, "the comparison");
    await mara.context.close();
    await tobias.context.close();
  });

  test("published and draft are compared, words and links apart, and an earlier version is the draft again", async () => {
    const { context, page } = await app.signedIn();
    await newPage(page, "Versions", "/versions", "Old words here");
    await saved(page);
    await page.getByRole("button", { name: "Publish", exact: true }).click();
    await page.getByText("Published", { exact: true }).waitFor();
    await textOf(page).getByText("Old").dblclick();
    await page.keyboard.press("Control+k");
    await composer(page).getByRole("combobox").fill("/resources");
    await composer(page).getByLabel("Words").fill("New");
    await composer(page).getByRole("button", { name: "Set link" }).click();
    await saved(page);
    await page.getByRole("radio", { name: "Compare" }).click();
    await page.getByText("words differ as marked, one link differs").waitFor();
    await page.getByRole("cell", { name: "added" }).waitFor();
    await page.getByRole("button", { name: "Make it the draft again" }).click();
    await page.getByText("the words are the same, the links are the same").waitFor();
    await page.getByRole("radio", { name: "Text" }).click();
    await textOf(page).getByText("Old words here").waitFor();
    await page.keyboard.press("Control+z");
    await context.close();
  });

  test("an inside link follows its page, and adding one to an old page moves neither its address nor its date", async () => {
    const { context, page } = await app.signedIn();
    await page.goto(REVIEW);
    await page.getByRole("button", { name: "About this page" }).click();
    await page.getByLabel("Path").fill("/reviews/forty-nights");
    await saved(page);
    await page.getByRole("button", { name: "Publish", exact: true }).click();
    await until("other pages link to the new path", async () =>
      (await delivered("/")).includes('href="/reviews/forty-nights">Our long review'),
    );
    await page.goto("/low-lantern/pages/1");
    await rope(page)
      .getByRole("button", { name: /Our long review/ })
      .getByText("/reviews/forty-nights")
      .waitFor();
    await context.close();
  });
});

describe("what stands around pages", () => {
  test("the navigation is arranged by keyboard, and readers get it", async () => {
    const { context, page } = await app.signedIn();
    await page.goto("/low-lantern/navigation");
    await page.getByRole("button", { name: "Add A pier in the lawn" }).click();
    const grip = page.getByRole("button", { name: "Move A pier in the lawn", exact: true });
    await grip.focus();
    for (const key of ["ArrowUp", "ArrowUp", "ArrowUp", "ArrowRight"])
      await page.keyboard.press(`Alt+${key}`);
    await page.getByRole("button", { name: "Entry", exact: true }).click();
    await page.getByLabel("Label").fill("The weather");
    await page.getByRole("combobox", { name: "Address", exact: true }).fill("sky.example/tonight");
    await page.getByRole("radio", { name: "Same tab" }).click();
    await assertAccessible(page, "the navigation");
    await page.getByRole("button", { name: "Entry", exact: true }).click();
    await page.getByLabel("Label").fill("Our almanac");
    await page.getByLabel("Kind").selectOption("Short link");
    await page.getByRole("combobox", { name: "Address", exact: true }).fill("windowsill");
    await page
      .getByRole("option", { name: /Windowsill almanac/ })
      .first()
      .click();
    const address = page.getByRole("combobox", { name: "Address", exact: true });
    await until("it is found by its words", async () =>
      /^http:\/\/lntn\.localhost:\d+\/\S+$/.test(await address.inputValue()),
    );
    const almanac = await address.inputValue();
    await page.getByRole("button", { name: "Save for readers" }).click();
    await until("readers have it", async () => {
      const html = await delivered("/resources");
      return (
        /First nights<\/a><ul>.*An hour with nothing<\/a><\/li><li>.*Binoculars first<\/a><\/li><\/ul>/.test(
          html,
        ) &&
        /Reviews<\/a><ul><li><a href="\/instruments\/a-pier-in-the-lawn">A pier in the lawn<\/a><\/li><\/ul>/.test(
          html,
        ) &&
        /<a href="https:\/\/sky\.example\/tonight">The weather<\/a>/.test(html) &&
        html.includes(`<a href="${almanac}"`)
      );
    });
    assert.match(
      await delivered("/resources"),
      /<a href="\/first-nights\/an-hour-with-nothing">First nights<\/a>/,
      "a heading lands on a page of its own",
    );
    await context.close();
  });

  test("an entry is dragged with the mouse", async () => {
    const { context, page } = await app.signedIn();
    await page.goto("/low-lantern/navigation");
    const from = await page.getByRole("button", { name: "Move Resources", exact: true }).boundingBox();
    const to = await page.getByRole("button", { name: "Move First nights", exact: true }).boundingBox();
    await page.mouse.move(from!.x + 8, from!.y + 8);
    await page.mouse.down();
    await page.mouse.move(from!.x + 8, from!.y - 20, { steps: 4 });
    await page.mouse.move(to!.x + 8, to!.y + 4, { steps: 12 });
    await page.getByText(/“Resources” is over place 1 of \d/).waitFor();
    await page.mouse.up();
    const grips = page.getByRole("button", { name: /^Move / });
    await until(
      "it stands first",
      async () => (await grips.first().getAttribute("aria-label")) === "Move Resources",
    );
    await context.close();
  });

  test("a shared block is written like a page and stands where it is to", async () => {
    const { context, page } = await app.signedIn();
    assert.match(await delivered("/resources"), /our account is LL-2291/);
    await page.goto("/low-lantern/blocks");
    await page.getByRole("link", { name: "Beside reviews" }).waitFor();
    await assertAccessible(page, "the shared blocks");
    await page.getByRole("button", { name: "New block" }).click();
    await page.waitForURL(/\/pages\/\d+$/);
    await page.getByLabel("Title", { exact: true }).fill("Note for beginners");
    await page.getByRole("button", { name: "Where it stands" }).click();
    await page.getByRole("radio", { name: "Chosen pages" }).click();
    await page.getByLabel(/^Paths/).fill("/first-nights/*");
    await textOf(page).click();
    await page.keyboard.type("Start with nothing.");
    await saved(page);
    await page.getByRole("button", { name: "Publish", exact: true }).click();
    await until("it stands on its pages", async () =>
      (await delivered("/first-nights/an-hour-with-nothing")).includes("Start with nothing."),
    );
    assert.doesNotMatch(await delivered("/resources"), /Start with nothing/);
    await context.close();
  });

  test("files are uploaded, tell who uses them, and are deleted with undo", async () => {
    const { context, page } = await app.signedIn();
    await page.goto("/low-lantern/files");
    const { name, type, base64 } = dot(9);
    await page.getByLabel("Files to upload").setInputFiles([
      { name, mimeType: type, buffer: Buffer.from(base64, "base64") },
      { name: "fake.png", mimeType: "image/png", buffer: Buffer.from("words") },
    ]);
    await page.getByRole("alert").getByText("is called a picture, but its content is text").waitFor();
    await page.getByRole("button", { name, exact: true }).waitFor();
    await page.getByRole("button", { name: "eight-inch.svg", exact: true }).click();
    const detail = page.getByRole("complementary", { name: "File eight-inch.svg" });
    await detail.getByRole("link", { name: "Forty nights with the Harbour eight-inch" }).waitFor();
    await assertAccessible(page, "the files");
    await detail.getByRole("button", { name: "Delete, though 1 page uses it" }).click();
    await page.getByRole("status").getByText("Deleted “eight-inch.svg”").waitFor();
    const asReader = () => ask(app.sitePort, "/files/eight-inch.svg", { host: "lowlantern.localhost" });
    await until("readers have it no longer", async () => (await asReader()).status === 404);
    await page.getByRole("button", { name: "Undo" }).click();
    await until("it is there again", async () => (await asReader()).status === 200);
    await context.close();
  });

  test("pages come in from a zip after a trial, and go out as one", async () => {
    const { context, page } = await app.signedIn();
    await page.goto("/low-lantern/pages/transfer");
    const archive = zipSync({
      "moon/phases.md": strToU8(
        "---\ntitle: Phases\n---\n\nSee [what we lean on](/resources) and [nothing](/none).\n",
      ),
    });
    await page
      .getByLabel("Files to import")
      .setInputFiles([{ name: "pages.zip", mimeType: "application/zip", buffer: Buffer.from(archive) }]);
    await page.getByText("Preview, nothing saved yet: 1 created.").waitFor();
    await page.getByText("Phases", { exact: true }).click();
    await page.getByText("leads nowhere").waitFor();
    await assertAccessible(page, "in and out");
    await page.getByRole("button", { name: "Import them" }).click();
    await page.getByText("Done: 1 created.").waitFor();
    await page.getByRole("radio", { name: "Markdown" }).click();
    const coming = page.waitForEvent("download");
    await page.getByRole("link", { name: "All pages, as a zip" }).click();
    const files = unzipSync(readFileSync(await (await coming).path()));
    assert.match(
      strFromU8(files["moon/phases.md"]!),
      /^---\ntitle: Phases\npath: \/moon\/phases\n---\n\nSee \[what we lean on\]\(\/resources\)/,
    );
    await context.close();
  });

  test("variables and limits are set in the settings", async () => {
    const { context, page } = await app.signedIn();
    await page.goto("/low-lantern/settings");
    await page.getByText("Variables", { exact: true }).click();
    await page.getByRole("button", { name: "Another variable" }).click();
    await page.getByLabel("Name of variable 2").fill("9 wrong");
    await page.getByLabel("Value of variable 2").fill("x");
    await page.getByRole("button", { name: "Save", exact: true }).click();
    await page.getByText("A variable's name is letters").waitFor();
    await page.getByLabel("Name of variable 2").fill("editor");
    await page.getByRole("button", { name: "Save", exact: true }).click();
    await page.getByRole("status").getByText("Saved").waitFor();
    await page.reload();
    assert.equal(await page.getByLabel("Name of variable 2").inputValue(), "editor");
    await context.close();
  });
});
