import { fork } from "node:child_process";
import { once } from "node:events";
import { setTimeout as rest } from "node:timers/promises";
import { mkdtempSync, readFileSync, rmSync } from "node:fs";
import { createRequire } from "node:module";
import { tmpdir } from "node:os";
import { join } from "node:path";
import assert from "node:assert/strict";
import { chromium, type Browser, type BrowserContext, type Locator, type Page } from "playwright-core";
import { DEMO_SECOND_SIGN_IN, DEMO_SIGN_IN } from "../../demo/people.ts";
import { requireTestBuild, TEST_BUILD } from "../../scripts/build-for-tests.mjs";
import { CHROMIUM } from "../../scripts/chromium.mjs";
import { freePort } from "../../scripts/postgres.mjs";
import type { AppSettings } from "./app-process.ts";
import { createDatabase, type TestDatabase } from "./database.ts";
import { demoDatabase, type DemoPorts } from "./demo-database.ts";

/** The whole application with its demo, and a browser in front of it. */
export interface TestApp {
  workspace: string;
  databaseUrl: string;
  sitePort: number;
  simPort: number;
  browser: Browser;
  /** A browser of its own, signed in. Anything the page throws fails the test that closes it. */
  signedIn(as?: "mara" | "tobias"): Promise<{ context: BrowserContext; page: Page }>;
  stop(): Promise<void>;
}

/** How long a step of starting or ending may take, in milliseconds: loading the demo on a slow machine has a minute. */
const STEP_MS = 240_000;

/** Starts everything, on a fresh database: with the demo in it, or empty. */
export async function testApp({ demo = true } = {}): Promise<TestApp> {
  await requireTestBuild();
  const { url, ports, drop } = await (demo ? demoDatabase(load) : emptyDatabase());
  const { sitePort, simPort } = ports;
  const { port, stop } = await within("the application is ready", start(url, ports, demo));
  const browser = await within("the browser starts", chromium.launch(CHROMIUM));
  const workspace = `http://localhost:${port}`;
  return {
    workspace,
    databaseUrl: url,
    sitePort,
    simPort,
    browser,
    async signedIn(as = "mara") {
      const context = await browser.newContext({
        viewport: { width: 1280, height: 800 },
        baseURL: workspace,
      });
      await context.grantPermissions(["clipboard-read", "clipboard-write"], { origin: workspace });
      const answer = await context.request.post("/session", {
        headers: { Origin: workspace },
        data: as === "mara" ? DEMO_SIGN_IN : DEMO_SECOND_SIGN_IN,
      });
      assert.equal(answer.status(), 204);
      const page = await context.newPage();
      page.setDefaultTimeout(60_000);
      goWhenTakenOver(page);
      failOnErrors(context, page);
      return { context, page };
    },
    async stop() {
      await within("the browser closes", browser.close());
      await within("the application ends", stop());
      await within("its database is dropped", drop());
    },
  };
}

// A test that waits for what never comes is to say for what.
async function within<T>(what: string, work: Promise<T>): Promise<T> {
  const over = new AbortController();
  const late = rest(STEP_MS, undefined, { signal: over.signal }).then(() => {
    throw new Error(`It took more than ${STEP_MS / 1000} s until ${what}.`);
  });
  late.catch(() => undefined); // told by the race, where it is lost
  try {
    return await Promise.race([work, late]);
  } finally {
    over.abort();
  }
}

// Keys that are pressed before a screen can be worked with mean nothing: nobody is so quick, but tests are.
function goWhenTakenOver(page: Page): void {
  const goto = page.goto.bind(page);
  const reload = page.reload.bind(page);
  page.goto = async (...to) => {
    const answer = await goto(...to);
    await takenOver(page);
    return answer;
  };
  page.reload = async (...how) => {
    const answer = await reload(...how);
    await takenOver(page);
    return answer;
  };
}

/** Waits until what the server drew can be worked with, where there is any of it. */
export async function takenOver(page: Page): Promise<void> {
  try {
    await page.waitForFunction(() => !document.querySelector('[aria-busy="true"], astro-island[ssr]'));
  } catch (error) {
    const waits = page.locator('[aria-busy="true"], astro-island[ssr]');
    const parts = await waits.evaluateAll((all) =>
      all.map((one) => (one as HTMLElement).outerHTML.slice(0, 160)),
    );
    throw new Error(`${page.url()} is not taken over, it waits for ${parts.join(" and ")}`, { cause: error });
  }
}

function failOnErrors(context: BrowserContext, page: Page): void {
  const thrown: string[] = [];
  page.on("pageerror", ({ message }) => thrown.push(message));
  const close = context.close.bind(context);
  context.close = async (...how) => {
    await close(...how);
    assert.deepEqual(thrown, [], "the page threw errors");
  };
}

async function emptyDatabase(): Promise<TestDatabase & { ports: DemoPorts }> {
  return { ...(await createDatabase()), ports: { sitePort: await freePort(), simPort: await freePort() } };
}

async function load(url: string, ports: DemoPorts): Promise<void> {
  const { stop } = await within("the demo is loaded", start(url, ports, true));
  await within("the application that loaded it ends", stop());
}

// The built application in a process of its own: what reaches a browser is what an installation serves.
async function start(
  databaseUrl: string,
  ports: DemoPorts,
  demo: boolean,
): Promise<{ port: number; stop(): Promise<void> }> {
  const dataFolder = mkdtempSync(join(tmpdir(), "maprope-app-"));
  const settings: AppSettings = {
    ...ports,
    databaseUrl,
    port: await freePort(),
    dataFolder,
    buildFolder: TEST_BUILD,
    demo,
  };
  const app = fork(join(TEST_BUILD, "tests/app-process.mjs"), { execArgv: [] });
  const ended = once(app, "exit");
  app.send(settings);
  const [said] = await Promise.race([once(app, "message"), ended]);
  assert.equal(said, "ready", "the application did not start");
  return {
    port: settings.port,
    async stop() {
      app.disconnect();
      assert.deepEqual(await ended, [0, null], "the application ended badly");
      rmSync(dataFolder, { recursive: true, force: true });
    },
  };
}

const AXE = readFileSync(createRequire(import.meta.url).resolve("axe-core/axe.min.js"), "utf8");

/**
 * Asserts that axe-core finds nothing on the page as it stands: by all rules, best practices included. Left out are those
 * of level AAA, and experimental ones, of which one forbids what another demands (what scrolls must take the focus); and
 * what only says that a notice lies above a target for a moment.
 */
export async function assertAccessible(page: Page, screen: string): Promise<void> {
  // Not as a script of the page: its policy lets none of those in.
  await page.evaluate(AXE);
  const findings = await page.evaluate(async () => {
    interface Axe {
      getRules(): { ruleId: string; tags: string[] }[];
      run(
        on: Document,
        options: object,
      ): Promise<{ violations: { id: string; nodes: { html: string; failureSummary: string }[] }[] }>;
    }
    const { axe } = window as unknown as { axe: Axe };
    const values = axe
      .getRules()
      .filter(({ tags }) => !tags.includes("wcag2aaa") && !tags.includes("experimental"))
      .map(({ ruleId }) => ruleId);
    const rules = Object.fromEntries(values.map((id) => [id, { enabled: true }]));
    const { violations } = await axe.run(document, { runOnly: { type: "rule", values }, rules });
    return violations.flatMap(({ id, nodes }) => {
      const meant = nodes.filter(({ failureSummary }) => !failureSummary.includes("partially obscured"));
      const told = meant.map(({ html, failureSummary }) => `${html.slice(0, 160)} ${failureSummary}`);
      return told.length > 0 ? [`${id}: ${told.join(" | ")}`] : [];
    });
  });
  assert.deepEqual(findings, [], `${screen} has findings`);
}

/** Chooses in a field where one types towards it: the first that fits, or what was typed where anything may be said. */
export async function choose(field: Locator, typed: string): Promise<void> {
  await field.fill(typed);
  await field.press("Enter");
}
