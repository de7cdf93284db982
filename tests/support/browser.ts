import { mkdtempSync, readFileSync, rmSync } from "node:fs";
import { createRequire } from "node:module";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { NO_PROXY } from "../../src/incoming/proxy-trust.ts";
import assert from "node:assert/strict";
import { chromium, type Browser, type BrowserContext, type Page } from "playwright-core";
import { DEMO_SECOND_SIGN_IN, DEMO_SIGN_IN, loadDemo } from "../../demo/load.ts";
import { TEST_BUILD } from "../../scripts/build-for-tests.ts";
import { CHROMIUM } from "../../scripts/chromium.mjs";
import { freePort } from "../../scripts/postgres.mjs";
import { serve } from "../../src/server/serve.ts";
import { startSim } from "../../src/sim/server.ts";
import { freshStore } from "./database.ts";

/** The whole application with its demo, and a browser in front of it. */
export interface TestApp {
  workspace: string;
  databaseUrl: string;
  sitePort: number;
  simPort: number;
  browser: Browser;
  /** A browser of its own, signed in. Anything the page throws or logs as an error fails the test that closes it. */
  signedIn(as?: "mara" | "tobias"): Promise<{ context: BrowserContext; page: Page }>;
  stop(): Promise<void>;
}

/** Starts everything on ports of its own, on a fresh database with the demo in it, or empty. */
export async function testApp({ demo = true } = {}): Promise<TestApp> {
  const { url, drop } = await freshStore();
  const dataFolder = mkdtempSync(join(tmpdir(), "maprope-app-"));
  const [port, sitePort, simPort] = [await freePort(), await freePort(), await freePort()];
  const sim = await startSim(simPort);
  const config = {
    databaseUrl: url,
    host: "127.0.0.1",
    port,
    siteHost: "127.0.0.1",
    sitePort,
    simPort,
    dataFolder,
    secret: "a secret of the tests",
    secretsBefore: [],
    apiToken: "a-token-for-the-tests-of-the-api",
    demo,
    simulated: true,
    trust: NO_PROXY,
    log: "warn",
    buildFolder: TEST_BUILD,
  };
  const serving = await serve(config, url, async (desk) => {
    if (demo) await loadDemo(desk, simPort, Date.now());
  });
  const browser = await chromium.launch(CHROMIUM);
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
      page.setDefaultTimeout(20_000);
      return { context, page };
    },
    async stop() {
      await browser.close();
      await serving.stop();
      await sim.stop();
      await drop();
      rmSync(dataFolder, { recursive: true, force: true });
    },
  };
}

const AXE = readFileSync(createRequire(import.meta.url).resolve("axe-core/axe.min.js"), "utf8");

/** Asserts that axe-core has no serious or critical finding on the page as it stands. */
export async function assertAccessible(page: Page, screen: string): Promise<void> {
  // Not as a script of the page: its policy lets none of those in.
  await page.evaluate(AXE);
  const findings = await page.evaluate(async () => {
    const axe = (
      window as unknown as {
        axe: {
          run(): Promise<{
            violations: { id: string; impact: string; nodes: { html: string; failureSummary: string }[] }[];
          }>;
        };
      }
    ).axe;
    const { violations } = await axe.run();
    return violations
      .filter(({ impact }) => impact === "serious" || impact === "critical")
      .map(
        ({ id, nodes }) =>
          `${id}: ${nodes.map(({ html, failureSummary }) => `${html.slice(0, 160)} ${failureSummary}`).join(" | ")}`,
      );
  });
  assert.deepEqual(findings, [], `${screen} has findings`);
}
