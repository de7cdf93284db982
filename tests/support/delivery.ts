import { NO_PROXY } from "../../src/incoming/proxy-trust.ts";
import { mkdtempSync, rmSync } from "node:fs";
import type { AddressInfo } from "node:net";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { startDelivery, type Delivery, type DeliveryOptions } from "../../src/delivery/ground/delivery.ts";
import { listening, closed } from "../../src/incoming/listening.ts";
import { newestChange } from "../../src/store/ground/changes.ts";
import { openStore } from "../../src/store/ground/store.ts";
import { until } from "./ask.ts";

/** A delivery listener on a port of its own. */
export interface TestDelivery extends Delivery {
  port: number;
  folder: string;
  reports: string[];
  /** Waits until readers get everything that was committed up to now. */
  level(): Promise<void>;
  end(): Promise<void>;
}

/** Starts delivery on a database, with its spool in `folder` or a temporary one. */
export async function testDelivery(
  databaseUrl: string,
  folder = mkdtempSync(join(tmpdir(), "maprope-spool-")),
  {
    port = 0,
    trust = NO_PROXY,
    accessLog,
    judge,
  }: Partial<Pick<DeliveryOptions, "trust" | "accessLog" | "judge">> & { port?: number } = {},
): Promise<TestDelivery> {
  const store = openStore(databaseUrl, 3);
  const reports: string[] = [];
  const delivery = await startDelivery({
    store,
    dataFolder: folder,
    secret: "a secret of the tests",
    deliveryPort: 4601,
    trust,
    accessLog,
    judge,
    report: (message) => reports.push(message),
  });
  await listening(delivery.server, "127.0.0.1", port, "MAPROPE_SITE_PORT");
  return {
    ...delivery,
    port: (delivery.server.address() as AddressInfo).port,
    folder,
    reports,
    async level() {
      const newest = BigInt(await newestChange(store));
      await until("delivery is level with the store", () => BigInt(delivery.lastChange()) >= newest);
    },
    async end() {
      await closed(delivery.server);
      await delivery.stop();
      await store.close();
      rmSync(folder, { recursive: true, force: true });
    },
  };
}
