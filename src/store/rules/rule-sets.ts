import type { RuleSetRow } from "../ground/models.ts";
import type { Store } from "../ground/store.ts";
import type { Transaction } from "sequelize";

/** The version of the rules in force; 0 while there are none. */
export function newestRules(
  store: Store,
  of: { site: string },
  transaction: Transaction,
): Promise<{ version: number }[]> {
  return store.rows<{ version: number }>(
    "SELECT coalesce(max(version), 0) AS version FROM rule_sets WHERE site_id = $site::bigint",
    of,
    transaction,
  );
}

/** Adds a set of rules over the version that it was made on; none when another came before it. */
export function addRuleSet(
  store: Store,
  of: { site: string; next: number; version: number; rules: string; by: string },
  transaction: Transaction,
): Promise<{ version: number }[]> {
  return store.rows<{ version: number }>(
    `WITH saved AS (INSERT INTO rule_sets (site_id, version, rules, created_by)
         SELECT $site::bigint, $next::int, $rules::jsonb, $by::text
         WHERE (SELECT coalesce(max(version), 0) FROM rule_sets WHERE site_id = $site::bigint) = $version::int
         ON CONFLICT DO NOTHING RETURNING version) SELECT version FROM saved`,
    of,
    transaction,
  );
}
export const MAX_LISTED = 200;
export interface VersionRow {
  version: number;
  rules: unknown[];
  created_by: string;
  created_at: Date;
}

/** The newest sets of rules, one more than are listed. */
export function newestRuleSets(store: Store, of: { site: string }): Promise<VersionRow[]> {
  return store.rows<VersionRow>(
    `SELECT version, rules, created_by, created_at FROM rule_sets WHERE site_id = $site::bigint ORDER BY version DESC LIMIT ${MAX_LISTED + 1}`,
    of,
  );
}

/** The set of rules of a version, and the one in force. */
export function ruleSetVersions(store: Store, of: { site: string; version: string }): Promise<VersionRow[]> {
  return store.rows<VersionRow>(
    "SELECT version, rules, created_by, created_at FROM rule_sets WHERE site_id = $site::bigint AND version = $version::int",
    of,
  );
}

/** The rules in force of a site, as they are stored; undefined while there are none. */
export async function latestRuleSet(store: Store, siteId: string): Promise<RuleSetRow | undefined> {
  return (await store.ruleSets.findOne({ where: { siteId }, order: [["version", "DESC"]] })) ?? undefined;
}
