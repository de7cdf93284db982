import type { Store } from "./store.ts";
import type { Transaction } from "sequelize";

/** Notes in the audit log who did what. */
export function addAuditEntry(
  store: Store,
  of: {
    actor: string;
    site: null | string;
    action: string;
    object: string;
    detail: string;
    request: string | null;
  },
  transaction?: Transaction,
): Promise<object[]> {
  return store.rows(
    "INSERT INTO audit (actor, site_id, action, object, detail, request) VALUES ($actor, $site, $action, $object, $detail::jsonb, $request)",
    of,
    transaction,
  );
}
const ONE_SITTING = "10 minutes";

/** Notes in the audit log that somebody is writing at something, once for each sitting. */
export function addWritingEntry(
  store: Store,
  of: { actor: string; siteId: null | string; action: string; object: string; request: string | null },
  transaction: Transaction,
): Promise<object[]> {
  return store.rows(
    `INSERT INTO audit (actor, site_id, action, object, request) SELECT $actor::text, $siteId::bigint, $action::text, $object::text, $request::text
     WHERE NOT EXISTS (SELECT FROM audit WHERE site_id = $siteId::bigint AND object = $object AND action = $action AND actor = $actor
       AND at > now() - interval '${ONE_SITTING}') RETURNING id`,
    of,
    transaction,
  );
}
