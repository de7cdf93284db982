// Takes the pictures in docs/screenshots from a running `npm start` with demo data: npx tsx scripts/screenshots.ts [NAME …]
import { join } from "node:path";
import { chromium, type Page } from "playwright-core";
import { DEMO_SIGN_IN } from "../demo/people.ts";
import { CHROMIUM } from "./chromium.mjs";
import { root } from "./install.mjs";

const WORKSPACE = "http://localhost:4600";

interface Shot {
  name: string;
  path: string;
  scheme?: "dark";
  act?: (page: Page) => Promise<void>;
}

// A few slips, as they happen while somebody writes; the comparison shows them afterwards.
async function faulty(page: Page): Promise<void> {
  const text = page.getByRole("textbox", { name: "Text of the page" });
  // On the paragraph's second line, so that “End” is its end.
  await text.getByText("Anything around 30 mm serves").click({ position: { x: 150, y: 40 } });
  await page.keyboard.press("End");
  await page.keyboard.type(" Ours are listed here.");
  await page.keyboard.press("ArrowLeft");
  await page.keyboard.press("Control+Shift+ArrowLeft");
  await page.keyboard.press("Control+k");
  await page.getByRole("combobox", { name: "Where it leads" }).fill("/resorces");
  await page.getByRole("button", { name: "Set link" }).click();
  await page.getByText("Nothing on the site answers /resorces.").first().waitFor();
  await page.evaluate(() => scrollTo(0, 0));
  await page.waitForTimeout(1500);
}

// Some readers of pages that stand elsewhere.
async function passing(page: Page): Promise<void> {
  for (const path of ["/", "/birds/heron", "/things/boots-after-two-winters"])
    await page.goto(`http://saltmarsh-notes.localhost:4601${path}`);
  await page.waitForTimeout(6_000);
  await page.goto("/saltmarsh-notes/origin/front");
  await page.getByRole("button", { name: "Ask the origin as a reader would" }).click();
  await page.getByRole("status").getByText("it answers.").waitFor();
  await page.evaluate(() => scrollTo(0, 0));
}

const shots: readonly Shot[] = [
  { name: "writing", path: "/low-lantern/pages/4", act: faulty },
  { name: "routes", path: "/low-lantern/routes" },
  {
    name: "short-link",
    path: "/low-lantern/routes?q=dob",
    act: async (page) => {
      await page.getByRole("row").filter({ hasText: "/dob" }).first().getByRole("button").first().click();
      await page.getByRole("img", { name: /QR code/ }).waitFor();
    },
  },
  { name: "misses", path: "/low-lantern/misses" },
  { name: "ledger", path: "/low-lantern/ledger?reach=external" },
  { name: "programs", path: "/low-lantern/programs" },
  {
    name: "program",
    path: "/low-lantern/programs?open=2",
    act: async (page) => {
      await page
        .getByLabel("Build a tracked link to")
        .fill("http://starling-eyepieces.localhost:4602/item/barlow-two");
      await page.getByLabel("It will stand on").fill("Eyepieces you");
      await page.getByRole("option", { name: "Eyepieces you will keep" }).click();
      await page.getByRole("button", { name: "Build and copy" }).click();
      await page.getByText("The report will name it").waitFor();
    },
  },
  { name: "earnings", path: "/low-lantern/earnings?by=page" },
  { name: "report", path: "/low-lantern/ledger/report" },
  {
    name: "rules",
    path: "/low-lantern/rules",
    act: async (page) => {
      await page.getByRole("button", { name: "Network links are paid", exact: true }).click();
      await page.waitForTimeout(800);
      await page.evaluate(() => scrollTo(0, 0));
    },
  },
  {
    name: "swaps",
    path: "/low-lantern/rules/swaps",
    act: async (page) => {
      await page.getByRole("button", { name: "New swap" }).click();
      await page.getByText("A host", { exact: true }).click();
      await page.getByLabel("Links to the host").fill("quiet-mount.localhost");
      await page.getByLabel("Lead to the same place on").fill("quiet-mounts.example");
      await page.getByRole("button", { name: "Take into the set" }).click();
      await page.getByText(/The set changes \d/).waitFor();
    },
  },
  // Of an edge that was written before: npx maprope edge nginx FOLDER --name quay --upstream http://127.0.0.1:4601 --once
  { name: "edges", path: "/low-lantern/routes/edges" },
  {
    name: "settings",
    path: "/low-lantern/settings",
    act: async (page) => {
      await page.getByRole("button", { name: "Change lntn.localhost" }).click();
      await page.getByRole("button", { name: "Does it lead here?" }).click();
      await page.getByRole("status").getByText("leads here.").waitFor();
    },
  },
  { name: "elsewhere", path: "/saltmarsh-notes/origin" },
  { name: "to-do-there", path: "/saltmarsh-notes/origin/to-do" },
  { name: "on-the-way", path: "/saltmarsh-notes/origin/front", act: passing },
  { name: "api-reference", path: "/api/v1/docs" },
  { name: "clicks", path: "/low-lantern/clicks?days=14&compare=1" },
  { name: "delivered-page", path: "http://lowlantern.localhost:4601/resources" },
];

const browser = await chromium.launch(CHROMIUM);
const wanted = process.argv.slice(2);
for (const shot of shots.filter(({ name }) => wanted.length === 0 || wanted.includes(name))) {
  const context = await browser.newContext({
    viewport: { width: 1280, height: 800 },
    baseURL: WORKSPACE,
    colorScheme: shot.scheme ?? "light",
  });
  await context.request.post("/session", { headers: { Origin: WORKSPACE }, data: DEMO_SIGN_IN });
  const page = await context.newPage();
  await page.goto(shot.path);
  await page.waitForLoadState("networkidle").catch(() => undefined); // lists that poll are never idle for long
  await page.waitForTimeout(900);
  await shot.act?.(page);
  await page.waitForTimeout(600);
  await page.screenshot({ path: join(root, "docs/screenshots", `${shot.name}.png`) });
  await context.close();
}
await browser.close();
