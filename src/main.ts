#!/usr/bin/env node
import { existsSync } from "node:fs";
import { join } from "node:path";
import { OPERATOR_HELP, REWRITE_HELP } from "./cli/help.ts";
import { maprope } from "./cli/maprope.ts";
import { terminalOf } from "./cli/terminal.ts";

const here = import.meta.dirname;
// Bundled, this lies in `app` beside the workspace's `server` and `client`; from its sources, the build is in `dist`.
const build = existsSync(join(here, "../server/entry.mjs")) ? join(here, "..") : join(here, "../dist");

const [command, ...others] = process.argv.slice(2);
if (command === "serve" && others.length === 0) {
  const { serveCommand } = await import("./server/serve-command.ts");
  // What is left running by a library keeps nobody waiting.
  process.exit(await serveCommand(process.cwd(), build, process.env));
}
if (command !== undefined && command !== "rewrite" && command !== "--version") {
  const { operatorCommand } = await import("./server/operating/operator-command.ts");
  const status = await operatorCommand(command, others, process.cwd(), process.env);
  if (status !== undefined) process.exit(status);
}
const { versionAbove } = await import("./server/version.ts");
process.exitCode = await maprope(
  process.argv.slice(2),
  terminalOf({ version: versionAbove(here), help: `${OPERATOR_HELP}\n${REWRITE_HELP}` }),
);
