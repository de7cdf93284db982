import { spawnSync } from "node:child_process";
import { existsSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { installDebian } from "../scripts/install.mjs";

/** What one stretch of load measured; latencies in milliseconds. */
export interface Measured {
  perSecond: number;
  p50: number;
  p99: number;
  errors: number;
}

/** Puts load on a listener with wrk (Debian's package): 64 connections, one thread, all paths in turn. */
export function load(
  folder: string,
  port: number,
  host: string,
  paths: readonly string[],
  seconds: number,
): Measured {
  installDebian(["wrk"], () => existsSync("/usr/bin/wrk"), "wrk, which puts load on the listener,");
  const script = join(folder, "load.lua");
  writeFileSync(
    script,
    `local paths = { ${paths.map((path) => JSON.stringify(path)).join(", ")} }
local at = 0
wrk.headers["Host"] = ${JSON.stringify(host)}
wrk.headers["User-Agent"] = "Mozilla/5.0 (X11; Linux x86_64; rv:140.0) Gecko/20100101 Firefox/140.0"
request = function()
  at = at % #paths + 1
  return wrk.format("GET", paths[at])
end
done = function(summary, latency)
  local errors = summary.errors.connect + summary.errors.read + summary.errors.write + summary.errors.status + summary.errors.timeout
  io.write(string.format("RESULT %f %f %f %d\\n", summary.requests / summary.duration * 1e6, latency:percentile(50) / 1000, latency:percentile(99) / 1000, errors))
end
`,
  );
  const wrk = spawnSync("wrk", ["-t1", "-c64", `-d${seconds}s`, "-s", script, `http://127.0.0.1:${port}/`], {
    encoding: "utf8",
  });
  const [, perSecond, p50, p99, errors] = /RESULT (\S+) (\S+) (\S+) (\d+)/.exec(wrk.stdout) ?? [];
  if (!perSecond) throw new Error(`wrk said: ${wrk.stdout} ${wrk.stderr}`);
  return { perSecond: Number(perSecond), p50: Number(p50), p99: Number(p99), errors: Number(errors) };
}
