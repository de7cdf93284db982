import type { Store } from "../ground/store.ts";
import type { Transaction } from "sequelize";

/** Notes that a report was brought in. */
export function addReportImport(
  store: Store,
  of: { site: string; network: string; rows: number; created: number; changed: number; by: string },
  transaction: Transaction,
): Promise<object[]> {
  return store.rows(
    "INSERT INTO report_imports (site_id, network, rows, created, changed, made_by) VALUES ($site::bigint, $network, $rows, $created, $changed, $by)",
    of,
    transaction,
  );
}

/** Lets PostgreSQL look over the conversions, after many came at once. */
export function analyzeConversions(store: Store, transaction: Transaction): Promise<object[]> {
  return store.rows("ANALYZE conversions", {}, transaction);
}
