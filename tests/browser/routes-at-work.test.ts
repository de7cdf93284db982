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

const site = { host: "lowlantern.localhost" };
const row = (page: Page, address: string) => page.getByRole("row").filter({ hasText: address });
const notice = (page: Page, text: string | RegExp) =>
  page.getByRole("status").getByText(text).first().waitFor();
const location = async (path: string, host = site.host): Promise<string> => {
  const { status, headers } = await ask(app.sitePort, path, { host });
  return `${status} ${headers.location ?? ""}`.trim();
};
const answers = (path: string, wanted: string, host?: string): Promise<unknown> =>
  until(`${path} answers ${wanted}`, async () => (await location(path, host)) === wanted);

describe("a redirect that matches more than one address", () => {
  test("is tried on a list of addresses before it is saved", async () => {
    const { context, page } = await app.signedIn();
    await page.goto("/low-lantern/routes?open=new-redirect");
    const panel = page.getByRole("complementary", { name: "New redirect" });
    await panel.getByLabel("Answers", { exact: true }).selectOption("wildcard");
    await panel.getByRole("textbox", { name: "Address" }).fill("/archive/*");
    await panel.getByLabel("Leads to").fill("/calendar/$1");
    await panel.getByLabel("Try it before it is saved").fill("/archive/november\n/archive/none\n/links");
    const ends = panel.getByRole("list", { name: "Where they would end" });
    await ends
      .getByRole("listitem")
      .filter({ hasText: "/archive/november" })
      .getByText(/the page “The November sky”/)
      .waitFor();
    await ends
      .getByRole("listitem")
      .filter({ hasText: "/archive/none" })
      .getByText(/nothing answers it/)
      .waitFor();
    await ends
      .getByRole("listitem")
      .filter({ hasText: "/links" })
      .getByText(/not by this route/)
      .waitFor();
    await assertAccessible(page, "the redirect bench");
    await panel.getByRole("textbox", { name: "Address" }).fill("/archive/");
    await panel.getByText(/A wildcard address has a \*/).waitFor();
    await panel.getByRole("textbox", { name: "Address" }).fill("/archive/*");
    await panel.getByRole("button", { name: "Make redirect" }).click();
    await row(page, "/archive/*").waitFor();
    await answers("/archive/november", "301 /calendar/november");
    await context.close();
  });

  test("a notice page, fixed parameters and an end are set in the form, and a reader gets them", async () => {
    const { context, page } = await app.signedIn();
    await page.goto("/low-lantern/routes?open=new-short");
    const panel = page.getByRole("complementary", { name: "New short link" });
    await panel.getByLabel("Leads to").fill(`http://harbour-optics.localhost:${app.simPort}/item/star-chart`);
    await panel.getByRole("textbox", { name: "Address" }).fill("/starchart");
    await panel.getByText("/starchart is free").waitFor();
    await panel.getByText(/Say: “L N T N dot localhost slash starchart”/).waitFor();
    await panel.getByLabel("Status").selectOption("200");
    await panel.getByLabel("Seconds").fill("9");
    await panel.getByLabel("What the notice says").fill("A shop that pays us");
    await panel.getByLabel("Parameters added").fill("from=chart");
    await panel.getByText("Other spellings, tags").click();
    await panel.getByRole("list", { name: "Spellings people may type" }).getByRole("button").first().click();
    await panel.getByLabel("Tags").fill("charts, print");
    await panel.getByRole("button", { name: "Make and copy" }).click();
    const open = page.getByRole("complementary", { name: "Route" });
    await open.getByRole("img", { name: /QR code of .*\/starchart/ }).waitFor();
    assert.match(
      (await open.getByRole("link", { name: "QR as PNG" }).getAttribute("href"))!,
      /^data:image\/png;base64/,
    );
    const shown = await until("the notice shows", async () => {
      const answer = await ask(app.sitePort, "/starchart", { host: "lntn.localhost" });
      return answer.status === 200 ? answer : undefined;
    });
    assert.match(String(shown?.headers.refresh), /^9; url=.*item\/star-chart\?from=chart$/);
    assert.match(shown!.body, /A shop that pays us/);
    await assertAccessible(page, "an open short link");
    await context.close();
  });

  test("the title comes from the destination, when it answers", async () => {
    const { context, page } = await app.signedIn();
    await page.goto("/low-lantern/routes?open=new-short");
    const panel = page.getByRole("complementary", { name: "New short link" });
    await panel.getByLabel("Leads to").fill(`http://quiet-mount.localhost:${app.simPort}/item/garden-pier`);
    await until(
      "the title is there",
      async () => (await panel.getByLabel("Title").inputValue()) === "Garden pier",
    );
    await panel.getByText("As the page there calls itself").waitFor();
    await context.close();
  });
});

describe("the table", () => {
  test("by keyboard alone: walk, mark, tag, undo; the view stands in the address", async () => {
    const { context, page } = await app.signedIn();
    await page.goto("/low-lantern/routes?tag=talks&sort=address");
    await row(page, "/club").waitFor();
    const count = (await page.getByRole("row").count()) - 1;
    await page.locator("[data-row='0']").focus();
    await page.keyboard.press("Space");
    await page.keyboard.press("ArrowDown");
    await page.keyboard.press("Space");
    const bar = page.getByRole("region", { name: "Marked routes" });
    await bar.getByText("2 marked").waitFor();
    await bar.getByRole("combobox", { name: "Tag", exact: true }).fill("evening");
    await page.keyboard.press("Enter");
    await notice(page, "Changed 2 routes");
    await page.goto("/low-lantern/routes?tag=evening");
    await until("two have the tag", async () => (await page.getByRole("row").count()) === 3);
    await page.goto("/low-lantern/routes?tag=talks&sort=address&columns=destination,tags");
    await page.getByRole("columnheader", { name: "Tags" }).waitFor();
    await row(page, "/club").waitFor();
    assert.equal(await page.getByRole("columnheader", { name: "Clicks" }).count(), 0);
    assert.equal((await page.getByRole("row").count()) - 1, count);
    await page.locator("[data-row='0']").focus();
    await page.keyboard.press("Enter");
    await page.getByRole("complementary", { name: "Route" }).getByRole("button", { name: "Copy" }).waitFor();
    await page.keyboard.press("f");
    assert.equal(
      await page.getByRole("searchbox").evaluate((field) => field === document.activeElement),
      true,
    );
    await assertAccessible(page, "the table with marked routes");
    await context.close();
  });

  test("destinations of many are replaced after a preview, and put back by one undo", async () => {
    const { context, page } = await app.signedIn();
    await page.goto("/low-lantern/routes?q=starling-eyepieces");
    await row(page, "/thirteen").waitFor();
    await page.getByLabel("Mark all routes shown").check();
    const bar = page.getByRole("region", { name: "Marked routes" });
    await bar.getByRole("button", { name: "Change destinations…" }).click();
    await bar.getByLabel("In destinations, replace").fill("LL-2291");
    await bar.getByLabel("with", { exact: true }).fill("LL-3000");
    const preview = bar.getByRole("list", { name: "What would change" });
    await preview
      .getByRole("listitem")
      .filter({ hasText: "/thirteen" })
      .first()
      .getByText(/→ .*LL-3000/)
      .waitFor();
    await bar.getByRole("button", { name: /^Change \d+$/ }).click();
    // Those that lead elsewhere were marked too: they are named as left.
    await notice(page, /^Changed \d+ routes; \d+ left: .* does not hold that text/);
    await until("a reader is led there", async () =>
      (await location("/thirteen", "lntn.localhost")).includes("LL-3000"),
    );
    await page.getByRole("button", { name: "Undo" }).click();
    await notice(page, /^Put back \d+ routes$/);
    await until("and back", async () => (await location("/thirteen", "lntn.localhost")).includes("LL-2291"));
    await context.close();
  });
});

describe("what is to be mended", () => {
  test("chains are flattened in one step, and undone; dead destinations are found by asking", async () => {
    const { context, page } = await app.signedIn();
    await page.goto("/low-lantern/routes/findings");
    const chains = page.getByRole("region", { name: "Chains" });
    await chains.getByRole("button", { name: /^Fix \d in one step$/ }).click();
    await notice(page, /^Changed \d routes$/);
    await answers("/start-here", "301 /first-nights/an-hour-with-nothing");
    await until("no chain is left", async () => (await chains.count()) === 0);
    await page.getByRole("button", { name: "Undo" }).click();
    await answers("/start-here", "301 /beginners");
    await page.getByRole("button", { name: "Check all destinations now" }).click();
    await page.getByText(/\d+ looked at, \d+ answer badly/).waitFor({ timeout: 60_000 });
    await page.getByRole("button", { name: "read the table again" }).click();
    const bad = page.getByRole("region", { name: "Destinations that answer badly" });
    await bad.getByText("/round: its destination never arrives: it goes round in a circle").waitFor();
    await bad.getByText("/leak: its destination does not get the parameter “partner”").waitFor();
    await assertAccessible(page, "what is to be mended");
    await context.close();
  });

  test("a trace goes through our routes and outside, hop by hop", async () => {
    const { context, page } = await app.signedIn();
    await page.goto("/low-lantern/trace");
    await page
      .getByLabel("Addresses, one a line")
      .fill(
        `/start-here\nhttp://lntn.localhost:${app.sitePort}/dob\nhttp://lntn.localhost:${app.sitePort}/round\n/nowhere/at/all`,
      );
    await page.keyboard.press("Control+Enter");
    const way = (text: string) =>
      page.getByRole("region", { name: "Ways" }).getByRole("listitem").filter({ hasText: text }).first();
    await way("/start-here").getByText("a chain", { exact: true }).waitFor();
    await way("/dob").getByText("arrives", { exact: true }).waitFor();
    await way("/dob")
      .getByRole("list", { name: "What arrived" })
      .getByText("sub=short-dob arrived")
      .waitFor();
    await way("/round").getByText("a circle", { exact: true }).waitFor();
    await way("/nowhere").getByText("not found", { exact: true }).waitFor();
    await assertAccessible(page, "a trace");
    await page.getByRole("radio", { name: "Faults only" }).click();
    await until("only faults are left", async () => (await way("/dob").count()) === 0);
    await context.close();
  });
});

describe("misses, many at once", () => {
  test("a pattern answers many; marked ones are answered together; what misses get is chosen with what it would hide", async () => {
    const { context, page } = await app.signedIn();
    await page.goto("/low-lantern/misses");
    const proposal = page.getByRole("region", { name: "One route for many" });
    await proposal.getByText("/articles/*").waitFor();
    await proposal.getByRole("button", { name: "Answer 3 with it" }).first().click();
    await notice(page, /\/articles\/\* is answered now/);
    await answers("/articles/an-hour-with-nothing", "301 /first-nights/an-hour-with-nothing");
    for (const address of ["/therteen", "/almanack"]) await page.getByLabel(`Mark ${address}`).check();
    const bar = page.getByRole("region", { name: "Marked misses" });
    await bar.getByRole("button", { name: "Answer 2 with the first suggestion" }).click();
    await notice(page, "2 addresses are answered now");
    await until("readers arrive", async () =>
      (await location("/almanack", "lntn.localhost")).endsWith("/almanac"),
    );
    await page.getByRole("radio", { name: /^Scanners/ }).click();
    await row(page, "/wp-login.php").waitFor();
    assert.equal(await row(page, "/therteen").count(), 0);
    await page.getByRole("radio", { name: /A chosen address/ }).check();
    await page.getByText(/It would have hidden \d+ addresses/).waitFor();
    await page.getByText("/instruments/dwe", { exact: true }).first().waitFor();
    await page.getByLabel("They arrive at").fill("/resources");
    await assertAccessible(page, "misses and what they get");
    await page.getByRole("button", { name: "Save", exact: true }).click();
    await notice(page, "Saved what misses get");
    await answers("/never/was", "302 /resources");
    await page.getByRole("radio", { name: /A page that helps/ }).check();
    await page.getByRole("button", { name: "Save", exact: true }).click();
    await answers("/never/was", "404");
    await context.close();
  });
});

describe("clicks, looked into", () => {
  test("by hour and by where they came from, beside the period before; a route's changes in its chart; from a new zero", async () => {
    const { context, page } = await app.signedIn();
    await page.goto("/low-lantern/clicks?days=14&compare=1");
    await page.getByText(/in the period before/).waitFor();
    await page.getByRole("radio", { name: "Hour" }).click();
    await page.getByRole("radio", { name: "Table" }).click();
    await page.getByRole("rowheader", { name: "21:00" }).waitFor();
    await page.getByRole("columnheader", { name: "Before" }).waitFor();
    await page.getByRole("radio", { name: "Came from" }).click();
    await page.getByRole("rowheader", { name: "forum.starry-neighbours.example" }).waitFor();
    await page.getByRole("radio", { name: "Page" }).click();
    await page.getByRole("rowheader", { name: "/resources" }).waitFor();
    const csv = await context.request.get(
      (await page.getByRole("link", { name: "CSV" }).getAttribute("href"))!,
    );
    assert.match(await csv.text(), /^page,label,clicks,visitors,robots,prefetches,heads,asides\r\n/);
    await page.getByText("Latest requests, counted or not").click();
    await page.getByRole("columnheader", { name: "When" }).waitFor();

    await page.goto("/low-lantern/routes?q=/tracker");
    await row(page, "/tracker").getByRole("button").first().click();
    const panel = page.getByRole("complementary", { name: "Route" });
    const before = await panel.getByTestId("click-count").textContent();
    assert.notEqual(before, "0");
    await panel.getByRole("button", { name: "reset the count" }).click();
    await panel.getByTestId("click-count").getByText("0", { exact: true }).waitFor();
    await panel.getByRole("link", { name: "All about them" }).click();
    await page.getByText("Since the count was reset: 0.").waitFor();
    await page
      .getByRole("list", { name: "Changes in these days" })
      .getByText(/count reset/)
      .waitFor();
    await assertAccessible(page, "a route's clicks");
    await context.close();
  });
});

describe("routes in and out", () => {
  test("a list is shortened after it was seen; a file is tried, its bad lines named, then taken in", async () => {
    const { context, page } = await app.signedIn();
    await page.goto("/low-lantern/routes/transfer");
    const shop = `http://harbour-optics.localhost:${app.simPort}`;
    await page
      .getByLabel(/One address a line/)
      .fill(`${shop}/item/finder-scope\n${shop}/item/red-torch\njavascript:1`);
    await row(page, "finder-scope").getByText(/./).first().waitFor();
    await row(page, "red-torch").getByText("has one already").waitFor();
    await row(page, "javascript:1")
      .getByText(/javascript/)
      .last()
      .waitFor();
    await page.getByRole("button", { name: "Make 1 short link" }).click();
    await notice(page, "Made 1 short links");

    const csv =
      "address,destination\n/from-file,/resources\nno slash,/resources\n/from-file-2,/from-file-2\n";
    const chooser = page.waitForEvent("filechooser");
    await page.getByLabel("File of routes").or(page.getByText("Choose a file")).first().click();
    await (await chooser).setFiles({ name: "routes.csv", mimeType: "text/csv", buffer: Buffer.from(csv) });
    await page
      .getByText(/Tried routes.csv, nothing saved yet: 1 new, 0 changed, 0 as they were, 2 refused/)
      .waitFor();
    await row(page, "circle").getByText("4", { exact: true }).waitFor();
    assert.equal(await location("/from-file"), "404");
    await assertAccessible(page, "routes in and out");
    await page.getByRole("button", { name: "Import 1" }).click();
    await page.getByText(/^Done: 1 new/).waitFor();
    await answers("/from-file", "301 /resources");
    const nginx = await context.request.get(
      (await page.getByRole("link", { name: "nginx" }).getAttribute("href"))!,
    );
    assert.match(await nginx.text(), /server_name lowlantern.localhost lntn.localhost;/);
    await context.close();
  });
});

describe("a page that leaves its path", () => {
  test("offers a redirect from where it was; taken back from readers, an honest gone", async () => {
    const { context, page } = await app.signedIn();
    await page.goto("/low-lantern/pages");
    await page.getByRole("link", { name: "Three nights at Fernhill" }).first().click();
    await page.getByRole("button", { name: "About this page" }).click();
    await page.getByLabel("Path").fill("/dark-places/fernhill-cabins");
    await page
      .getByRole("status")
      .getByText(/^Saved/)
      .first()
      .waitFor();
    await page.getByRole("button", { name: "Publish", exact: true }).click();
    const left = page.getByRole("region", { name: "The path that was left" });
    await left.getByRole("button", { name: "Redirect them to /dark-places/fernhill-cabins" }).click();
    await answers("/dark-places/fernhill", "301 /dark-places/fernhill-cabins");
    await page.getByRole("button", { name: "Unpublish" }).click();
    await left.getByText("/dark-places/fernhill-cabins").waitFor();
    await left.getByRole("button", { name: "Say that it is gone" }).click();
    await answers("/dark-places/fernhill-cabins", "410");
    await context.close();
  });
});

describe("a short link from the composer", () => {
  test("the address that is being linked is shortened without leaving the text, and the link leads through it", async () => {
    const { context, page } = await app.signedIn();
    await page.goto("/low-lantern/pages");
    await page.getByRole("link", { name: "An hour with nothing" }).first().click();
    const text = page.getByRole("textbox", { name: "Text of the page" });
    await text.press("Control+Home");
    await page.keyboard.press("Control+Shift+ArrowRight");
    await page.keyboard.press("Control+k");
    const composer = page.getByRole("form", { name: /link$/ });
    await composer
      .getByRole("combobox", { name: "Where it leads" })
      .fill(`http://harbour-optics.localhost:${app.simPort}/item/folding-chair`);
    await composer.getByRole("button", { name: "Shorten it" }).click();
    const address = composer.getByLabel(/Short address on lntn/);
    await until("a slug is suggested", async () => (await address.inputValue()).length > 1);
    await address.fill("/chair");
    await composer.getByText(/\/chair is free\. Say: “L N T N/).waitFor();
    await assertAccessible(page, "the composer that shortens");
    await page.keyboard.press("Enter");
    await notice(page, /Copied .*\/chair/);
    await composer.getByText(/Understood as short link/).waitFor();
    await answers(
      "/chair",
      `302 http://harbour-optics.localhost:${app.simPort}/item/folding-chair`,
      "lntn.localhost",
    );
    await page.keyboard.press("Escape");
    await context.close();
  });
});

describe("a raw destination on the pages", () => {
  test("is delivered as the short link where the route says so, and the written page stays as it is", async () => {
    const { context, page } = await app.signedIn();
    const raw = `http://starling-eyepieces.localhost:${app.simPort}/item/barlow-two`;
    const delivered = async (): Promise<string> => (await ask(app.sitePort, "/resources", site)).body;
    assert.ok(
      (await delivered()).includes(`href="${raw}"`),
      "the demo's resources page links the shop itself",
    );
    await page.goto("/low-lantern/routes?q=/barlow");
    await row(page, "/barlow").getByRole("button").first().click();
    const panel = page.getByRole("complementary", { name: "Route" });
    const choice = panel.getByLabel("Links in pages to the raw destination");
    await panel.getByText("Other spellings, tags").click();
    await choice.selectOption("everywhere");
    await panel.getByRole("button", { name: "Save" }).click();
    await notice(page, "Saved /barlow");
    await until("the panel is of what was saved", async () => !(await choice.isVisible()));
    await until("readers get the short link", async () =>
      /href="http:\/\/lntn\.localhost:\d+\/barlow"/.test(await delivered()),
    );
    await until("and not the raw one", async () => !(await delivered()).includes(`href="${raw}"`));
    await panel.getByText("Other spellings, tags").click();
    await choice.selectOption("nowhere");
    await panel.getByRole("button", { name: "Save" }).click();
    await until("switched off, what was written is back", async () =>
      (await delivered()).includes(`href="${raw}"`),
    );
    await context.close();
  });
});
