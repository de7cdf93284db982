import assert from "node:assert/strict";
import { after, before, describe, test } from "node:test";
import { Secret, TOTP } from "otpauth";
import { DEMO_SECOND_SIGN_IN } from "../../demo/people.ts";
import { until } from "../support/ask.ts";
import { assertAccessible, testApp, type TestApp } from "../support/browser.ts";

let app: TestApp;
before(async () => {
  app = await testApp();
});
after(() => app.stop());

describe("a second factor", () => {
  test("is set up with an app, asked for at the door, and a recovery code stands in for it", async () => {
    const { context, page } = await app.signedIn("tobias");
    await page.goto("/low-lantern/account");
    const begin = page.getByRole("form", { name: "Set up a second factor" });
    await begin.getByLabel(/the password that you have/).fill(DEMO_SECOND_SIGN_IN.password);
    await page.keyboard.press("Enter");
    const confirm = page.getByRole("form", { name: "Confirm the second factor" });
    await page.getByRole("img", { name: /^QR code/ }).waitFor();
    await assertAccessible(page, "the second factor");
    const secret = (await confirm.locator("code").innerText()).replaceAll(" ", "");
    const codes = new TOTP({ secret: Secret.fromBase32(secret) });
    await confirm.getByLabel("The code that it shows").fill("000000");
    await page.keyboard.press("Enter");
    await confirm.getByText(/^That code is not the one of now/).waitFor();
    await confirm
      .getByLabel("The code that it shows")
      .fill(codes.generate({ timestamp: Date.now() - 30_000 }));
    await page.keyboard.press("Enter");
    const shown = page.getByRole("status").getByRole("listitem");
    await shown.first().waitFor();
    const recovery = await shown.allInnerTexts();
    assert.equal(recovery.length, 10);

    const stranger = await app.browser.newContext({ baseURL: app.workspace });
    const door = await stranger.newPage();
    await door.goto("/sign-in");
    await door.getByLabel("Mail address").fill(DEMO_SECOND_SIGN_IN.email);
    await door.getByLabel("Password").fill(DEMO_SECOND_SIGN_IN.password);
    await door.keyboard.press("Enter");
    const code = door.getByLabel("Code");
    await door.getByText(/^Type the code that your app shows/).waitFor();
    await assertAccessible(door, "the door with a code");
    await code.fill("123456");
    await door.keyboard.press("Enter");
    await door.getByText(/^That code is not the one of now/).waitFor();
    await code.fill(recovery[0]!);
    await door.keyboard.press("Enter");
    await door.waitForURL(/\/low-lantern\/pages$/);
    await stranger.close();
    await context.close();
  });
});

describe("the bin", () => {
  test("gives back what was deleted, at another address where its own was taken", async () => {
    const { context, page } = await app.signedIn();
    const headers = { Origin: app.workspace };
    const api = "/api/v1/sites/low-lantern";
    const made = async (title: string): Promise<string> => {
      const data = { path: "/in-the-bin", title, html: "<p>words</p>", publish: true };
      const response = await page.request.post(`${api}/pages`, { headers, data });
      assert.equal(response.status(), 201);
      return ((await response.json()) as { id: string }).id;
    };
    const id = await made("What was thrown away");
    await page.request.delete(`${api}/pages/${id}`, { headers });
    await made("What stands there now");
    await page.goto("/low-lantern/routes");
    await page.getByRole("button", { name: "Low Lantern" }).press("ArrowDown");
    await page.getByRole("menuitem", { name: "Bin" }).click();
    await page.waitForURL(/\/bin$/);
    const bring = page.getByRole("button", { name: "Restore What was thrown away" });
    await bring.click();
    const address = page.getByLabel("Another address for What was thrown away");
    await address.waitFor();
    await assertAccessible(page, "the bin");
    await address.fill("/out-of-the-bin");
    await page.keyboard.press("Enter");
    await page.getByText("What was thrown away is back.").waitFor();
    await bring.waitFor({ state: "detached" });

    await page.goto("/low-lantern/history");
    const row = page.getByRole("row", { name: /restored the page What was thrown away/ });
    await row.getByRole("button", { name: "What was thrown away" }).click();
    await page.getByText("of one object").waitFor();
    const rows = page.getByRole("table", { name: "History" }).getByRole("rowheader");
    await until("nothing else is listed", async () => {
      const told = await rows.allInnerTexts();
      return told.length > 2 && told.every((one) => one.endsWith("What was thrown away"));
    });
    await assertAccessible(page, "the history");
    await context.close();
  });
});
