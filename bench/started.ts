import { spawn, type ChildProcess } from "node:child_process";

/** A process that listens, once it has said so. */
export interface Started {
  child: ChildProcess;
  port: number;
  /** Seconds from the start of the process until it was ready. */
  seconds: number;
}

/** Starts a program of ours that says `ready on PORT`. Throws when it ends before. */
export function startProcess(args: readonly string[]): Promise<Started> {
  const began = performance.now();
  const child = spawn(process.execPath, ["--import", "tsx", ...args], {
    stdio: ["ignore", "pipe", "inherit"],
  });
  return new Promise((resolve, reject) => {
    child.stdout.on("data", (chunk) => {
      const ready = /ready on (\d+)/.exec(String(chunk));
      if (ready) resolve({ child, port: Number(ready[1]), seconds: (performance.now() - began) / 1000 });
    });
    child.once("exit", (code) => reject(new Error(`${args[0]} ended with ${code}`)));
  });
}
