import assert from "node:assert/strict";
import { after, before, describe, test } from "node:test";
import type { Page } from "playwright-core";
import { ask, ROBOT, until } from "../support/ask.ts";
import { assertAccessible, choose, testApp, type TestApp } from "../support/browser.ts";

let app: TestApp;
before(async () => {
  app = await testApp();
});
after(() => app.stop());

const short = { host: "lntn.localhost" };
const row = (page: Page, address: string) => page.getByRole("row").filter({ hasText: address });
const clipboard = (page: Page): Promise<string> => page.evaluate(() => navigator.clipboard.readText());
const shop = (path: string): string => `http://harbour-optics.localhost:${app.simPort}${path}`;

describe("a short link from the paste field", () => {
  test("paste, Enter, Enter: made, copied, and a reader arrives", async () => {
    const { context, page } = await app.signedIn();
    await page.goto("/low-lantern/pages");
    await page.getByText("What we lean on").waitFor();
    await page.keyboard.press("/");
    await page.keyboard.insertText(` ${shop("/item/red-torch?colour=amber&amp;size=2")} `);
    await page.getByText("Turned HTML's &amp; back into &.").waitFor();
    await assertAccessible(page, "the paste field's panel");
    await page.keyboard.press("Enter");
    const maker = page.getByRole("form", { name: "New short link" });
    const address = maker.getByLabel(/Short address on lntn/);
    await until("a slug is suggested", async () => (await address.inputValue()).length > 1);
    await maker.getByText(/is free$/).waitFor();
    const slug = await address.inputValue();
    await page.keyboard.press("Enter");
    await page.getByRole("status").getByText(`Copied http://lntn.localhost:${app.sitePort}${slug}`).waitFor();
    assert.equal(await clipboard(page), `http://lntn.localhost:${app.sitePort}${slug}`);
    const reader = await context.newPage();
    await reader.goto(await clipboard(page));
    await reader.waitForURL(shop("/item/red-torch?colour=amber&size=2"));
    await reader.getByRole("heading", { name: "Red torch" }).waitFor();
    await context.close();
  });

  test("Enter acts on what stands there, never on what stood there before, however late the answer", async () => {
    const { context, page } = await app.signedIn();
    await page.goto("/low-lantern/clicks");
    const field = page.getByRole("combobox", { name: /^Paste an address/ });
    const known = page.locator("#paste-known");
    await field.fill(shop("/item/first-one"));
    await known.getByRole("button", { name: "Make a short link" }).waitFor();
    await page.route("**/paste", async (route) => {
      await new Promise((resolve) => setTimeout(resolve, 900));
      await route.continue();
    });
    await field.fill(shop("/item/second-one"));
    await page.keyboard.press("Enter");
    await page.keyboard.press("Enter");
    const maker = page.getByRole("form", { name: "New short link" });
    assert.equal(await maker.count(), 0, "nothing is made of an earlier answer");
    assert.ok(await known.locator("[inert]").count(), "nor can it be acted on");
    const address = maker.getByLabel(/Short address on lntn/);
    await until("a slug of the second address", async () => /second/.test(await address.inputValue()));
    await maker.getByText(/is free$/).waitFor();
    await page.keyboard.press("Enter");
    await page.getByRole("status").getByText("Copied http://lntn.localhost").waitFor();
    const made = await page.request.get("/api/v1/sites/low-lantern/routes?q=first-one");
    assert.equal(((await made.json()) as { total: number }).total, 0);
    const second = await page.request.get("/api/v1/sites/low-lantern/routes?q=second-one");
    assert.equal(((await second.json()) as { total: number }).total, 1);

    // Two good readings: the other one is one key away. Several addresses: each of them.
    await field.fill(shop("/item/hooray!"));
    await known.getByRole("button", { name: /hooray!$/ }).click();
    await known.getByText("Took off the brackets.").waitFor();
    await field.fill(`${shop("/a")} ${shop("/b")}`);
    await known.getByText("There are 2 addresses here").waitFor();
    assert.equal(await known.getByRole("button", { name: /localhost/ }).count(), 2);
    await context.close();
  });

  test("an address that has one is offered that one, with its clicks and the pages that use it", async () => {
    const { context, page } = await app.signedIn();
    await page.goto("/low-lantern/clicks");
    await page.getByRole("combobox").fill(shop("/item/red-torch"));
    const known = page.locator("#paste-known");
    await known.getByText("It has a short link").waitFor();
    await known.getByText("/redlight").waitFor();
    await known.getByRole("link", { name: "An hour with nothing" }).waitFor();
    await known.getByText("delivered nofollow sponsored noopener in a new tab").waitFor();
    await known.getByRole("button", { name: "Copy" }).click();
    assert.match(await clipboard(page), /\/redlight$/);
    await context.close();
  });

  test("words search pages and routes, walked with the arrow keys", async () => {
    const { context, page } = await app.signedIn();
    await page.goto("/low-lantern/rules");
    await page.getByRole("combobox").fill("fernhill");
    await page.getByRole("list", { name: "Found" }).getByText("Three nights at Fernhill").first().waitFor();
    await page.keyboard.press("ArrowDown");
    await page.keyboard.press("Enter");
    await page.waitForURL(/\/pages\/\d+$/);
    await context.close();
  });

  test("what is refused says why; our own address says what answers it", async () => {
    const { context, page } = await app.signedIn();
    await page.goto("/low-lantern/rules");
    await page.getByRole("combobox").fill("data:text/html,x");
    await page.getByRole("alert").getByText("“data:” is none of them").waitFor();
    await page.getByRole("combobox").fill("http://lntn.localhost/dob");
    await page.getByText(/Answered by a route that leads to http:\/\/go\.saltmarsh-partners/).waitFor();
    await page.getByRole("combobox").fill("/no/such/page");
    await page.getByText("Answered by nothing yet").waitFor();
    await page.keyboard.press("Escape");
    assert.equal(await page.locator("#paste-known").count(), 0);
    await context.close();
  });

  test("with a page open, its marked words are linked to what was pasted", async () => {
    const { context, page } = await app.signedIn();
    await page.goto("/low-lantern/pages/6");
    await page.getByRole("textbox", { name: "Text of the page" }).getByText("postman").dblclick();
    await page.getByRole("combobox").fill("shop.example/lamp");
    await page.getByRole("button", { name: "Link marked words to it" }).click();
    const composer = page.getByRole("form", { name: "New link" });
    assert.equal(await composer.getByLabel("Where it leads").inputValue(), "https://shop.example/lamp");
    await context.close();
  });
});

describe("the routes screen", () => {
  test("a short link with slug suggestions, checked live, opened, its count rising", async () => {
    const { context, page } = await app.signedIn();
    await page.goto("/low-lantern/routes");
    await page.getByRole("button", { name: "New short link" }).click();
    const panel = page.getByRole("complementary", { name: "New short link" });
    await panel
      .getByLabel("Leads to")
      .fill("harbour-optics.localhost:" + app.simPort + "/item/travel-refractor ");
    await panel.getByText("Added the missing http://.").waitFor();
    await panel.getByRole("textbox", { name: "Address" }).fill("/dob");
    await panel.getByText(/\/dob is taken: it leads to/).waitFor();
    await panel.getByRole("textbox", { name: "Address" }).fill("/DOB/");
    await panel.getByText(/\/DOB\/ is taken/).waitFor();
    await panel.getByRole("textbox", { name: "Address" }).fill("/a b");
    await panel.getByText("A path has no spaces").waitFor();
    await panel.getByRole("list", { name: "Suggested addresses" }).getByRole("button").first().click();
    await panel.getByText(/is free$/).waitFor();
    const slug = await panel.getByRole("textbox", { name: "Address" }).inputValue();
    await panel.getByLabel("Title").fill("A small refractor");
    await panel.getByLabel("Status").selectOption("307");
    await panel.getByRole("button", { name: "Make and copy" }).click();
    await row(page, slug).getByText("307", { exact: true }).waitFor();

    const open = page.getByRole("complementary", { name: "Route" });
    await open.getByTestId("click-count").getByText("0", { exact: true }).waitFor();
    const robot = { ...short, headers: { "User-Agent": ROBOT } };
    await until("it answers", async () => (await ask(app.sitePort, slug, robot)).status === 307);
    const arrived = context.waitForEvent("page");
    await open.getByRole("link", { name: "Open" }).click();
    await (await arrived).getByRole("heading", { name: "Travel refractor, 66 mm" }).waitFor();
    await page.bringToFront();
    // A headless browser names itself as one, and so counts as a robot; this is a person.
    await ask(app.sitePort, slug, short);
    await ask(app.sitePort, slug, robot);
    await open.getByTestId("click-count").getByText("1", { exact: true }).waitFor();
    await assertAccessible(page, "an open route");
    await context.close();
  });

  test("a redirect from an old path to a page; a chain is pointed straight at its end", async () => {
    const { context, page } = await app.signedIn();
    await page.goto("/low-lantern/routes");
    await page.getByRole("button", { name: "New redirect" }).click();
    const panel = page.getByRole("complementary", { name: "New redirect" });
    await panel.getByRole("textbox", { name: "Address" }).fill("/old-review");
    await panel.getByLabel("Leads to").fill("/review-harbour");
    await panel.getByText(/\/review-harbour only redirects on to \/reviews\/harbour-eight-inch/).waitFor();
    await panel.getByRole("button", { name: "Point to /reviews/harbour-eight-inch" }).click();
    assert.equal(await panel.getByLabel("Leads to").inputValue(), "/reviews/harbour-eight-inch");
    await panel.getByRole("button", { name: "Make redirect" }).click();
    await row(page, "/old-review").waitFor();
    await until(
      "the old path answers",
      async () =>
        (await ask(app.sitePort, "/old-review", { host: "lowlantern.localhost" })).headers.location ===
        "/reviews/harbour-eight-inch",
    );
    await context.close();
  });

  test("a whole address brings its host along; edges that lead back are told; parameters are handed on", async () => {
    const { context, page } = await app.signedIn();
    await page.goto("/low-lantern/routes?open=new-redirect");
    const panel = page.getByRole("complementary", { name: "New redirect" });
    await panel.getByLabel("Answers", { exact: true }).selectOption("wildcard");
    const address = panel.getByRole("textbox", { name: "Address" });
    await address.fill(`http://lntn.localhost:${app.sitePort}/*/reviews`);
    await address.blur();
    assert.equal(await address.inputValue(), "/*/reviews");
    await until(
      "the host was taken from the address",
      async () => (await panel.getByLabel("Host").inputValue()) === "lntn.localhost",
    );
    await choose(panel.getByLabel("Host"), "lowlantern");
    await panel.getByLabel("Leads to").fill("/reviews/$1");
    await panel.getByText(/lead back to themselves, such as \/reviews\/reviews/).waitFor();
    await panel.getByText("Campaign and tracking parameters arrive.").waitFor();
    await panel.getByRole("button", { name: "Make redirect" }).click();
    await row(page, "/*/reviews").waitFor();
    const asked = (path: string) => ask(app.sitePort, path, { host: "lowlantern.localhost" });
    await until(
      "it leads on, parameters and all",
      async () => (await asked("/old/reviews?utm_source=x")).headers.location === "/reviews/old?utm_source=x",
    );
    assert.equal((await asked("/reviews/reviews")).status, 404);
    await row(page, "/*/reviews").getByRole("button").first().click();
    await page.getByText(/it stood aside 1 time/).waitFor();
    await context.close();
  });

  test("on a page's path or into a circle it is refused, and nothing typed is lost", async () => {
    const { context, page } = await app.signedIn();
    await page.goto("/low-lantern/routes?open=new-redirect");
    const panel = page.getByRole("complementary", { name: "New redirect" });
    await panel.getByLabel("Title").fill("My title");
    await panel.getByRole("textbox", { name: "Address" }).fill("/resources");
    await panel.getByLabel("Leads to").fill("/calendar/november");
    await panel.getByText(/The page “What we lean on” is published at \/resources/).waitFor();
    await panel.getByRole("button", { name: "Make redirect" }).click();
    await panel.getByRole("alert").waitFor();
    await panel.getByRole("textbox", { name: "Address" }).fill("/round");
    await panel.getByLabel("Leads to").fill("/round/");
    await panel.getByText("This would go round in a circle").waitFor();
    await panel.getByRole("button", { name: "Make redirect" }).click();
    assert.equal(await panel.getByLabel("Title").inputValue(), "My title");
    assert.equal(await panel.getByRole("textbox", { name: "Address" }).inputValue(), "/round");
    await context.close();
  });

  test("edit, switch off, delete and undo", async () => {
    const { context, page } = await app.signedIn();
    const answers = (status: number): Promise<unknown> =>
      until(
        `/barlow answers ${status}`,
        async () => (await ask(app.sitePort, "/barlow", short)).status === status,
      );
    await page.goto("/low-lantern/routes?q=barlow");
    await row(page, "/barlow")
      .getByRole("button", { name: /\/barlow/ })
      .first()
      .click();
    const panel = page.getByRole("complementary", { name: "Route" });
    await panel.getByLabel("Title").fill("Barlow, edited");
    await panel.getByLabel("Status").selectOption("301");
    await panel.getByRole("button", { name: "Save" }).click();
    await page.getByRole("status").getByText("Saved /barlow").waitFor();
    await answers(301);

    await row(page, "/barlow").getByRole("switch").click();
    await answers(404);
    await row(page, "/barlow").getByRole("switch").click();
    await answers(301);

    await panel.getByRole("button", { name: "Delete" }).click();
    await page.getByRole("status").getByText("Deleted /barlow").waitFor();
    await answers(404);
    await page.getByRole("button", { name: "Undo" }).click();
    await row(page, "/barlow").waitFor();
    await answers(301);
    await context.close();
  });

  test("is as long as its rows in a narrow window, stays where it is moved to, and its panel is worked with there", async () => {
    const { context, page } = await app.signedIn();
    await page.setViewportSize({ width: 390, height: 800 });
    await page.goto("/low-lantern/routes");
    const rows = page.locator("tbody tr[data-key]");
    await rows.first().waitFor();
    const tallest = page.evaluate<number>("document.documentElement.scrollHeight");
    const count = Number(await page.getByRole("table").getAttribute("aria-rowcount"));
    assert.ok((await tallest) > count * 60, `${await tallest} px for ${count} rows`);
    await page.evaluate("scrollTo(0, 2500)");
    await until(
      "the first row is no longer drawn",
      async () => (await page.locator('[data-row="0"]').count()) === 0,
    );
    const stands = (): Promise<number[]> =>
      page.evaluate<number[]>(`new Promise((done) => {
        const at = [];
        const look = () => (at.push(Math.round(scrollY)) < 30 ? requestAnimationFrame(look) : done(at.slice(-10)));
        look();
      })`);
    assert.equal(new Set(await stands()).size, 1, "it moves by itself");
    await page.evaluate("scrollTo(0, 0)");
    await page.getByRole("button", { name: "New short link" }).click();
    const panel = page.getByRole("complementary", { name: "New short link" });
    await panel.getByLabel("Leads to").fill("https://somewhere.example/narrow");
    await panel.getByRole("textbox", { name: "Address" }).fill("/narrow-window");
    await panel.getByText("From when, until when").click();
    await panel.getByRole("button", { name: "Make and copy" }).click();
    await panel.waitFor({ state: "detached" });
    await context.close();
  });

  test("is narrowed, sorted and searched, with its state in the address", async () => {
    const { context, page } = await app.signedIn();
    await page.goto("/low-lantern/routes");
    await page.getByRole("radio", { name: "Gone" }).click();
    await until("two routes are left", async () => (await page.getByRole("row").count()) === 3);
    await page.waitForURL(/kind=gone/);
    await page.getByRole("radio", { name: "Short links" }).click();
    await page.getByRole("columnheader", { name: "Clicks" }).getByRole("button").click();
    // Which it is depends on the day: the demo's clicks are of the sixty days before it.
    const list = await context.request.get("/api/v1/sites/low-lantern/routes?limit=500");
    const { items } = (await list.json()) as { items: { kind: string; address: string; clicks: number }[] };
    const [most] = items.filter(({ kind }) => kind === "short").sort((a, b) => b.clicks - a.clicks);
    await until("the most used is first", async () =>
      (await page.getByRole("row").nth(1).textContent())?.includes(most!.address),
    );
    await page.getByRole("searchbox").fill("no such route");
    await page.getByText("No route answers to these words.").waitFor();
    await context.close();
  });
});

describe("misses", () => {
  test("an address that nothing answers gets a helpful 404, is listed, and is answered from there", async () => {
    const { context, page } = await app.signedIn();
    const reader = await context.newPage();
    const reply = await reader.goto(`http://lowlantern.localhost:${app.sitePort}/calendar/novembre`);
    assert.equal(reply?.status(), 404);
    await reader.getByRole("heading", { name: "There is nothing under this address" }).waitFor();
    await reader.getByRole("link", { name: "The November sky" }).last().click();
    await reader.waitForURL(/\/calendar\/november$/);
    await ask(app.sitePort, "/calendar/novembre", { host: "lowlantern.localhost" });

    await page.goto("/low-lantern/misses");
    const miss = row(page, "/calendar/novembre");
    await miss.getByRole("button", { name: "/calendar/november" }).click();
    await page.getByRole("status").getByText("/calendar/novembre now leads to /calendar/november").waitFor();
    await until("it has left the list", async () => (await miss.count()) === 0);
    await until(
      "the redirect answers",
      async () =>
        (await ask(app.sitePort, "/calendar/novembre", { host: "lowlantern.localhost" })).status === 301,
    );
    await context.close();
  });

  test("what they get is checked as routes are", async () => {
    const { context, page } = await app.signedIn();
    await page.goto("/low-lantern/misses");
    await page.getByRole("radio", { name: /A chosen address/ }).check();
    await page.getByLabel("They arrive at").fill("/nowhere-at-all");
    await page.getByRole("button", { name: "Save" }).click();
    await page.getByText(/Nothing on this site answers \/nowhere-at-all/).waitFor();
    assert.equal(await page.getByLabel("They arrive at").getAttribute("aria-invalid"), "true");
    await context.close();
  });

  test("a wrong answer is refused in the row", async () => {
    const { context, page } = await app.signedIn();
    await page.goto("/low-lantern/misses");
    const miss = row(page, "/resource");
    await miss.getByLabel(/Answer \/resource with/).fill("javascript:alert(1)");
    await page.keyboard.press("Enter");
    await miss.getByText("“javascript:” is none of them").waitFor();
    await context.close();
  });
});

describe("clicks", () => {
  test("per day for a short link, as a chart and as a table, robots and prefetches apart", async () => {
    const { context, page } = await app.signedIn();
    await page.goto("/low-lantern/routes?q=/glass");
    await row(page, "/glass").getByRole("link").click();
    await page.waitForURL(/\/clicks\?route=\d+$/);
    const chart = page.getByRole("img", {
      name: /^Clicks per day from .* by people, \d+ by robots, \d+ prefetches/,
    });
    await chart.locator("svg").waitFor();
    await until("there is a bar for each day", async () => (await chart.locator("path").count()) > 60);
    await page.getByText(/Apart: \d+ by robots, \d+ prefetches/).waitFor();
    await page.getByRole("radio", { name: "Table" }).click();
    await until("each day has its row", async () => (await page.getByRole("row").count()) === 61);
    await page.getByRole("radio", { name: "14 days" }).click();
    await until("two weeks are left", async () => (await page.getByRole("row").count()) === 15);
    await page.getByRole("button", { name: "All routes" }).click();
    await page.getByText("on all routes of Low Lantern").waitFor();
    await context.close();
  });
});

describe("a browser that prefetches", () => {
  test("is answered and kept apart from persons", async () => {
    const { context, page } = await app.signedIn();
    await ask(app.sitePort, "/zoom", { ...short, headers: { "Sec-Purpose": "prefetch" } });
    await page.goto("/low-lantern/routes?q=/zoom");
    const clicks = (await row(page, "/zoom").getByRole("link").textContent())!;
    await ask(app.sitePort, "/zoom", short);
    await until(
      "only the person is counted",
      async () => (await row(page, "/zoom").getByRole("link").textContent()) === String(Number(clicks) + 1),
    );
    await context.close();
  });
});
