import { join, resolve } from "node:path";
import { giveUp, installPackages, root } from "./install.mjs";

installPackages();
const { buildWhenStale } = await import("./build.mjs");
const built = resolve(root, process.env.MAPROPE_BUILD || "dist");
await buildWhenStale(built).catch((error) => giveUp(error.message));
const { startApp } = await import(join(built, "demo/start.mjs"));
startApp(root);
