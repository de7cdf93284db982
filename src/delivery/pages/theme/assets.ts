import { createRequire } from "node:module";
import { readFileSync } from "node:fs";
import { dirname, join } from "node:path";
import { representationOf, type Representation } from "../../ground/sending/representation.ts";

/** The style sheet and font of delivered pages, by the path they are asked for. `/~theme/` is never a page's. */
export function loadThemeAssets(): ReadonlyMap<string, Representation> {
  const literata = dirname(
    createRequire(import.meta.url).resolve("@fontsource-variable/literata/package.json"),
  );
  const now = Date.now();
  return new Map([
    [
      "/~theme/site.css",
      representationOf("text/css; charset=utf-8", readFileSync(new URL("./site.css", import.meta.url)), now),
    ],
    [
      "/~theme/literata.woff2",
      representationOf(
        "font/woff2",
        readFileSync(join(literata, "files/literata-latin-wght-normal.woff2")),
        now,
      ),
    ],
  ]);
}
