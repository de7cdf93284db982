import type { Locator, Page } from "playwright-core";

/** The form that makes or changes a link. */
export const composer = (page: Page): Locator => page.getByRole("form", { name: /link$/ });

/** The rope beside the text. */
export const rope = (page: Page): Locator => page.getByRole("complementary", { name: "Links of this page" });

/** The text that is being written. */
export const textOf = (page: Page): Locator => page.getByRole("textbox", { name: "Text of the page" });

/** Waits until everything written is saved. */
export async function saved(page: Page): Promise<void> {
  await page
    .getByRole("status")
    .getByText(/^Saved/)
    .waitFor();
}

/** Makes a page as a person does, and writes a first paragraph. */
export async function newPage(page: Page, title: string, path: string, text: string): Promise<void> {
  await page.goto("/low-lantern/pages");
  await page.getByRole("button", { name: "New page" }).click();
  await page.waitForURL(/\/pages\/\d+$/);
  await page.getByLabel("Title", { exact: true }).fill(title);
  await page.getByLabel("Path").fill(path);
  await textOf(page).click();
  await page.keyboard.type(text);
}

/** Pastes into the text what a clipboard holds: plain text, or files. */
export async function paste(
  page: Page,
  what: { text?: string; html?: string; files?: { name: string; type: string; base64: string }[] },
): Promise<void> {
  await textOf(page).evaluate((element, { text, html, files }) => {
    const data = new DataTransfer();
    if (text) data.setData("text/plain", text);
    if (html) data.setData("text/html", html);
    for (const { name, type, base64 } of files ?? []) {
      const bytes = Uint8Array.from(atob(base64), (letter) => letter.charCodeAt(0));
      data.items.add(new File([bytes], name, { type }));
    }
    element.dispatchEvent(
      new ClipboardEvent("paste", { clipboardData: data, bubbles: true, cancelable: true }),
    );
  }, what);
}

/** The smallest PNG: one pixel, of a colour so that no two are the same file. */
export function dot(shade: number): { name: string; type: string; base64: string } {
  const png = Buffer.from(
    "iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNkYPhfDwAChwGA60e6kgAAAABJRU5ErkJggg==",
    "base64",
  );
  // Bytes behind the end of the picture are ignored by whoever shows it.
  const bytes = Buffer.concat([png, Buffer.from([shade])]);
  return { name: `dot-${shade}.png`, type: "image/png", base64: bytes.toString("base64") };
}
