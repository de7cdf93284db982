import { gzipSync } from "node:zlib";
import { chromium, type BrowserContext, type Page } from "playwright-core";
import { DEMO_SIGN_IN } from "../demo/people.ts";
import { CHROMIUM } from "../scripts/chromium.mjs";
import { serveDemo } from "./demo-workspace.ts";
import { median } from "./median.ts";

/** Screens, and the words that their first rows or text show. */
const SCREENS: readonly (readonly [path: string, rows: string])[] = [
  ["/low-lantern/pages", "What we lean on"],
  ["/low-lantern/pages/6", "Who it is for"],
  ["/low-lantern/ledger", "An hour with nothing"],
  ["/low-lantern/routes", "/gift"],
  ["/low-lantern/misses", "/almanack"],
  ["/low-lantern/rules", "Network links are paid"],
  ["/low-lantern/programs", "Fernhill Dark-Sky Cabins"],
  ["/low-lantern/earnings", "per 100 clicks"],
  ["/low-lantern/clicks", "clicks by people"],
  ["/low-lantern/settings", "letter case counts"],
  ["/low-lantern/history", "made the route"],
];
const ROUNDS = 5;
const SLOWER = 4;
const REST_MS = 2_500;
const AT_MOST_MS = 15_000;

/** What a screen took, from its navigation's commit, with a processor that is four times slower. */
interface Taken {
  rowsMs: number;
  lastLongTaskMs: number;
  scriptKb: number;
  requests: number;
}

/** When each screen shows its first rows, when its last long task ends, how much script it has and how often it asks. */
export async function screens(): Promise<void> {
  const demo = await serveDemo();
  const browser = await chromium.launch(CHROMIUM);
  try {
    const context = await browser.newContext({
      baseURL: demo.workspace,
      viewport: { width: 1280, height: 800 },
    });
    await context.request.post("/session", { headers: { Origin: demo.workspace }, data: DEMO_SIGN_IN });
    const table: Record<string, object> = {};
    for (const [path, rows] of SCREENS) {
      const rounds: Taken[] = [];
      for (let round = 0; round < ROUNDS; round += 1) rounds.push(await opened(context, path, rows));
      const of = (name: keyof Taken): number => median(rounds.map((one) => one[name]));
      table[path] = {
        "first rows, ms": of("rowsMs"),
        "last long task, ms": of("lastLongTaskMs"),
        "script, kB gzipped": of("scriptKb"),
        requests: of("requests"),
      };
    }
    console.table(table);
    const walked = await walk(context);
    console.log(`from screen to screen, ms from the click, medians of ${ROUNDS}:`, walked);
  } finally {
    await browser.close();
    await demo.stop();
  }
}

/** Sections that are gone to from one another, and the words that their rows show. */
const WALK: readonly (readonly [link: string, rows: string])[] = [
  ["Ledger", "An hour with nothing"],
  ["Routes", "/gift"],
  ["Programs", "Fernhill Dark-Sky Cabins"],
  ["Rules", "Network links are paid"],
  ["Clicks", "clicks by people"],
  ["Write", "What we lean on"],
];
/** Somebody points at a word before they press it. */
const POINTED_MS = 250;

// With files kept, as from the second screen on; the processor as slow as above.
async function walk(context: BrowserContext): Promise<Record<string, number>> {
  const page = await context.newPage();
  await watch(page, Object.fromEntries(WALK.map(([link, rows]) => [link, rows])));
  const session = await context.newCDPSession(page);
  const took: Record<string, number[]> = {};
  await page.goto("/low-lantern/pages");
  for (let round = 0; round <= ROUNDS; round += 1)
    for (const [link] of WALK) {
      await page.waitForTimeout(REST_MS / 2);
      await session.send("Emulation.setCPUThrottlingRate", { rate: SLOWER });
      const word = page
        .getByRole("navigation", { name: "Sections" })
        .getByRole("link", { name: link, exact: true });
      await word.hover();
      await page.waitForTimeout(POINTED_MS);
      // Pressed where the pointer is: what a tool looks at before it clicks is not what is measured.
      const arrived = page.waitForEvent("framenavigated");
      await page.mouse.down();
      await page.mouse.up();
      await arrived;
      const shown = await seenAt(page);
      const begun = await page.evaluate<number>("Number(sessionStorage.getItem('pressed'))");
      // The first round fetches the files.
      if (round > 0) (took[link] ??= []).push(shown - begun);
      await session.send("Emulation.setCPUThrottlingRate", { rate: 1 });
    }
  await page.close();
  return Object.fromEntries(Object.entries(took).map(([link, ms]) => [link, Math.round(median(ms))]));
}

/**
 * Has a page note when words can be read on it: at the frame after the one by which they are in sight. It looks at the text
 * that is there, and does not have it laid out to look. `words` by the section they belong to; "": whatever it is.
 */
async function watch(page: Page, words: Record<string, string>): Promise<void> {
  await page.addInitScript(`{
    const words = ${JSON.stringify(words)};
    addEventListener("click", (event) =>
      sessionStorage.setItem("pressed", String(performance.timeOrigin + event.timeStamp)), true);
    const isSeen = (rows) => {
      const main = document.querySelector("main");
      if (!main?.textContent.includes(rows)) return false;
      const within = (part) => [...part.children].find((one) => one.textContent.includes(rows));
      let part = main;
      for (let next = within(part); next; next = within(part)) part = next;
      return part.checkVisibility();
    };
    const look = () => {
      const section = document.querySelector('[aria-current="page"]')?.textContent.trim() ?? "";
      const rows = words[section] ?? words[""];
      if (rows !== undefined && isSeen(rows))
        requestAnimationFrame(() => (window.seenAt = performance.timeOrigin + performance.now()));
      else if (performance.now() < ${AT_MOST_MS}) requestAnimationFrame(look);
    };
    requestAnimationFrame(look);
  }`);
}

/** When the words that are watched for could be read, in milliseconds of the clock. */
function seenAt(page: Page): Promise<number> {
  // As text: a function of ours would bring names along that the page does not know.
  return page.evaluate<number>(`new Promise((resolve, reject) => {
    const asked = setInterval(() => {
      if (window.seenAt) resolve(window.seenAt);
      else if (performance.now() > ${AT_MOST_MS}) reject(new Error("the rows were never shown"));
      else return;
      clearInterval(asked);
    }, 50);
  })`);
}

async function opened(context: BrowserContext, path: string, rows: string): Promise<Taken> {
  const page = await context.newPage();
  const session = await context.newCDPSession(page);
  await session.send("Emulation.setCPUThrottlingRate", { rate: SLOWER });
  await session.send("Network.setCacheDisabled", { cacheDisabled: true });
  const scripts: Promise<number>[] = [];
  let requests = 0;
  page.on("response", (response) => {
    requests += 1;
    if (response.request().resourceType() === "script")
      scripts.push(response.body().then((body) => gzipSync(body).length));
  });
  await page.addInitScript(`
    window.longTasks = 0;
    new PerformanceObserver((list) => {
      const begun = performance.getEntriesByType("navigation")[0].responseStart;
      for (const { startTime, duration } of list.getEntries()) window.longTasks = startTime + duration - begun;
    }).observe({ type: "longtask", buffered: true });
  `);
  await watch(page, { "": rows });
  await page.goto(path, { waitUntil: "commit" });
  const seen = await seenAt(page);
  // From the first byte of the answer: the navigation's commit.
  const rowsMs =
    seen -
    (await page.evaluate<number>(
      "performance.timeOrigin + performance.getEntriesByType('navigation')[0].responseStart",
    ));
  await page.waitForTimeout(REST_MS);
  const lastLongTaskMs = await page.evaluate<number>("window.longTasks");
  page.removeAllListeners("response");
  const bytes = (await Promise.all(scripts)).reduce((sum, one) => sum + one, 0);
  await page.close();
  return {
    rowsMs: Math.round(rowsMs),
    lastLongTaskMs: Math.round(lastLongTaskMs),
    scriptKb: Math.round(bytes / 1000),
    requests,
  };
}
