import { gzipSync } from "node:zlib";
import { chromium, type Browser, type CDPSession, type Page } from "playwright-core";
import { DEMO_SIGN_IN } from "../demo/people.ts";
import { CHROMIUM } from "../scripts/chromium.mjs";
import { openBareEditor } from "./bare-editor.ts";
import { serveDemo } from "./demo-workspace.ts";

const WORDS = 20_000;
const LINKS = 500;
const SMALL_WORDS = 200;
const KEYS = 150;
const OPENINGS = 7;

interface TraceEvent {
  name: string;
  ts: number;
  dur?: number;
  args?: { data?: { type?: string } };
}

/** Writing on a page of 20,000 words with 500 links: typing, the page check, opening; and what the page list weighs. */
export async function writing(): Promise<void> {
  const demo = await serveDemo();
  const browser = await chromium.launch(CHROMIUM);
  try {
    const { workspace, apiToken } = demo;
    const longText = textOf(WORDS, LINKS);
    const large = await makePage(workspace, apiToken, "/large", longText);
    const small = await makePage(workspace, apiToken, "/small", textOf(SMALL_WORDS, 5));
    console.log(
      `A page of ${WORDS.toLocaleString("en")} words with ${LINKS} links, beside one of ${SMALL_WORDS}.`,
    );
    await opening(browser, workspace, large, small);
    await typing(browser, workspace, longText, large, small);
    await weight(browser, workspace);
  } finally {
    await browser.close();
    await demo.stop();
  }
}

async function makePage(workspace: string, token: string, path: string, html: string): Promise<string> {
  const answer = await fetch(`${workspace}/api/v1/sites/low-lantern/pages`, {
    method: "POST",
    headers: { Authorization: `Bearer ${token}`, "Content-Type": "application/json" },
    body: JSON.stringify({ path, title: path, html }),
  });
  if (answer.status !== 201) throw new Error(await answer.text());
  return `/low-lantern/pages/${((await answer.json()) as { id: string }).id}`;
}

function textOf(words: number, links: number): string {
  const perParagraph = Math.floor(words / links);
  return Array.from(
    { length: links },
    (_, at) =>
      `<p>${"lamp and lens ".repeat(Math.floor(perParagraph / 3) - 1)}<a href="https://shop.example/item/${at}">lens number ${at}</a></p>`,
  ).join("");
}

async function signedIn(browser: Browser, workspace: string): Promise<Page> {
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 }, baseURL: workspace });
  await context.request.post("/session", { headers: { Origin: workspace }, data: DEMO_SIGN_IN });
  return context.newPage();
}

/** From navigation until the text can be written in and its knots stand beside it. */
async function opening(browser: Browser, workspace: string, large: string, small: string): Promise<void> {
  const page = await signedIn(browser, workspace);
  const open = async (address: string): Promise<number> => {
    const began = performance.now();
    await page.goto(address, { waitUntil: "commit" });
    await page
      .getByRole("complementary", { name: "Links of this page" })
      .getByText("new tab noopener")
      .first()
      .waitFor({ state: "attached" });
    return performance.now() - began;
  };
  await open(small);
  await open(large);
  const times = { large: [] as number[], small: [] as number[] };
  for (let round = 0; round < OPENINGS; round += 1) {
    times.small.push(await open(small));
    times.large.push(await open(large));
  }
  await page.context().close();
  const [a, b] = [median(times.large), median(times.small)];
  console.log(
    `opening: ${a.toFixed(0)} ms against ${b.toFixed(0)} ms of the small page, ${(a / b).toFixed(2)} times (target: at most 1.40); medians of ${OPENINGS}`,
  );
}

/** The main thread's time for each key, from a trace: the event and every task it causes until the next key. */
async function typing(
  browser: Browser,
  workspace: string,
  longText: string,
  large: string,
  small: string,
): Promise<void> {
  const bare = await openBareEditor(browser, longText);
  const yardstick = keyTimes(await keysIn(bare));
  await bare.context().close();
  console.log(`typing, the bare editor on the same 20,000 words: ${keysInWords(yardstick)}`);
  for (const [name, address] of [
    ["20,000 words", large],
    ["200 words", small],
  ] as const) {
    const page = await signedIn(browser, workspace);
    await page.goto(address);
    const events = await keysIn(page);
    const keys = keyTimes(events);
    const checks = events
      .filter((event) => event.name === "page check" && event.dur)
      .map((event) => event.dur! / 1000);
    const measured = (): Promise<number[]> =>
      page.evaluate(() => performance.getEntriesByName("page check").map(({ duration }) => duration));
    const soon = await measured();
    await page.waitForTimeout(1500);
    const check = [...checks, ...soon, ...(await measured())];
    const times = quantile(keys, 0.95) / quantile(yardstick, 0.95);
    const beside =
      address === large ? `, ${times.toFixed(2)} times the bare editor's p95 (target: at most 1.30)` : "";
    console.log(
      `typing, ${name}: ${keysInWords(keys)}${beside}; page check in the worker ${check.length > 0 ? `${median(check).toFixed(1)} ms` : "not seen"} (target: under 100)`,
    );
    await page.context().close();
  }
}

/** What the browser does while keys are typed into the text, in the middle of its first lines. */
async function keysIn(page: Page): Promise<TraceEvent[]> {
  const text = page.getByRole("textbox", { name: "Text of the page" });
  await text.waitFor();
  await page.waitForTimeout(2500);
  await text.getByText("lamp and lens").first().click();
  return traced(page, async () => {
    for (let key = 0; key < KEYS; key += 1) {
      await page.keyboard.press("abcdefgh"[key % 8]!);
      await page.waitForTimeout(70);
    }
  });
}

function keysInWords(keys: readonly number[]): string {
  const [p50, p95, longest] = [0.5, 0.95, 1].map((at) => quantile(keys, at).toFixed(1));
  return `p50 ${p50} ms, p95 ${p95} ms, longest ${longest} ms of the main thread a key, ${keys.length} keys`;
}

async function traced(page: Page, act: () => Promise<void>): Promise<TraceEvent[]> {
  const session: CDPSession = await page.context().newCDPSession(page);
  const events: TraceEvent[] = [];
  session.on("Tracing.dataCollected", ({ value }) => events.push(...(value as unknown as TraceEvent[])));
  await session.send("Tracing.start", {
    transferMode: "ReportEvents",
    traceConfig: { includedCategories: ["devtools.timeline", "blink.user_timing"] },
  });
  await act();
  const done = new Promise((resolve) => session.once("Tracing.tracingComplete", resolve));
  await session.send("Tracing.end");
  await done;
  return events;
}

const KEY_EVENTS = new Set(["keydown", "keypress", "beforeinput", "textInput", "input", "keyup"]);

// A key's handlers, and the style, layout and paint of the frame that follows.
function keyTimes(events: readonly TraceEvent[]): number[] {
  const sorted = events.filter(({ dur }) => dur !== undefined).sort((a, b) => a.ts - b.ts);
  const starts = sorted
    .filter(({ name, args }) => name === "EventDispatch" && args?.data?.type === "keydown")
    .map(({ ts }) => ts);
  return starts.map((start) => {
    let time = 0;
    let covered = 0;
    for (const { name, ts, dur, args } of sorted) {
      if (ts < start || ts > start + 50_000 || ts < covered) continue;
      const isKey = name === "EventDispatch" && KEY_EVENTS.has(args?.data?.type ?? "");
      const isFrame = [
        "UpdateLayoutTree",
        "Layout",
        "PrePaint",
        "Paint",
        "Layerize",
        "Commit",
        "FunctionCall",
        "FireAnimationFrame",
      ].includes(name);
      if (!isKey && !isFrame) continue;
      time += dur! / 1000;
      covered = ts + dur!;
    }
    return time;
  });
}

/** All JavaScript that the page list fetches, gzipped. */
async function weight(browser: Browser, workspace: string): Promise<void> {
  for (const [name, address, target] of [
    ["page list", "/low-lantern/pages", "target: under 150 kB"],
    ["writing view", "/low-lantern/pages/1", "no target"],
  ] as const) {
    const page = await signedIn(browser, workspace);
    let bytes = 0;
    const reading: Promise<void>[] = [];
    page.on("response", (response) => {
      if (response.request().resourceType() !== "script") return;
      reading.push(response.body().then((body) => void (bytes += gzipSync(body).length)));
    });
    await page.goto(address);
    await page.waitForTimeout(2500);
    await Promise.all(reading);
    console.log(`JavaScript of the ${name}: ${(bytes / 1000).toFixed(0)} kB gzipped (${target})`);
    await page.context().close();
  }
}

function quantile(values: readonly number[], at: number): number {
  const sorted = [...values].sort((a, b) => a - b);
  return sorted[Math.min(sorted.length - 1, Math.floor(sorted.length * at))] ?? NaN;
}

function median(values: readonly number[]): number {
  return quantile(values, 0.5);
}
