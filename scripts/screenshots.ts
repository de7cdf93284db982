// Takes the pictures in docs/screenshots from a running `npm start` with demo data: npx tsx scripts/screenshots.ts [NAME …]
import { join } from "node:path";
import { chromium, type Page } from "playwright-core";
import { DEMO_SIGN_IN } from "../demo/load.ts";
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

const shots: readonly Shot[] = [
  { name: "pages", path: "/low-lantern/write" },
  { name: "writing", path: "/low-lantern/write/4", act: faulty },
  {
    name: "composer",
    path: "/low-lantern/write/6",
    act: async (page) => {
      await page
        .getByRole("complementary")
        .getByRole("button", { name: /the Starling 13 mm/ })
        .click();
      await page.getByTestId("delivered").waitFor();
    },
  },
  { name: "html-view", path: "/low-lantern/write/3?view=html" },
  {
    name: "preview",
    path: "/low-lantern/write/6?view=preview",
    act: async (page) => {
      await page.frameLocator("iframe").getByRole("link", { name: "Fernhill" }).hover();
      await page.getByRole("status").getByText("/dark-places/fernhill").waitFor();
    },
  },
  { name: "compare", path: "/low-lantern/write/4?view=compare" },
  { name: "navigation", path: "/low-lantern/navigation" },
  { name: "files", path: "/low-lantern/files?open=1" },
  {
    name: "paste-field",
    path: "/low-lantern/write",
    act: async (page) => {
      await page.getByRole("combobox").fill("http://https://harbour-optics.localhost:4602/item/red-torch ");
      await page.getByText("It has a short link").waitFor();
    },
  },
  { name: "routes", path: "/low-lantern/routes" },
  {
    name: "short-link",
    path: "/low-lantern/routes?q=dob",
    act: async (page) => {
      await page.getByRole("row").filter({ hasText: "/dob" }).first().getByRole("button").first().click();
      await page.getByRole("img", { name: /QR code/ }).waitFor();
    },
  },
  {
    name: "redirect-bench",
    path: "/low-lantern/routes?open=new-redirect&q=blog",
    act: async (page) => {
      await page.getByLabel("Answers", { exact: true }).last().selectOption("wildcard");
      await page.getByRole("textbox", { name: "Address" }).fill("/archive/*");
      await page.getByLabel("Leads to").fill("/calendar/$1");
      await page.getByLabel("Try it before it is saved").fill("/archive/november\n/archive/none\n/links");
      await page.getByText("the page “The November sky”").waitFor();
      await page.getByRole("list", { name: "Where they would end" }).scrollIntoViewIfNeeded();
    },
  },
  { name: "misses", path: "/low-lantern/misses" },
  {
    name: "trace",
    path: "/low-lantern/trace",
    act: async (page) => {
      await page
        .getByLabel("Addresses, one a line")
        .fill(
          "/start-here\nhttp://lntn.localhost:4601/dob\nhttp://lntn.localhost:4601/leak\nhttp://lntn.localhost:4601/round\n/therteen",
        );
      await page.keyboard.press("Control+Enter");
      await page.getByText(/in order,/).waitFor();
    },
  },
  { name: "rules", path: "/low-lantern/rules" },
  { name: "clicks", path: "/low-lantern/clicks?days=14&compare=1" },
  { name: "settings", path: "/low-lantern/settings" },
  { name: "delivered-page", path: "http://lowlantern.localhost:4601/resources" },
  { name: "not-found", path: "http://lowlantern.localhost:4601/calender/november", scheme: "dark" },
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
