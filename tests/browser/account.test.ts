import assert from "node:assert/strict";
import { after, before, describe, test } from "node:test";
import { DEMO_SECOND_SIGN_IN } from "../../demo/people.ts";
import { assertAccessible, testApp, type TestApp } from "../support/browser.ts";

let app: TestApp;
before(async () => {
  app = await testApp();
});
after(() => app.stop());

describe("one's own account", () => {
  test("reached from the menu; a weak password is told why, a new one ends the session elsewhere", async () => {
    const here = await app.signedIn("tobias");
    const there = await app.signedIn("tobias");
    const { page } = here;
    await page.goto("/low-lantern/routes");
    await page.getByRole("button", { name: "Low Lantern" }).press("ArrowDown");
    await page.getByRole("menuitem", { name: "Your account" }).click();
    await page.waitForURL(/\/account$/);
    const sessions = page.getByRole("table", { name: "Sessions" });
    await sessions.getByText("this one").waitFor();
    assert.equal(await sessions.getByRole("button", { name: /^End/ }).count(), 1);
    await assertAccessible(page, "the account");
    const form = page.getByRole("form", { name: "Your password" });
    const current = form.getByLabel("The password that you have");
    const fresh = form.getByLabel("The new one");
    await current.fill("not this one");
    await fresh.fill("a rope made of moonlight");
    await form.getByRole("button", { name: "Change it" }).click();
    await form.getByText("That is not your password.").waitFor();
    assert.equal(await fresh.inputValue(), "a rope made of moonlight");
    await current.fill(DEMO_SECOND_SIGN_IN.password);
    await fresh.fill("password1234");
    await form.getByRole("button", { name: "Change it" }).click();
    await form.getByText(/^This is too easy to guess/).waitFor();
    await fresh.fill("a rope made of moonlight");
    await page.keyboard.press("Enter");
    await page.getByText("Your password is changed; one other session has ended.").waitFor();
    await sessions.getByRole("button", { name: /^End/ }).waitFor({ state: "detached" });
    assert.equal((await there.page.request.get("/api/v1/me")).status(), 401);
    assert.equal((await page.request.get("/api/v1/me")).status(), 200);
    await page.getByLabel("Mail address").fill("tobias@elsewhere.example");
    await page.getByRole("form", { name: "Who you are" }).getByRole("button", { name: "Save" }).click();
    await page.getByText(/Type the password that you have/).waitFor();
    await Promise.all([here.context.close(), there.context.close()]);
  });
});
