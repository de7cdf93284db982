import type { Store } from "../ground/store.ts";

const MOST = 200;

/** What the audit log has of a route, the newest first. */
export function auditOfRoute(
  store: Store,
  of: { site: string; id: string },
): Promise<
  {
    at: Date;
    by: string;
    action: string;
    fields: Record<string, unknown>;
  }[]
> {
  return store.rows<{
    at: Date;
    by: string;
    action: string;
    fields: Record<string, unknown>;
  }>(
    `SELECT at, actor AS by, action, coalesce(detail->'after', detail) AS fields FROM audit
     WHERE site_id = $site::bigint AND object = $id AND action LIKE 'route.%'
     UNION ALL
     SELECT b.made_at, b.made_by, 'routes.' || (b.action->>'do'), b.action - 'do' FROM route_batches b
     WHERE b.site_id = $site::bigint AND b.before @> jsonb_build_array(jsonb_build_object('id', $id::text))
     ORDER BY 1 DESC LIMIT ${MOST}`,
    of,
  );
}
