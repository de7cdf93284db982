import assert from "node:assert/strict";
import { after, before, describe, test } from "node:test";
import type { Page } from "playwright-core";
import { ask, until } from "../support/ask.ts";
import { assertAccessible, choose, testApp, type TestApp } from "../support/browser.ts";

let app: TestApp;
before(async () => {
  app = await testApp();
});
after(() => app.stop());

const clipboard = (page: Page): Promise<string> => page.evaluate(() => navigator.clipboard.readText());

describe("a program, the whole way", () => {
  test("found, joined, linked from marked words, published, clicked, bought, and earned on the right page", async () => {
    const { context, page } = await app.signedIn();
    // Find it in the network's catalogue, and take it over.
    await page.request.put("/api/v1/sites/1/networks", {
      headers: { Origin: app.workspace },
      data: {
        name: "Saltmarsh Partners",
        hosts: ["go.saltmarsh-partners.localhost"],
        catalogue: `http://go.saltmarsh-partners.localhost:${app.simPort}/catalogue.csv`,
        report: `http://go.saltmarsh-partners.localhost:${app.simPort}/report.csv?account=LL-2291`,
      },
    });
    const programs = page.getByRole("table");
    await page.goto("/low-lantern/programs");
    await programs.getByRole("button", { name: "Dew and Felt" }).click();
    await page
      .getByRole("complementary", { name: "Dew and Felt" })
      .getByRole("button", { name: "Delete Dew and Felt" })
      .click();
    await page.getByText("Deleted Dew and Felt").waitFor();
    await page.goto("/low-lantern/programs/catalogue?network=Saltmarsh+Partners");
    await page.getByLabel("Search the catalogue").fill("coats gloves");
    const entry = page.getByRole("row").filter({ hasText: "Dew and Felt" });
    await entry.getByRole("button", { name: "Consider it" }).click();
    await entry.getByRole("link", { name: "considering" }).click();

    // Join it.
    const record = page.getByRole("complementary", { name: "Dew and Felt" });
    await record.getByLabel("Tracking ID").fill("LL-2291");
    await record.getByLabel("State").selectOption("approved");
    await record.getByRole("button", { name: "Save terms" }).click();
    await page.getByText("Saved Dew and Felt").waitFor();

    // From marked words to a tracked link.
    const product = `http://dew-and-felt.localhost:${app.simPort}/item/felt-gloves`;
    const made = await page.request.post("/api/v1/sites/1/pages", {
      headers: { Origin: app.workspace },
      data: { path: "/gear/warm-hands", title: "Warm hands", html: "<p>We wear felt gloves.</p>" },
    });
    const { id } = (await made.json()) as { id: string };
    await page.goto(`/low-lantern/pages/${id}`);
    const words = page.getByText("We wear felt gloves.");
    await words.waitFor();
    await words.dblclick({ position: { x: 90, y: 10 } });
    await page.keyboard.press("ControlOrMeta+k");
    const composer = page.getByRole("form", { name: "New link" });
    await composer.getByRole("combobox", { name: "Where it leads" }).fill(product);
    await composer.getByText("Leads to Dew and Felt without tracking.").waitFor();
    await assertAccessible(page, "the composer with a program");
    await composer.getByRole("button", { name: "Track it" }).click();
    await composer.getByText("Tracked for you at Dew and Felt, label gear-warm-hands-1").waitFor();
    assert.match(
      (await composer.getByTestId("delivered").textContent())!,
      /rel="nofollow sponsored noopener"/,
    );
    await composer.getByRole("button", { name: "Set link" }).click();
    await page.getByRole("button", { name: "Publish", exact: true }).click();
    const asReader = () => ask(app.sitePort, "/gear/warm-hands", { host: "lowlantern.localhost" });
    await until("readers get the link", async () => (await asReader()).body.includes("gear-warm-hands-1"));

    // A reader clicks and buys.
    const reader = await app.browser.newContext();
    const tab = await reader.newPage();
    await tab.goto(`http://lowlantern.localhost:${app.sitePort}/gear/warm-hands`);
    const [shop] = await Promise.all([
      reader.waitForEvent("page"),
      tab
        .locator("a", { hasText: "felt" })
        .or(tab.locator("a", { hasText: "gloves" }))
        .or(tab.locator("a", { hasText: "wear" }))
        .first()
        .click(),
    ]);
    await shop.getByText("LL-2291").waitFor();
    await shop.getByText("gear-warm-hands-1").waitFor();
    await shop.getByRole("button", { name: "Buy" }).click();
    const order = await shop.locator("[data-order]").textContent();
    assert.match(order!, /^S-\d+$/);
    await reader.close();

    // The network's report brings it home.
    await page.goto("/low-lantern/earnings?by=page");
    await page.getByLabel("Network of the report").fill("Saltmarsh Partners");
    await page.getByRole("button", { name: "Ask Saltmarsh Partners for it" }).click();
    await page.getByText("Columns as they were named the last time").waitFor();
    await page.getByRole("button", { name: "Try it" }).click();
    await page.getByText(/Preview, nothing saved yet: \d+ rows?, 1 new/).waitFor();
    await page.getByRole("button", { name: "Import it" }).click();
    await page.getByText("Matched: 1 to a page").waitFor();
    await page.getByText(/Done: \d+ rows?, 1 new/).waitFor();
    const earned = page.getByRole("row").filter({ hasText: "Warm hands" });
    await earned.getByText("€2.03").waitFor();
    await page.getByText(/\d+ with counts of clicks alone/).waitFor();
    await page.getByRole("button", { name: "Import it" }).click();
    await page.getByText(/Done: \d+ rows?, 0 new, 0 changed, 1 as they were/).waitFor();

    // Taken back by the shop, it is taken back here.
    const back = await page.request.post(`http://127.0.0.1:${app.simPort}/return?order=${order}`, {
      headers: { Host: `go.saltmarsh-partners.localhost:${app.simPort}` },
    });
    assert.equal(back.status(), 200);
    await page.getByRole("button", { name: "Ask Saltmarsh Partners for it" }).click();
    await until(
      "the report is asked for anew",
      async () => (await page.getByText(/Done: \d+ rows/).count()) === 0,
    );
    await page.getByRole("button", { name: "Import it" }).click();
    await page.getByText(/Done: \d+ rows?, 0 new, 1 changed/).waitFor();
    await context.close();
  });
});

describe("the record", () => {
  test("slips are told at their fields; what is typed is not lost", async () => {
    const { context, page } = await app.signedIn();
    await page.goto("/low-lantern/programs?open=new");
    const record = page.getByRole("complementary", { name: "New program" });
    await record.getByLabel("Program", { exact: true }).fill("Thistle Lamps");
    await record.getByLabel("Link template").fill("https://thief.example/{id}?to={destination}");
    await record.getByRole("button", { name: "Add program" }).click();
    await record.getByText("Name at least one domain").waitFor();
    await record.getByLabel("Domains that its links lead to").fill("thistle.example");
    await record.getByRole("button", { name: "Add program" }).click();
    await record.getByText("thief.example is none of Thistle Lamps’s domains").waitFor();
    await record.getByLabel("Link template").fill("{destination}?from={id}");
    await record.getByLabel("Tracking ID").fill("lantern");
    await record.getByRole("button", { name: "Add program" }).click();
    await page.getByText("Saved Thistle Lamps").waitFor();
    const opened = page.getByRole("complementary", { name: "Thistle Lamps" });
    await opened.getByLabel("Build a tracked link to").fill("thistle.example/lamp");
    await opened.getByRole("button", { name: "Build and copy" }).click();
    await opened.getByText("is not joined yet").waitFor();
    assert.equal(await clipboard(page), "https://thistle.example/lamp?from=lantern");
    await page.keyboard.press("Enter");
    const short = opened.getByRole("form", { name: "New short link" });
    await until(
      "its name is suggested",
      async () => (await short.getByLabel(/^Short address/).inputValue()) === "/lamp",
    );
    await context.close();
  });

  test("name and password are copied without being shown, and shown for some seconds only", async () => {
    const { context, page } = await app.signedIn();
    await page.goto("/low-lantern/programs?open=2");
    const record = page.getByRole("complementary").first();
    await record.getByRole("link", { name: "Sign in there" }).waitFor();
    const there = context.waitForEvent("page");
    await page.keyboard.press("s");
    await (await there).close();
    await record.getByRole("button", { name: "Keep a name and password" }).click();
    await record.getByLabel("Name to sign in with").fill("mara");
    await record.getByLabel("Password", { exact: true }).fill("fog over the lawn");
    await record.getByRole("button", { name: "Keep", exact: true }).click();
    await record.getByRole("button", { name: "Copy password" }).click();
    await page.getByText("The password is on the clipboard").waitFor();
    assert.equal(await clipboard(page), "fog over the lawn");
    assert.ok(!(await page.content()).includes("fog over the lawn"), "it never stood on the page");
    await record.getByRole("button", { name: "Show both" }).click();
    await record.getByText("fog over the lawn").waitFor();
    await record.getByText("fog over the lawn").waitFor({ state: "hidden" });
    await context.close();
  });
});

describe("terms that change", () => {
  test("issue the links anew after a preview, undone as one; plain links are tracked in one step", async () => {
    const { context, page } = await app.signedIn();
    await page.goto("/low-lantern/programs");
    await page.getByRole("table").getByRole("button", { name: "Quiet Mount Works" }).click();
    const record = page.getByRole("complementary", { name: "Quiet Mount Works" });
    await record.getByLabel("Tracking ID").fill("lantern-two");
    await record.getByRole("button", { name: "Save terms" }).click();
    const links = record.getByRole("region", { name: "What becomes of its links" });
    await links
      .getByRole("table", { name: "What would change" })
      .getByText("/c/lantern-two/quiet-mount")
      .first()
      .waitFor();
    await assertAccessible(page, "links that become others");
    await links.getByRole("checkbox", { name: "in what readers get, too" }).check();
    await links.getByRole("button", { name: /^Change \d/ }).click();
    await page.getByText(/^Changed \d+ links/).waitFor();
    const delivered = async (): Promise<string> =>
      (
        await page.request.get("/api/v1/sites/1/links?program=Quiet+Mount+Works&edition=readers&limit=500")
      ).text();
    await until("readers get the new ones", async () => (await delivered()).includes("/c/lantern-two/"));
    await page.getByRole("button", { name: "Undo" }).last().click();
    await page.getByText("Put back as it was").waitFor();
    await until("and the old ones again", async () => !(await delivered()).includes("/c/lantern-two/"));

    await page.goto("/low-lantern/programs");
    await page.getByRole("table").getByRole("button", { name: "Harbour Optics" }).click();
    const harbour = page.getByRole("complementary", { name: "Harbour Optics" });
    await harbour.getByRole("button", { name: "track them" }).click();
    await harbour.getByText(/become tracked ones/).waitFor();
    await harbour
      .getByRole("table", { name: "What would change" })
      .getByText("/c/LL-2291/harbour-optics")
      .first()
      .waitFor();
    await harbour.getByRole("button", { name: "Leave them" }).click();
    await harbour.getByText(/become tracked ones/).waitFor({ state: "detached" });

    await harbour.getByLabel("State").selectOption("closed");
    await harbour.getByRole("button", { name: "Save terms" }).click();
    const closing = harbour.getByRole("region", { name: "What becomes of its links" });
    await closing.getByText("The program is closed. Its links become:").waitFor();
    await choose(closing.getByLabel("Become"), "words without");
    await closing.getByText("→ words without a link").first().waitFor();
    await closing.getByRole("button", { name: /^Change \d/ }).click();
    await page
      .getByText(/^Changed \d+ links/)
      .last()
      .waitFor();
    const page6 = async (): Promise<string> => (await page.request.get("/api/v1/sites/1/pages/6")).text();
    assert.ok(!(await page6()).includes("/harbour-optics?"), "words are left");
    assert.ok((await page6()).includes("current price is on"));
    await page.getByRole("button", { name: "Undo" }).last().click();
    await until("the links are back", async () => (await page6()).includes("/harbour-optics?"));

    // The question stays until it is answered: with the next visit, and no longer once the links are to be left.
    await page.goto("/low-lantern/programs");
    await page.getByRole("table").getByRole("button", { name: "Harbour Optics" }).click();
    await closing.getByText("The program is closed. Its links become:").waitFor();
    await closing.getByLabel("Become").click();
    await closing.getByRole("option").first().waitFor();
    const offered = await closing.getByRole("option").allTextContents();
    await page.keyboard.press("Escape");
    assert.equal(offered.length, 2, `no other program takes links to its shop: ${offered.join(", ")}`);
    await closing.getByRole("button", { name: "Leave them" }).click();
    await page.getByText("The links of Harbour Optics stay as they are").waitFor();
    await closing.waitFor({ state: "detached" });
    await page.reload();
    await harbour.getByLabel("State").waitFor();
    assert.equal(await closing.count(), 0);
    await context.close();
  });
});

describe("a catalogue that tells other terms than the record", () => {
  test("shows both, and they are taken over and put back", async () => {
    const { context, page } = await app.signedIn();
    await page.goto("/low-lantern/programs/catalogue?network=Gannet+Row&q=frames");
    const row = page.getByRole("row").filter({ hasText: "North Window Framing" });
    await row.getByText("your record: none").waitFor();
    await row.getByRole("button", { name: "Take over these terms" }).click();
    await page.getByText("North Window Framing has the catalogue’s terms").waitFor();
    await row.getByText("your record").waitFor({ state: "detached" });
    const theirs = async (): Promise<string | null> => {
      const list = await page.request.get("/api/v1/sites/1/programs?q=North+Window");
      return ((await list.json()) as { items: { epc: { d30: string | null } }[] }).items[0]!.epc.d30;
    };
    assert.equal(await theirs(), "31.00");
    await page.getByRole("button", { name: "Undo" }).click();
    await row.getByText("your record: none").waitFor();
    await until("it has none again", async () => (await theirs()) === null);
    // Beside what is joined already, sorted by what they earn us; what is not known stands last.
    await page.getByLabel("Beside the programs you have joined").check();
    await page.getByRole("button", { name: "Our EPC" }).click();
    // Which it is depends on the day: the demo's clicks are of the sixty days before it.
    const list = await context.request.get("/api/v1/sites/low-lantern/programs?limit=500");
    const { items } = (await list.json()) as { items: { name: string; ownEpc: { d90: string | null } }[] };
    const [best] = items.sort((a, b) => Number(b.ownEpc.d90 ?? -1) - Number(a.ownEpc.d90 ?? -1));
    assert.ok(Number(best!.ownEpc.d90) > 0);
    await until("the best earner is first", async () =>
      (await page.getByRole("row").nth(1).textContent())?.includes(best!.name),
    );
    await page.waitForURL(/besides=1&sort=-own90/);
    await context.close();
  });
});

describe("rows of a report that name no known program", () => {
  test("are shown, and given to a program in one step, with undo", async () => {
    const { context, page } = await app.signedIn();
    await page.goto("/low-lantern/earnings");
    await page.getByRole("button", { name: /belongs? to no program/ }).click();
    const rows = page.getByRole("region", { name: "Rows without a program" });
    await rows.getByRole("rowheader", { name: "North Window", exact: true }).waitFor();
    await assertAccessible(page, "rows without a program");
    const owner = rows.getByLabel("North Window belongs to");
    // Only programs of the report's network are offered, and those of none.
    await owner.fill("r");
    await rows.getByRole("option", { name: "North Window Framing" }).waitFor();
    assert.equal(await rows.getByRole("option", { name: "Harbour Optics" }).count(), 0);
    await owner.fill("framing");
    await owner.press("Enter");
    await page.getByText("“North Window” in reports is North Window Framing").waitFor();
    const table = page.getByRole("table").last();
    await table.getByRole("link", { name: "North Window Framing" }).waitFor();
    await rows.waitFor({ state: "detached" });
    await page.getByRole("button", { name: "Undo" }).last().click();
    await table.getByText("no program found").waitFor();
    await context.close();
  });
});

describe("a report from a file", () => {
  test("says whose it seems to be; where another was chosen, that is asked", async () => {
    const { context, page } = await app.signedIn();
    await page.goto("/low-lantern/earnings");
    const network = page.getByLabel("Network of the report");
    const give = (name: string, program: string) =>
      page.getByLabel("Report of a network").setInputFiles({
        name,
        mimeType: "text/csv",
        buffer: Buffer.from(`order,date,program,commission,currency\nX-1,2026-11-20,${program},2.00,EUR\n`),
      });
    await give("november.csv", "Quiet Mount Works");
    await page.getByText("A report of Gannet Row: it names Quiet Mount Works.").waitFor();
    assert.equal(await network.inputValue(), "Gannet Row");
    await give("december.csv", "Harbour Optics");
    await page
      .getByText("This looks like a report of Saltmarsh Partners: it names Harbour Optics.")
      .waitFor();
    assert.ok(await page.getByRole("button", { name: "Import it" }).isDisabled());
    await assertAccessible(page, "a report that looks like another network's");
    await page.getByRole("button", { name: "It is Saltmarsh Partners’s" }).click();
    await page.getByText("A report of Saltmarsh Partners: it names Harbour Optics.").waitFor();
    assert.equal(await network.inputValue(), "Saltmarsh Partners");
    await network.fill("");
    await give("plain.csv", "Nobody We Know");
    await page.getByText("Nothing in it tells; name the network above.").waitFor();

    // Figures sort by their column, the greatest first.
    const approved = page.getByRole("columnheader", { name: "Approved" });
    await approved.getByRole("button").click();
    assert.equal(await approved.getAttribute("aria-sort"), "descending");
    const earned = (
      await page.getByRole("table").first().locator("tbody tr td:nth-child(6)").allTextContents()
    ).map((text) => Number(text.replace(/[^\d.]/g, "")));
    assert.deepEqual(
      earned,
      [...earned].sort((a, b) => b - a),
    );
    await context.close();
  });
});

describe("the comparison", () => {
  test("by keyboard: sorted, narrowed and opened; the view stands in the address", async () => {
    const { context, page } = await app.signedIn();
    await page.goto("/low-lantern/programs?sort=-earned");
    const rows = page.getByRole("table").locator("tbody tr[data-row]");
    await rows.first().getByText("Harbour Optics").waitFor();
    await page.getByRole("button", { name: "Network: all" }).click();
    await choose(page.getByRole("combobox", { name: "Network" }), "gannet");
    await until("four are left", async () => (await rows.count()) === 4);
    await page.waitForURL(/sort=-earned&network=Gannet\+Row/);
    await rows.first().focus();
    await page.keyboard.press("ArrowDown");
    await page.keyboard.press("ArrowUp");
    await page.keyboard.press("Enter");
    await page.getByRole("complementary", { name: "Quiet Mount Works" }).waitFor();
    await context.close();
  });
});
