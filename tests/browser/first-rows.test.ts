import assert from "node:assert/strict";
import { after, before, describe, test } from "node:test";
import { DEMO_SIGN_IN } from "../../demo/people.ts";
import { until } from "../support/ask.ts";
import { takenOver, testApp, type TestApp } from "../support/browser.ts";

let app: TestApp;
before(async () => {
  app = await testApp();
});
after(() => app.stop());

/** Screens, and words of what each shows first. */
const SCREENS = [
  ["pages", "Forty nights with the Harbour eight-inch"],
  ["pages?q=moon", "A frame for the moon"],
  ["ledger", "An hour with nothing"],
  ["routes", "/gift"],
  ["routes?kind=redirect", "/dobsonian"],
  ["misses", "/almanack"],
  ["rules", "Network links are paid"],
  ["programs", "Fernhill Dark-Sky Cabins"],
  ["earnings", "per 100 clicks"],
  ["clicks", "clicks by people"],
  ["settings", "letter case counts"],
  ["history", "made the route"],
  ["navigation", "Our eyepiece"],
  ["people", "Mara Quill"],
  ["account", "the session in"],
  ["files", "eight-inch.svg"],
] as const;

describe("what the server draws", () => {
  for (const [screen, words] of SCREENS)
    test(`of ${screen} is what is there, before any script runs`, async () => {
      // A server that is busy leaves rows to the browser.
      await until(`${screen} is drawn with its rows`, async () => {
        const html = await drawn(`/low-lantern/${screen}`);
        return html.slice(html.indexOf("<main"), html.indexOf("</main>")).includes(words);
      });
    });

  test("of a page is its text, with pictures from the site's own host", async () => {
    const html = await drawn("/low-lantern/pages/6");
    assert.match(html, /<h2[^>]*>Who it is for/);
    assert.match(html, /<img [^>]*src="http:\/\/lowlantern\.localhost:\d+\/files\/eight-inch\.svg"/);
  });

  for (const [screen, words] of [
    ["clicks", "Robots"],
    // Which route it is hangs on the day.
    ["clicks?by=route", mostUsedRoute],
    ["earnings", "Quiet Mount Works"],
    ["programs", "Owl Post Letters"],
  ] as const)
    test(`of ${screen} is its chart, too`, async () => {
      const chart = (await drawn(`/low-lantern/${screen}`)).match(/role="img"[^>]*><svg.*?<\/svg>/s)?.[0];
      assert.ok(chart, "there is no drawing");
      const written = typeof words === "string" ? words : await words();
      assert.ok(chart.includes(written), `“${written}” is not written in it`);
      assert.doesNotMatch(chart, /NaN|undefined/);
      assert.match(chart, /fill="var\(--color-/, "its colours are those of whoever looks");
    });

  test("is each person's own, also at the same time", async () => {
    const [mara, tobias] = await Promise.all([app.signedIn("mara"), app.signedIn("tobias")]);
    const rounds = Array.from({ length: 6 }, async (_, round) => {
      const { context, name } = round % 2 === 0 ? { ...mara, name: "mara" } : { ...tobias, name: "tobias" };
      const html = await (await context.request.get("/low-lantern/account")).text();
      assert.ok(html.includes(`${name}@lowlantern.example`), `${name} was not shown their own account`);
      const other = name === "mara" ? "tobias" : "mara";
      assert.ok(!html.includes(`${other}@lowlantern.example`), `${name} was shown ${other}'s account`);
    });
    await Promise.all(rounds);
    await mara.context.close();
    await tobias.context.close();
  });

  test("has the hours of whoever looks, where the site has no time zone", async () => {
    const context = await app.browser.newContext({
      baseURL: app.workspace,
      timezoneId: "Pacific/Kiritimati",
    });
    await context.request.post("/session", { headers: { Origin: app.workspace }, data: DEMO_SIGN_IN });
    const page = await context.newPage();
    const thrown: string[] = [];
    page.on("pageerror", ({ message }) => thrown.push(message));
    await page.goto("/low-lantern/trace");
    await takenOver(page);
    await page.goto("/low-lantern/history");
    await takenOver(page);
    assert.deepEqual(thrown, [], "what the server drew was not what the browser draws");
    await context.close();
  });

  test("ends no script, whatever stands in it", async () => {
    const { context, page } = await app.signedIn();
    const title = "</script><script>document.title='taken'</script>";
    const made = await context.request.post("/api/v1/sites/1/pages", {
      headers: { Origin: app.workspace },
      data: { title, path: "/ends-no-script", html: "<p>Words.</p>" },
    });
    assert.equal(made.status(), 201);
    await page.goto("/low-lantern/pages");
    await page.getByText(title).first().waitFor();
    assert.doesNotMatch(await page.title(), /taken/);
    await context.close();
  });
});

describe("the browser", () => {
  for (const screen of ["pages", "ledger", "routes", "programs", "clicks", "people"])
    test(`takes over ${screen} as it was drawn, and asks for nothing again`, async () => {
      const { context, page } = await app.signedIn();
      let asked = 0;
      page.on("request", (request) => {
        if (request.url().includes("/api/v1/")) asked += 1;
      });
      await until(`${screen} asks for nothing`, async () => {
        asked = 0;
        await page.goto(`/low-lantern/${screen}`);
        return asked === 0;
      });
      await context.close();
    });

  test("asks for what the server could not have, and says why it cannot be had", async () => {
    const { context, page } = await app.signedIn();
    await page.goto("/low-lantern/clicks?route=999999");
    await page.locator("main .text-bad").first().waitFor();
    await context.close();
  });

  test("draws a chart anew when somebody points at it, or when it stands otherwise than it was drawn", async () => {
    const { context, page } = await app.signedIn();
    const library: string[] = [];
    page.on("request", (request) => {
      if (request.url().includes("/LiveBars.")) library.push(request.url());
    });
    const chart = page.getByRole("img", { name: /^Clicks per day/ });
    await page.goto("/low-lantern/clicks");
    await takenOver(page);
    await chart.locator("svg").waitFor();
    assert.deepEqual(library, [], "nobody has pointed at it");
    await chart.hover();
    await chart
      .getByText(/^\d{1,2} \w{3}$/)
      .first()
      .waitFor();
    await until("its library is there", () => Promise.resolve(library.length > 0));
    const tip = chart.locator("span").getByText("Robots", { exact: true });
    let x = 200;
    await until("it says what it is pointed at", async () => {
      await chart.hover({ position: { x: (x += 20), y: 200 } });
      return tip.isVisible();
    });
    library.length = 0;
    await page.goto("/low-lantern/clicks");
    await takenOver(page);
    assert.deepEqual(library, [], "it fits again");
    await page.setViewportSize({ width: 390, height: 800 });
    await until("it is drawn for a narrow window", async () => {
      const [box, drawing] = await Promise.all([chart.boundingBox(), chart.locator("svg").boundingBox()]);
      return library.length > 0 && Math.abs((box?.width ?? 0) - (drawing?.width ?? -9)) < 2;
    });
    await context.close();
  });

  test("keeps what is there when a part of the screen cannot be fetched, and fetches it when it is asked to", async () => {
    const { context, page } = await app.signedIn();
    const alert = page.getByRole("alert").filter({ hasText: "could not be fetched" });
    const again = page.getByRole("button", { name: "Try again" });
    const late = /\/(LiveBars|HtmlView)\.[^/]*\.js$/;

    await page.goto("/low-lantern/clicks");
    await takenOver(page);
    await page.route(late, (route) => route.abort());
    const chart = page.getByRole("img", { name: /^Clicks per day/ });
    await chart.hover();
    await alert.waitFor();
    assert.ok(await chart.locator("svg").isVisible(), "the drawing went with it");
    await again.click();
    await alert.waitFor();
    await page.unroute(late);
    await again.click();
    await alert.waitFor({ state: "detached" });
    assert.ok(await chart.locator("svg").isVisible());

    await page.goto("/low-lantern/pages/6");
    await takenOver(page);
    await page.route(late, (route) => route.abort());
    await page.getByRole("radio", { name: "HTML" }).click();
    await alert.waitFor();
    await page.getByLabel("Title", { exact: true }).waitFor();
    await page.unroute(late);
    await again.click();
    await alert.waitFor({ state: "detached" });
    await context.close();
  });

  test("narrows on the server as it does by itself", async () => {
    const { context, page } = await app.signedIn();
    await page.goto("/low-lantern/routes?q=gift");
    const rows = await page.getByRole("row").count();
    await page.goto("/low-lantern/routes");
    await page.getByRole("searchbox").fill("gift");
    await page.waitForFunction((count) => document.querySelectorAll("tr").length === count, rows);
    await context.close();
  });
});

async function mostUsedRoute(): Promise<string> {
  const { context } = await app.signedIn();
  const answer = await context.request.get("/api/v1/sites/low-lantern/clicks?by=route");
  const { items } = (await answer.json()) as { items: { label: string }[] };
  await context.close();
  return items[0]!.label;
}

async function drawn(path: string): Promise<string> {
  const { context } = await app.signedIn();
  const answer = await context.request.get(path);
  assert.equal(answer.status(), 200);
  const html = await answer.text();
  await context.close();
  return html;
}
