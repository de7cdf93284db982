import { setPriority } from "node:os";
import { workerData } from "piscina";
import { LONG_WORK, openStore } from "../../store/ground/store.ts";
import { inThread, type InThread } from "../../threads/in-thread.ts";
import { keepClicks } from "./click-keeping.ts";
import { startCopyLoop } from "./copy-loop.ts";
import type { CopyRequest, CopyWork } from "./copying.ts";
import { createSpoolCopier, type Waiting } from "./spool-copier.ts";

// On Linux a priority belongs to the thread that sets it: readers' answers go before copying.
if (process.platform === "linux") setPriority(0, 10);

const { databaseUrl, folder, owner, counter } = workerData as CopyWork;
// Two batches at once, each with a look-up beside its transaction.
const store = openStore(databaseUrl, 4, LONG_WORK);
const copier = createSpoolCopier(store, folder, owner);
const written = new BigUint64Array(counter);

async function work(request: CopyRequest, { signal, report }: InThread): Promise<Waiting> {
  if (request === "copy") {
    const keeping = keepClicks(store);
    const loop = startCopyLoop(
      copier,
      () => Number(Atomics.load(written, 0)),
      () => keeping.turn(Date.now()),
      report,
    );
    if (!signal.aborted)
      await new Promise((resolve) => signal.addEventListener("abort", resolve, { once: true }));
    await loop.stop();
  }
  const pending = await copier.pending();
  if (request === "copy") await store.close();
  return pending;
}

export default inThread(work);
