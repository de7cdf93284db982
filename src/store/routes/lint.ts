import { badHealth } from "../trace/bad-health.ts";
import type { LintedRoute } from "../../core/routes/linted.ts";
import type { MatchKind } from "../../core/routes/match/match-kind.ts";
import type { Store } from "../ground/store.ts";

export interface LintRow {
  id: string;
  kind: LintedRoute["kind"];
  host: string | null;
  match: MatchKind;
  address: string;
  destination: string | null;
  keys: string[];
  bad: string | null;
}

/** All routes of a site as the linter reads them. */
export function routesToLint(store: Store, of: { site: string }): Promise<LintRow[]> {
  return store.rows<LintRow>(
    `SELECT r.id::text, r.kind, r.host, r.match, r.address, r.destination, array_agg(a.key) AS keys,
         max(CASE WHEN h.destination = r.destination AND ${badHealth("h.verdict")} THEN h.note END) AS bad
       FROM routes r JOIN route_addresses a ON a.route_id = r.id LEFT JOIN route_health h ON h.route_id = r.id
       WHERE r.site_id = $site::bigint AND r.deleted_at IS NULL AND r.enabled GROUP BY r.id ORDER BY r.id`,
    of,
  );
}
