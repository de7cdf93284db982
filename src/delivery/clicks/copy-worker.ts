import { setPriority } from "node:os";
import { parentPort, workerData } from "node:worker_threads";
import { LONG_WORK, openStore } from "../../store/ground/store.ts";
import { keepClicks } from "./click-keeping.ts";
import { startCopyLoop } from "./copy-loop.ts";
import type { CopyWork, FromCopyWorker, ToCopyWorker } from "./copying.ts";
import { createSpoolCopier } from "./spool-copier.ts";

// On Linux a priority belongs to the thread that sets it: readers' answers go before copying.
if (process.platform === "linux") setPriority(0, 10);

const { databaseUrl, folder, owner, counter } = workerData as CopyWork;
const port = parentPort!;
const say = (message: FromCopyWorker): void => port.postMessage(message);

// Two batches at once, each with a look-up beside its transaction.
const store = openStore(databaseUrl, 4, LONG_WORK);
const copier = createSpoolCopier(store, folder, owner);
const written = new BigUint64Array(counter);
const keeping = keepClicks(store);
const loop = startCopyLoop(
  copier,
  () => Number(Atomics.load(written, 0)),
  () => keeping.turn(Date.now()),
  (message, error) => say({ kind: "report", message, error }),
);

port.on("message", (message: ToCopyWorker) => {
  if (message.kind === "pending") {
    copier.pending().then(
      (records) => say({ kind: "pending", id: message.id, records }),
      (error: unknown) => say({ kind: "failed", id: message.id, error }),
    );
    return;
  }
  void loop
    .stop()
    .then(() => store.close())
    .finally(() => port.close());
});
