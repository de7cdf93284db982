#!/usr/bin/env node
// The command for scripts on another machine, packed by itself (scripts/pack.mjs --command): it rewrites, and runs nothing.
import { readFileSync } from "node:fs";
import { join } from "node:path";
import { REWRITE_HELP } from "./cli/help.ts";
import { maprope } from "./cli/maprope.ts";
import { terminalOf } from "./cli/terminal.ts";

const { version } = JSON.parse(readFileSync(join(import.meta.dirname, "package.json"), "utf8")) as {
  version: string;
};
process.exitCode = await maprope(process.argv.slice(2), terminalOf({ version, help: REWRITE_HELP }));
