import { build } from "esbuild";
import type { Browser, Page } from "playwright-core";

const BARE = `
import { Editor } from "@tiptap/core";
import { bodyExtensions } from "./src/core/pages/body/extensions.ts";
new Editor({
  element: document.querySelector("main"),
  extensions: bodyExtensions,
  content: document.querySelector("template").innerHTML,
  editorProps: { attributes: { role: "textbox", "aria-label": "Text of the page" } },
});
`;

/** The editor that the writing view stands on, with our schema and nothing else, on a text: the yardstick for a key. */
export async function openBareEditor(browser: Browser, html: string): Promise<Page> {
  const { outputFiles } = await build({
    stdin: { contents: BARE, resolveDir: process.cwd(), loader: "ts" },
    bundle: true,
    format: "iife",
    minify: true,
    write: false,
    define: { "process.env.NODE_ENV": '"production"' },
  });
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
  const page = await context.newPage();
  await page.setContent(
    `<!doctype html><style>main { max-width: 44rem; font: 16px/1.6 sans-serif }</style><main></main><template>${html}</template>`,
  );
  await page.addScriptTag({ content: outputFiles[0]!.text });
  return page;
}
