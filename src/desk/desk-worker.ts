import { setImmediate as immediate } from "node:timers/promises";
import { parentPort, workerData } from "node:worker_threads";
import { listenForChanges } from "../store/ground/changes.ts";
import { LONG_WORK, openStore } from "../store/ground/store.ts";
import { Stopped, type Progress } from "./jobs/jobs.ts";
import { followAllLedgers } from "./ledger/follow-ledger.ts";
import { Problem } from "./ground/problem.ts";
import type { FromThread, ThreadRequest, ThreadWork, ToThread } from "./jobs/desk-thread.ts";
import { textsHere } from "./pages/texts/read-text.ts";
import type { ThreadDesk } from "./desk.ts";
import { runTask } from "./tasks.ts";

const { databaseUrl, deliveryPort } = workerData as ThreadWork;
const port = parentPort!;
const say = (message: FromThread): void => port.postMessage(message);
const store = openStore(databaseUrl, 6, LONG_WORK);
const core: ThreadDesk = {
  store,
  deliveryPort,
  texts: textsHere,
  report: (message, error) => say({ kind: "report", message, error }),
};
const stopping = new Map<number, AbortController>();

async function run(id: number, request: ThreadRequest): Promise<void> {
  const control = new AbortController();
  stopping.set(id, control);
  const progress: Progress = {
    signal: control.signal,
    async step(done, total) {
      say({ kind: "step", id, done, total });
      await immediate();
      if (control.signal.aborted) throw new Stopped();
    },
  };
  try {
    say({ kind: "done", id, result: await runTask(core, request, progress) });
  } catch (error) {
    const stopped = error instanceof Stopped;
    const problem = error instanceof Problem ? error.parts() : undefined;
    say({ kind: "failed", id, stopped, problem, error: stopped || problem ? undefined : error });
  } finally {
    stopping.delete(id);
  }
}

// The ledger follows whatever changes, one look at a time; what changes during a look makes another one.
const REST_MS = 60;
const LOOK_ANYWAY_MS = 20_000;
let looking: Promise<void> | undefined;
let again = false;
let ended = false;
let failing = false;
let timer: NodeJS.Timeout | undefined;

function follow(): void {
  if (ended) return;
  if (looking) return void (again = true);
  clearTimeout(timer);
  looking = look().finally(() => {
    looking = undefined;
    if (ended) return;
    timer = setTimeout(follow, again ? REST_MS : LOOK_ANYWAY_MS);
    again = false;
  });
}

async function look(): Promise<void> {
  await new Promise((resolve) => setTimeout(resolve, REST_MS));
  try {
    await followAllLedgers(core, () => ended);
    failing = false;
  } catch (error) {
    // Told once for each outage; what was missed is made good by the next look.
    if (!failing && !ended) say({ kind: "report", message: "The ledger could not follow.", error });
    failing = true;
  }
}

const listening = listenForChanges(databaseUrl, follow, () => {});
follow();

async function end(): Promise<void> {
  ended = true;
  clearTimeout(timer);
  for (const control of stopping.values()) control.abort();
  await listening.stop();
  await looking;
  await store.close();
  port.close();
}

port.on("message", (message: ToThread) => {
  if (message.kind === "run") void run(message.id, message);
  else if (message.kind === "stop") stopping.get(message.id)?.abort();
  else void end();
});
