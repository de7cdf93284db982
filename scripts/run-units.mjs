// Runs the unit tests named on the command line in one process: each alone would load the same modules again.
import { resolve } from "node:path";
import { pathToFileURL } from "node:url";
import { register } from "tsx/esm/api";

register();
for (const file of process.argv.slice(2)) await import(pathToFileURL(resolve(file)).href);
