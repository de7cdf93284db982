import type { Store } from "../ground/store.ts";

/** A route, and the program that it was last known to lead to. */
export interface RouteAndProgram {
  route: string;
  destination: string | null;
  program: string | null;
  tracking: string | null;
  subId: string | null;
}

/** The outside destinations of these routes of a site, or of all of them. */
export function routesAndPrograms(
  store: Store,
  siteId: string,
  only: readonly string[] | undefined,
): Promise<RouteAndProgram[]> {
  return store.rows<RouteAndProgram>(
    `SELECT r.id::text AS route, r.destination, p.program_id::text AS program, p.tracking, p.sub_id AS "subId"
     FROM routes r LEFT JOIN program_routes p ON p.route_id = r.id
     WHERE r.site_id = $siteId::bigint AND (p.route_id IS NOT NULL OR r.destination LIKE 'http%')
       ${only ? "AND r.id = ANY($only::bigint[])" : ""}`,
    { siteId, ...(only ? { only } : {}) },
  );
}

/** Writes which program these routes lead to now; null: none. */
export async function replaceProgramRoutes(
  store: Store,
  siteId: string,
  changed: readonly Omit<RouteAndProgram, "destination">[],
): Promise<void> {
  if (changed.length === 0) return;
  await store.transaction(async (transaction) => {
    const rows = JSON.stringify(changed);
    await store.rows(
      `DELETE FROM program_routes p USING jsonb_to_recordset($rows::jsonb) AS c (route bigint) WHERE p.route_id = c.route`,
      { rows },
      transaction,
    );
    // Whoever deletes a route or a program meanwhile has the last word.
    await store.rows(
      `INSERT INTO program_routes (route_id, site_id, program_id, tracking, sub_id)
       SELECT c.route, $siteId::bigint, c.program, c.tracking, c."subId"
       FROM jsonb_to_recordset($rows::jsonb) AS c (route bigint, program bigint, tracking text, "subId" text)
       JOIN routes r ON r.id = c.route JOIN programs p ON p.id = c.program
       ON CONFLICT (route_id) DO UPDATE SET program_id = excluded.program_id, tracking = excluded.tracking, sub_id = excluded.sub_id`,
      { siteId, rows },
      transaction,
    );
  });
}

/** The routes whose destinations lead to a program. */
export function routesOfProgram(store: Store, of: { programId: string }): Promise<{ id: string }[]> {
  return store.rows<{ id: string }>(
    "SELECT route_id::text AS id FROM program_routes WHERE program_id = $programId::bigint AND tracking = 'ours'",
    of,
  );
}
