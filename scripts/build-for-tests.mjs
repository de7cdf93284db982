// Before the tests that run what is built: they run two at a time, and never build it themselves.
import { join } from "node:path";
import { buildWhenStale, isBuilt } from "./build.mjs";
import { root } from "./install.mjs";

/** Tests build into a folder of their own, so that a running `npm start` keeps its files. */
export const TEST_BUILD = join(root, ".cache/test-build");
// The application with its demo and what plays the outside, to be started by a test.
const TESTS = { "app-process": "tests/support/app-process.ts" };

/** Throws when what the tests would run is not what the sources say now. */
export async function requireTestBuild() {
  if (!(await isBuilt(TEST_BUILD, TESTS)))
    throw new Error(
      "The build for the tests is of other sources: run `node scripts/build-for-tests.mjs` first.",
    );
}

if (process.argv[1] === import.meta.filename) await buildWhenStale(TEST_BUILD, TESTS);
