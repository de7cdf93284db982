import lighthouse from "lighthouse";
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

/** The scores of Lighthouse, the best of three runs, for delivered pages, a miss, a notice and the workspace's screens. */
export async function lighthouseScores(): Promise<void> {
  const demo = await serveDemo();
  const tell = async (name: string, url: string, cookie?: string): Promise<void> =>
    console.log(name, await scored(url, cookie));
  try {
    for (const path of DELIVERED) await tell(path, `http://lowlantern.localhost:${demo.sitePort}${path}`);
    await tell(NOTICE, `http://lntn.localhost:${demo.sitePort}${NOTICE}`);
    const cookie = await signedIn(demo.workspace);
    for (const screen of WORKSPACE) await tell(screen, `${demo.workspace}/low-lantern/${screen}`, cookie);
  } finally {
    await demo.stop();
  }
}

async function signedIn(workspace: string): Promise<string> {
  const response = await fetch(`${workspace}/session`, {
    method: "POST",
    headers: { Origin: workspace, "Content-Type": "application/json" },
    body: JSON.stringify(DEMO_SIGN_IN),
  });
  return response.headers.get("set-cookie")!.split(";")[0]!;
}

async function scored(url: string, cookie?: string): Promise<Record<string, number>> {
  const best: Record<string, number> = {};
  for (let run = 0; run < RUNS; run += 1) {
    const port = await freePort();
    const browser = await chromium.launch({
      ...CHROMIUM,
      args: [...CHROMIUM.args, `--remote-debugging-port=${port}`],
    });
    try {
      const result = await lighthouse(url, {
        port,
        logLevel: "error",
        ignoreStatusCode: true,
        ...(cookie ? { extraHeaders: { Cookie: cookie }, preset: "desktop" as never } : {}),
      });
      for (const [name, { score }] of Object.entries(result!.lhr.categories))
        best[name] = Math.max(best[name] ?? 0, Math.round((score ?? 0) * 100));
    } finally {
      await browser.close();
    }
  }
  return best;
}
