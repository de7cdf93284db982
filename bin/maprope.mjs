#!/usr/bin/env node
// In a checkout: what runs an installation is what `npm run build` made, where it did; everything else, and that until
// then, runs from the sources. (A packed build has no sources, and runs dist/app/maprope.mjs itself.)
import { existsSync } from "node:fs";

const built = new URL("../dist/app/maprope.mjs", import.meta.url);
if (process.argv[2] === "serve" && existsSync(built)) {
  await import(built.href);
} else {
  const { register } = await import("tsx/esm/api");
  register();
  await import("../src/main.ts");
}
