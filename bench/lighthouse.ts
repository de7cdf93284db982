import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import lighthouse, { desktopConfig } from "lighthouse";
import { chromium } from "playwright-core";
import { DEMO_SIGN_IN } from "../demo/people.ts";
import { CHROMIUM } from "../scripts/chromium.mjs";
import { freePort } from "../scripts/postgres.mjs";
import { serveDemo } from "./demo-workspace.ts";

const DELIVERED = ["/reviews/frames-for-the-moon", "/", "/nothing-is-here"];
const NOTICE = "/gift?stay=1";
const WORKSPACE = [
  "pages",
  "pages/6",
  "ledger",
  "routes",
  "misses",
  "rules",
  "programs",
  "earnings",
  "clicks",
];
const RUNS = 3;

/** What Lighthouse found: its scores of a hundred, and what fell short beside speed. */
interface Found {
  scores: Record<string, number>;
  short: string[];
}

/**
 * The scores of Lighthouse, the best of three runs: as on a phone for delivered pages, a miss and a notice, as on a desk for
 * the workspace's screens, or for those that are named.
 */
export async function lighthouseScores(...named: string[]): Promise<void> {
  const demo = await serveDemo();
  const isAsked = (name: string): boolean => named.length === 0 || named.includes(name);
  const tell = async (name: string, url: string, signInAt?: string): Promise<void> => {
    if (isAsked(name)) console.log(name, await scored(url, signInAt));
  };
  try {
    for (const path of DELIVERED) await tell(path, `http://lowlantern.localhost:${demo.sitePort}${path}`);
    await tell(NOTICE, `http://lntn.localhost:${demo.sitePort}${NOTICE}`);
    for (const screen of WORKSPACE)
      await tell(screen, `${demo.workspace}/low-lantern/${screen}`, demo.workspace);
  } finally {
    await demo.stop();
  }
}

/** `signInAt` is the workspace, where somebody is to be signed in. */
async function scored(url: string, signInAt?: string): Promise<Found> {
  const scores: Record<string, number> = {};
  let short: string[] = [];
  for (let run = 0; run < RUNS; run += 1) {
    const port = await freePort();
    const folder = mkdtempSync(join(tmpdir(), "maprope-lighthouse-"));
    // Lighthouse looks in the browser's own context: who is signed in there is kept.
    const browser = await chromium.launchPersistentContext(folder, {
      ...CHROMIUM,
      args: [...CHROMIUM.args, `--remote-debugging-port=${port}`],
    });
    try {
      if (signInAt)
        await browser.request.post(`${signInAt}/session`, {
          headers: { Origin: signInAt },
          data: DEMO_SIGN_IN,
        });
      const flags = { port, logLevel: "error", ignoreStatusCode: true, disableStorageReset: true } as const;
      const result = await lighthouse(url, flags, signInAt ? desktopConfig : undefined);
      const { categories, audits } = result!.lhr;
      for (const [name, { score }] of Object.entries(categories))
        scores[name] = Math.max(scores[name] ?? 0, Math.round((score ?? 0) * 100));
      short = Object.values(categories)
        .filter(({ id }) => id !== "performance")
        .flatMap(({ auditRefs }) => auditRefs.filter(({ weight }) => weight > 0))
        .filter(({ id }) => (audits[id]?.score ?? 1) < 1)
        .map(({ id }) => id);
    } finally {
      await browser.close();
      rmSync(folder, { recursive: true, force: true });
    }
  }
  return { scores, short };
}
