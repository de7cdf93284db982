import assert from "node:assert/strict";
import { after, before, describe, test } from "node:test";
import type { Page } from "playwright-core";
import { assertAccessible, testApp, type TestApp } from "../support/browser.ts";
import { ask, until } from "../support/ask.ts";
import { DEMO_SIGN_IN } from "../../demo/people.ts";

let app: TestApp;
before(async () => {
  app = await testApp();
});
after(() => app.stop());

const SCREENS: readonly (readonly [path: string, ready: string])[] = [
  ["/low-lantern/pages", "What we lean on"],
  ["/low-lantern/pages/6", "Who it is for"],
  ["/low-lantern/routes", "/gift"],
  ["/low-lantern/routes?open=new-redirect", "Try it before it is saved"],
  ["/low-lantern/routes/findings", "Point straight at"],
  ["/low-lantern/trace", "Paste addresses"],
  ["/low-lantern/routes/edges", "No edge answers for us yet"],
  ["/low-lantern/routes/transfer", "Shorten a list"],
  ["/low-lantern/routes?open=new-short", "Make and copy"],
  ["/low-lantern/routes?kind=gone", "/forum"],
  ["/low-lantern/misses", "/almanack"],
  ["/low-lantern/rules", "Network links are paid"],
  ["/low-lantern/rules/swaps", "The set changes"],
  ["/low-lantern/rules/disclosure", "What readers are told"],
  ["/low-lantern/programs", "Fernhill Dark-Sky Cabins"],
  ["/low-lantern/programs?open=1", "Save terms"],
  ["/low-lantern/programs?open=new", "Add program"],
  ["/low-lantern/programs/catalogue", "quiet-mount.localhost"],
  ["/low-lantern/earnings", "per 100 clicks"],
  ["/low-lantern/earnings?by=page", "Taken back"],
  ["/low-lantern/rules/earlier", "in force"],
  ["/low-lantern/ledger", "An hour with nothing"],
  ["/low-lantern/ledger?by=host", "Outside links by treatment"],
  ["/low-lantern/ledger/report", "say that they are paid"],
  ["/low-lantern/clicks", "clicks by people"],
  ["/low-lantern/clicks?view=table", "Robots"],
  ["/low-lantern/settings", "API tokens"],
  ["/low-lantern/people", "Invite somebody"],
  ["/low-lantern/history", "made the route"],
  ["/low-lantern/bin", "the last 30 days"],
  ["/low-lantern/account", "Your API tokens"],
  ["/low-lantern/origin", "Where do the site's pages stand?"],
  ["/saltmarsh-notes/origin", "Stands on many pages"],
  ["/saltmarsh-notes/origin/to-do", "Network links are paid"],
  ["/saltmarsh-notes/origin/front", "Through us, as a shadow"],
  ["/saltmarsh-notes/ledger?place=repeated", "on 187 pages"],
  ["/low-lantern/new-site", "Make the site"],
  ["/low-lantern/navigation", "Save for readers"],
  ["/low-lantern/files", "pier.jpg"],
  ["/low-lantern/blocks", "Beside reviews"],
  ["/api/v1/docs", "Every call is below"],
  ["/api/v1/docs/routes", "List routes"],
];

/** Lets what is drawn anew for another width or other colours be drawn. */
async function settled(page: Page): Promise<void> {
  await page.evaluate(async () => {
    await new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(done)));
    await Promise.all(document.getAnimations().map(({ finished }) => finished.catch(() => undefined)));
  });
}

describe("every screen", () => {
  test("has no accessibility finding and throws nothing: light, dark, in forced colours, wide and narrow", async () => {
    const { context, page } = await app.signedIn();
    const errors: string[] = [];
    page.on("pageerror", (error) => errors.push(error.message));
    page.on("console", (message) => message.type() === "error" && errors.push(message.text()));
    const looks = [
      ["light", "none", 1280],
      ["dark", "none", 1280],
      ["light", "active", 1280],
      ["light", "none", 800],
      ["dark", "none", 390],
    ] as const;
    for (const [path, ready] of SCREENS) {
      await page.goto(path);
      await page.getByText(ready).first().waitFor();
      for (const [colorScheme, forcedColors, width] of looks) {
        await page.setViewportSize({ width, height: 800 });
        await page.emulateMedia({ colorScheme, forcedColors });
        await settled(page);
        await assertAccessible(page, `${path}, ${colorScheme}, forced ${forcedColors}, ${width}`);
      }
      await page.setViewportSize({ width: 1280, height: 800 });
    }
    assert.deepEqual(errors, []);
    await context.close();
  });

  test("fits a window 800, 640 (twice as large at 1280), 390 and 320 pixels wide without scrolling sideways", async () => {
    const { context, page } = await app.signedIn();
    const tooWide: string[] = [];
    for (const [path, ready] of SCREENS) {
      await page.setViewportSize({ width: 1280, height: 800 });
      await page.goto(path);
      await page.getByText(ready).first().waitFor();
      for (const width of [800, 640, 390, 320]) {
        await page.setViewportSize({ width, height: 800 });
        // Charts and tables take their new width a moment after the window does.
        let wide = Infinity;
        for (let tries = 0; wide > 1 && tries < 40; tries += 1) {
          await page.waitForTimeout(50);
          wide = await page.evaluate(
            () => document.documentElement.scrollWidth - document.documentElement.clientWidth,
          );
        }
        if (wide > 1) tooWide.push(`${path} at ${width}: ${wide} pixels`);
      }
    }
    assert.deepEqual(tooWide, []);
    await context.close();
  });

  test("delivered pages and their 404 have no serious finding either", async () => {
    const context = await app.browser.newContext({ bypassCSP: true });
    const page = await context.newPage();
    for (const path of ["/", "/resources", "/calender/november", "/forum"]) {
      await page.goto(`http://lowlantern.localhost:${app.sitePort}${path}`);
      await assertAccessible(page, path);
    }
    await context.close();
  });
});

describe("signing in", () => {
  test("is asked for, refuses what is wrong, and goes on to where one wanted to go", async () => {
    const page = await app.browser.newPage({ baseURL: app.workspace });
    await page.goto("/low-lantern/routes?kind=short");
    await page.waitForURL(/\/sign-in\?to=/);
    await page.getByLabel("Mail address").waitFor();
    await assertAccessible(page, "sign-in");
    await page.getByLabel("Mail address").fill("nobody");
    await page.getByLabel("Password").fill("x");
    await page.getByRole("button", { name: "Sign in" }).click();
    await page.getByText("That is not a mail address.").waitFor();
    await page.getByLabel("Mail address").fill(DEMO_SIGN_IN.email);
    await page.keyboard.press("Enter");
    await page.getByRole("alert").getByText("or password is wrong").waitFor();
    assert.equal(await page.getByLabel("Mail address").inputValue(), DEMO_SIGN_IN.email);
    await page.getByLabel("Password").fill(DEMO_SIGN_IN.password);
    await page.keyboard.press("Enter");
    await page.waitForURL(/\/low-lantern\/routes\?kind=short$/);
    const [cookie] = await page.context().cookies();
    assert.deepEqual([cookie?.httpOnly, cookie?.sameSite], [true, "Lax"]);

    await page.getByRole("button", { name: "Low Lantern" }).click();
    await page.getByRole("menuitem", { name: "Sign out" }).click();
    await page.waitForURL(/\/sign-in$/);
    await page.goto("/low-lantern/routes");
    await page.waitForURL(/\/sign-in/);
    await page.context().close();
  });

  test("never sends anybody to another site afterwards", async () => {
    const page = await app.browser.newPage({ baseURL: app.workspace });
    await page.goto("/sign-in?to=//evil.example/");
    await page.getByLabel("Mail address").fill(DEMO_SIGN_IN.email);
    await page.getByLabel("Password").fill(DEMO_SIGN_IN.password);
    await page.keyboard.press("Enter");
    await page.waitForURL(`${app.workspace}/low-lantern/pages`);
    await page.context().close();
  });

  test("a session may only change things from the workspace's own pages", async () => {
    const { context } = await app.signedIn();
    const change = { data: { kind: "redirect", address: "/forged", destination: "/resources" } };
    for (const origin of ["http://lowlantern.localhost:4601", "null"]) {
      const answer = await context.request.post("/api/v1/sites/low-lantern/routes", {
        ...change,
        headers: { Origin: origin },
      });
      assert.equal(answer.status(), 403, origin);
    }
    assert.equal(
      (await context.request.post("/api/v1/sites/low-lantern/routes", change)).status(),
      403,
      "no Origin at all",
    );
    assert.equal(
      (
        await context.request.post("/session", {
          headers: { Origin: "http://evil.example" },
          data: DEMO_SIGN_IN,
        })
      ).status(),
      403,
    );
    const own = await context.request.post("/api/v1/sites/low-lantern/routes", {
      ...change,
      headers: { Origin: app.workspace },
    });
    assert.equal(own.status(), 201);
    await context.close();
  });
});

describe("scripts", () => {
  test("reach the API with a token, and with the installation's own", async () => {
    const { context, page } = await app.signedIn();
    await page.goto("/low-lantern/settings");
    await page.getByText("API tokens of the installation").click();
    await page.getByText("No tokens yet.").waitFor();
    await page.getByLabel("Name of a new token").fill("nightly export");
    await page.getByRole("button", { name: "Make token" }).click();
    const token = (await page.locator("code").first().textContent())!;
    const call = (bearer: string) =>
      fetch(`http://127.0.0.1:${new URL(app.workspace).port}/api/v1/sites`, {
        headers: { Authorization: `Bearer ${bearer}` },
      });
    assert.equal((await call(token)).status, 200);
    assert.equal((await call("a-token-for-the-tests-of-the-api")).status, 200);
    assert.equal((await call(`${token}x`)).status, 401);
    await page.reload();
    await page.getByText("API tokens of the installation").click();
    assert.equal(await page.getByText(token).count(), 0);
    await page.getByRole("button", { name: "End it (nightly export)" }).click();
    await page.getByText("No tokens yet.").waitFor();
    await until("the token has ended", async () => (await call(token)).status === 401);
    await context.close();
  });

  test("health is told on both listeners", async () => {
    for (const url of [
      `http://127.0.0.1:${new URL(app.workspace).port}/healthz`,
      `http://127.0.0.1:${app.sitePort}/healthz`,
    ]) {
      const health = (await (await fetch(url)).json()) as { status: string };
      assert.equal(health.status, "ok", url);
    }
  });
});

describe("the rules on their screen", () => {
  test("read as sentences, are switched off with a word, and undone", async () => {
    const { context, page } = await app.signedIn();
    const delivered = async (): Promise<string> =>
      (await ask(app.sitePort, "/resources", { host: "lowlantern.localhost" })).body;
    await page.goto("/low-lantern/rules");
    await page
      .getByText("Links to outside hosts: open in a new tab, where the author set nothing.")
      .waitFor();
    assert.match(await delivered(), /target="_blank"/);
    await page.getByRole("switch", { name: /Outside links open in a new tab/ }).click();
    await page.getByText("Applied, it changes").waitFor();
    assert.match(await delivered(), /target="_blank"/, "nothing acts before it is switched on");
    await page.getByRole("button", { name: "Apply now" }).click();
    await until("delivered pages follow", async () => !(await delivered()).includes('target="_blank"'));
    await page.getByRole("button", { name: "Undo" }).click();
    await until("and back", async () => (await delivered()).includes('target="_blank"'));
    await context.close();
  });
});
