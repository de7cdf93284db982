#!/usr/bin/env node
// Plain JavaScript: tsx is registered before the TypeScript behind it.
import { register } from "tsx/esm/api";

register();
const { maprope } = await import("../src/cli/maprope.ts");
process.exitCode = await maprope(process.argv.slice(2), process);
