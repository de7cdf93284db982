import { createRequire } from "node:module";
import { readFileSync } from "node:fs";
import { dirname, join } from "node:path";

/** A file of the site's look, held in memory. */
export interface ThemeAsset {
  type: string;
  body: Buffer;
}

/** The style sheet and font of delivered pages, by the path they are asked for. `/~theme/` is never a page's. */
export function loadThemeAssets(): ReadonlyMap<string, ThemeAsset> {
  const literata = dirname(
    createRequire(import.meta.url).resolve("@fontsource-variable/literata/package.json"),
  );
  return new Map([
    [
      "/~theme/site.css",
      { type: "text/css; charset=utf-8", body: readFileSync(new URL("./site.css", import.meta.url)) },
    ],
    [
      "/~theme/literata.woff2",
      { type: "font/woff2", body: readFileSync(join(literata, "files/literata-latin-wght-normal.woff2")) },
    ],
  ]);
}
