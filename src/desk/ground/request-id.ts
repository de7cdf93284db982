import { AsyncLocalStorage } from "node:async_hooks";

const requests = new AsyncLocalStorage<string>();

/** Does the work of a request: whatever it notes or refuses on the way is known by the request's id. */
export function withRequestId<T>(id: string | undefined, work: () => T): T {
  return id === undefined ? work() : requests.run(id, work);
}

/** The id of the request that is being worked on; undefined outside of one. */
export function requestId(): string | undefined {
  return requests.getStore();
}
