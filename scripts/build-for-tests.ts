import { join } from "node:path";
import { buildWhenStale } from "./build.ts";
import { root } from "./install.mjs";

/** Tests build into a folder of their own, so that a running `npm start` keeps its files. */
export const TEST_BUILD = join(root, ".cache/test-build");

buildWhenStale(TEST_BUILD);
