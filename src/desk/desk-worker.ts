import { workerData } from "piscina";
import { LONG_WORK, openStore } from "../store/ground/store.ts";
import { inThread, type InThread } from "../threads/in-thread.ts";
import { crossing, type Crossing } from "./ground/crossing.ts";
import { withRequestId } from "./ground/request-id.ts";
import { followChanges } from "./ledger/follow-changes.ts";
import { textsHere } from "./pages/texts/read-text.ts";
import type { ThreadRequest, ThreadWork } from "./start-desk-thread.ts";
import { runTask } from "./tasks.ts";

const { databaseUrl, deliveryPort } = workerData as ThreadWork;
const store = openStore(databaseUrl, 6, LONG_WORK);

async function work(request: ThreadRequest, progress: InThread): Promise<Crossing<unknown>> {
  const { report } = progress;
  const desk = { store, deliveryPort, texts: textsHere, report };
  if (request === "follow") {
    await followChanges(desk, progress.signal);
    await store.close();
    return { result: null };
  }
  return crossing(() => withRequestId(request.request, () => runTask(desk, request, progress)));
}

export default inThread(work);
