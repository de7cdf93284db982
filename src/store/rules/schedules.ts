import type { Store } from "../ground/store.ts";
import type { Transaction } from "sequelize";

export interface ScheduleRow {
  version: number;
  rules: unknown[];
  at: Date;
  made_by: string;
  held: string | null;
}

/** The set of rules that waits for its time. */
export function scheduleOf(store: Store, of: { site: string }): Promise<ScheduleRow[]> {
  return store.rows<ScheduleRow>(
    "SELECT version, rules, at, made_by, held FROM rule_schedules WHERE site_id = $site::bigint",
    of,
  );
}

/** Lets a set of rules come into force at a time; none when the rules in force are of another version. */
export function putSchedule(
  store: Store,
  of: { site: string; version: number; rules: string; at: string; by: string },
  transaction: Transaction,
): Promise<object[]> {
  return store.rows(
    `WITH saved AS (INSERT INTO rule_schedules (site_id, version, rules, at, made_by)
         SELECT $site::bigint, $version::int, $rules::jsonb, $at::timestamptz, $by::text
         WHERE (SELECT coalesce(max(version), 0) FROM rule_sets WHERE site_id = $site::bigint) = $version::int
         ON CONFLICT (site_id) DO UPDATE SET version = excluded.version, rules = excluded.rules, at = excluded.at, made_by = excluded.made_by, held = NULL
         RETURNING version) SELECT version FROM saved`,
    of,
    transaction,
  );
}

/** Lets a waiting set of rules never come into force. */
export function deleteSchedule(
  store: Store,
  of: { site: string },
  transaction: Transaction,
): Promise<object[]> {
  return store.rows("DELETE FROM rule_schedules WHERE site_id = $site::bigint", of, transaction);
}

/** The sets of rules whose time has come; those of a site that rests wait on. */
export function dueSchedules(
  store: Store,
  of: { now: string },
): Promise<(ScheduleRow & { site_id: string })[]> {
  return store.rows<ScheduleRow & { site_id: string }>(
    "SELECT site_id::text, version, rules, at, made_by, held FROM rule_schedules WHERE held IS NULL AND at <= $now::timestamptz AND EXISTS (SELECT FROM sites s WHERE s.id = site_id AND s.archived_at IS NULL)",
    of,
  );
}

/** Takes a waiting set of rules away, where it was made over this version. */
export function deleteScheduleOver(store: Store, of: { site: string; version: number }): Promise<object[]> {
  return store.rows(
    "DELETE FROM rule_schedules WHERE site_id = $site::bigint AND version = $version::int",
    of,
  );
}

/** Marks a set that waits as one that will not come into force by itself: another came before it. */
export function holdSchedule(store: Store, of: { site: string; version: number }): Promise<object[]> {
  return store.rows(
    "UPDATE rule_schedules SET held = 'Another set came into force meanwhile.' WHERE site_id = $site::bigint AND version = $version::int",
    of,
  );
}
