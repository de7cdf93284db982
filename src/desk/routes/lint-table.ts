import { lintRoutes } from "../../core/routes/lint.ts";
import type { MatchKind } from "../../core/routes/match/match-kind.ts";
import { closestAddresses, closestMatch } from "../../core/misses/closest.ts";
import { badHealth } from "../trace/bad-health.ts";
import { knownAddresses } from "../misses/known-addresses.ts";
import type { OpenSite } from "../sites/open-site.ts";
import type { LintedRoute, LintFinding } from "../../core/routes/linted.ts";
import type { WithStore, WithDeliveryPort } from "../ground/parts.ts";

interface LintRow {
  id: string;
  kind: LintedRoute["kind"];
  host: string | null;
  match: MatchKind;
  address: string;
  destination: string | null;
  keys: string[];
  bad: string | null;
}

const MAX_REPAIRED = 200;

/** What is to be said of the whole table of switched-on routes, gravest first. */
export async function lintTable(
  desk: WithStore & WithDeliveryPort,
  site: OpenSite,
): Promise<{ findings: LintFinding[]; routes: number }> {
  const { store } = desk;
  const [rows, pages, files, known] = await Promise.all([
    store.rows<LintRow>(
      `SELECT r.id::text, r.kind, r.host, r.match, r.address, r.destination, array_agg(a.key) AS keys,
         max(CASE WHEN h.destination = r.destination AND ${badHealth("h.verdict")} THEN h.note END) AS bad
       FROM routes r JOIN route_addresses a ON a.route_id = r.id LEFT JOIN route_health h ON h.route_id = r.id
       WHERE r.site_id = $site::bigint AND r.deleted_at IS NULL AND r.enabled GROUP BY r.id ORDER BY r.id`,
      { site: site.id },
    ),
    store.rows<{ key: string; title: string }>(
      `SELECT published_key AS key, published->>'title' AS title FROM pages
       WHERE site_id = $site::bigint AND kind = 'page' AND deleted_at IS NULL AND published_key IS NOT NULL`,
      { site: site.id },
    ),
    store.rows<{ path: string }>(
      "SELECT path FROM files WHERE site_id = $site::bigint AND deleted_at IS NULL",
      {
        site: site.id,
      },
    ),
    knownAddresses(desk, site),
  ]);
  const titles = new Map(pages.map(({ key, title }) => [key, title]));
  const paths = new Set(files.map(({ path }) => path));
  let repaired = 0;
  const findings = lintRoutes(
    rows.map(({ bad, ...route }) => ({ ...route, ...(bad ? { answersBadly: bad } : {}) })),
    {
      hosts: site.hostNames,
      primary: site.primary,
      pageAt: (key) => titles.get(key),
      hasFile: (key) => paths.has(key),
      // Looking for what was meant compares with every address: the first dead ends are enough for one reading.
      closest: (key) =>
        (repaired += 1) > MAX_REPAIRED
          ? undefined
          : closestMatch(closestAddresses(key, known.get(site.primary) ?? [], 2))?.address,
    },
  );
  const gravity = { error: 0, warning: 1, hint: 2 };
  return {
    findings: findings.sort((a, b) => gravity[a.severity] - gravity[b.severity]),
    routes: rows.length,
  };
}
