import type { Outgoing } from "../../outgoing/outgoing.ts";
import type { Store } from "../../store/ground/store.ts";
import type { Seal } from "./seal.ts";

// What the desk's functions are given, a member each: a function's parameter names those that it uses, joined by `&`,
// and nobody is handed more than that. Parts that belong to a subject stand there (WithJobs, WithThread, WithTexts).

export interface WithStore {
  store: Store;
}

export interface WithDeliveryPort {
  /** Port of the delivery listener, for the public addresses of `.localhost` hosts. */
  deliveryPort: number;
}

export interface WithWorkspaceHosts {
  /** Hosts of the workspace itself, with port: links to them are warned about. */
  workspaceHosts: readonly string[];
}

export interface WithOutgoing {
  /** Asks outside addresses. */
  outgoing: Outgoing;
}

export interface WithReport {
  /** Tells whoever runs this of a failure that the request at hand does not fail by. */
  report(message: string, error: unknown): void;
}

export interface WithSeal {
  /** Locks up credentials, with a key that stands outside the database. */
  seal: Seal;
}
