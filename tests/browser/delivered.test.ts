import assert from "node:assert/strict";
import { after, before, describe, test } from "node:test";
import { HtmlValidate } from "html-validate";
import lighthouse from "lighthouse";
import { chromium, type Browser } from "playwright-core";
import { CHROMIUM } from "../../scripts/chromium.mjs";
import { freePort } from "../../scripts/postgres.mjs";
import { ask } from "../support/ask.ts";
import { testApp, type TestApp } from "../support/browser.ts";
import { assertAtom, assertSitemap } from "../support/valid-xml.ts";

const HOST = "lowlantern.localhost";
const SHORT = "lntn.localhost";
let app: TestApp;
before(async () => {
  app = await testApp();
});
after(() => app.stop());

const get = (path: string, host = HOST) => ask(app.sitePort, path, { host });

async function paths(): Promise<string[]> {
  const { body } = await get("/sitemap.xml");
  return [...body.matchAll(/<loc>(.*?)<\/loc>/g)].map(([, url]) => new URL(url!).pathname);
}

/** How far things moved while the page loaded (Layout Instability, section 2.3: a sum of scores). */
async function layoutShift(browser: Browser, url: string): Promise<number> {
  const page = await browser.newPage({ viewport: { width: 412, height: 823 } });
  await page.goto(url, { waitUntil: "networkidle" });
  return page.evaluate(async () => {
    await document.fonts.ready;
    await new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(done)));
    return new Promise<number>((done) => {
      let moved = 0;
      new PerformanceObserver((list) => {
        for (const entry of list.getEntries()) moved += (entry as unknown as { value: number }).value;
      }).observe({ type: "layout-shift", buffered: true });
      setTimeout(() => done(moved), 200);
    });
  });
}

describe("the whole demo, as readers and machines get it", () => {
  test("every page, a miss, a notice and what is gone are HTML by the standard", async () => {
    const validator = new HtmlValidate({
      root: true,
      extends: ["html-validate:standard", "html-validate:a11y"],
    });
    const pages = await paths();
    assert.ok(pages.length > 20);
    for (const [path, host, status] of [
      ...pages.map((path) => [path, HOST, 200] as const),
      ["/nothing-is-here", HOST, 404] as const,
      ["/gift", SHORT, 200] as const,
      ["/forum", HOST, 410] as const,
    ]) {
      const answer = await get(path, host);
      assert.equal(answer.status, status, path);
      const { results } = await validator.validateString(answer.body);
      assert.deepEqual(
        results.flatMap(({ messages }) => messages.map(({ ruleId, message }) => `${ruleId}: ${message}`)),
        [],
        path,
      );
    }
  });

  test("sitemap and feeds are valid, and lead to what is there", async () => {
    await assertSitemap((await get("/sitemap.xml")).body);
    const home = await get("/");
    const feeds = new Set(
      [
        home.body,
        ...(await Promise.all((await paths()).map((path) => get(path)))).map(({ body }) => body),
      ].flatMap((body) =>
        [...body.matchAll(/type="application\/atom\+xml"[^>]*? href="([^"]+)"/g)].map(([, href]) => href!),
      ),
    );
    assert.ok(feeds.size > 3, "of the site and of each category");
    for (const feed of feeds) {
      const { status, body } = await get(feed);
      assert.equal(status, 200, feed);
      await assertAtom(body);
      for (const [, href] of body.matchAll(/<entry>[\s\S]*?<link href="([^"]+)"/g))
        assert.equal((await get(new URL(href!).pathname)).status, 200, href);
    }
  });

  // What a miss and a notice are meant to be: not found, not listed.
  const MEANT = ["is-crawlable", "http-status-code", "errors-in-console"];
  const CATEGORIES = ["accessibility", "best-practices", "seo"] as const;
  for (const [what, path, host, skipAudits] of [
    ["a page", "/reviews/frames-for-the-moon", HOST, []],
    ["a miss", "/nothing-is-here", HOST, MEANT],
    ["a notice", "/gift?stay=1", SHORT, MEANT],
  ] as const)
    test(`${what} has the full score of Lighthouse, and nothing of it moves while it loads`, async () => {
      const port = await freePort();
      const browser = await chromium.launch({
        ...CHROMIUM,
        args: [...CHROMIUM.args, `--remote-debugging-port=${port}`],
      });
      try {
        // Without speed, which is measured on a quiet machine (`npm run bench -- lighthouse`): so no
        // trace is recorded, which a busy machine may lose the beginning of.
        const run = await lighthouse(`http://${host}:${app.sitePort}${path}`, {
          port,
          logLevel: "error",
          ignoreStatusCode: true,
          onlyCategories: [...CATEGORIES],
          skipAudits: [...skipAudits],
        });
        const { categories, audits, runtimeError } = run!.lhr;
        assert.equal(runtimeError, undefined);
        for (const id of CATEGORIES) {
          const { score, auditRefs } = categories[id]!;
          const missed = auditRefs.filter(
            ({ id: audit, weight }) => weight > 0 && audits[audit]?.score === 0,
          );
          assert.equal(score, 1, `${id}: ${missed.map((one) => one.id).join(", ")}`);
        }
        assert.ok((await layoutShift(browser, `http://${host}:${app.sitePort}${path}`)) < 0.01);
      } finally {
        await browser.close();
      }
    });
});

test("the workspace sends screens, answers and scripts compressed to whoever takes that", async () => {
  const { context, page } = await app.signedIn();
  const { port } = new URL(app.workspace);
  const cookies = await context.cookies(app.workspace);
  const headers = { Cookie: cookies.map(({ name, value }) => `${name}=${value}`).join("; ") };
  await page.goto("/low-lantern/pages");
  // The largest: of a few signs, compressed ones would be more.
  const script = await page.evaluate<string>(
    `performance.getEntriesByType("resource").filter(({ name }) => name.endsWith(".js"))
      .sort((a, b) => b.decodedBodySize - a.decodedBodySize)[0].name`,
  );
  const paths = ["/low-lantern/pages", "/api/v1/sites/low-lantern/pages", new URL(script).pathname];
  for (const path of paths) {
    for (const coding of ["br", "gzip"]) {
      const { status, headers: got } = await ask(Number(port), path, {
        host: `localhost:${port}`,
        headers: { ...headers, "Accept-Encoding": coding },
      });
      assert.deepEqual(
        [status, got["content-encoding"], /accept-encoding/i.test(got.vary ?? "")],
        [200, coding, true],
        path,
      );
    }
    const plain = await ask(Number(port), path, { host: `localhost:${port}`, headers });
    assert.equal(plain.headers["content-encoding"], undefined);
  }
  await context.close();
});
