import type { BIN_KINDS } from "../../core/sites/choices.ts";
import { containing } from "../ground/like.ts";
import { limitOf } from "../ground/portions.ts";
import type { Store } from "../ground/store.ts";

type Kind = (typeof BIN_KINDS)[number];

/** Something deleted. */
export interface BinRow {
  id: string;
  kind: Kind;
  name: string;
  address: string;
  deletedAt: Date;
  deletedBy: string | null;
  total: string;
}

/** A rule in the bin is told by the version that it is missing from, and its place in the one before: version times this, plus place. */
export const RULES_A_VERSION = 100_000;

// A rule is deleted by a set that has it no more, under its name or another. Creatives of a program that was deleted itself come back with it.
const DELETED = `
  SELECT id, kind, title AS name, CASE kind WHEN 'page' THEN path ELSE '' END AS address, deleted_at, id::text AS object FROM pages
    WHERE site_id = $site::bigint AND deleted_at IS NOT NULL
  UNION ALL SELECT id, 'route', address, coalesce(destination, ''), deleted_at, id::text FROM routes
    WHERE site_id = $site::bigint AND deleted_at IS NOT NULL
  UNION ALL SELECT id, 'file', name, path, deleted_at, id::text FROM files WHERE site_id = $site::bigint AND deleted_at IS NOT NULL
  UNION ALL SELECT id, 'program', name, network, deleted_at, name FROM programs WHERE site_id = $site::bigint AND deleted_at IS NOT NULL
  UNION ALL SELECT c.id, 'creative', c.name, p.name, c.deleted_at, c.name FROM creatives c JOIN programs p ON p.id = c.program_id
    WHERE c.site_id = $site::bigint AND c.deleted_at IS NOT NULL AND p.deleted_at IS NULL
  UNION ALL SELECT id, 'view', name, query, deleted_at, name FROM ledger_views WHERE site_id = $site::bigint AND deleted_at IS NOT NULL
  UNION ALL SELECT v.version::bigint * ${RULES_A_VERSION} + r.place - 1, 'rule', r.rule->>'name', '', v.created_at, v.version::text
    FROM rule_sets v JOIN rule_sets p ON p.site_id = v.site_id AND p.version = v.version - 1,
      LATERAL jsonb_array_elements(p.rules) WITH ORDINALITY AS r (rule, place)
    WHERE v.site_id = $site::bigint AND v.created_at > now() - $days::int * interval '1 day'
      AND NOT EXISTS (SELECT FROM jsonb_array_elements(v.rules) AS n WHERE n->>'name' = r.rule->>'name' OR n - 'name' = r.rule - 'name')
      AND NOT EXISTS (SELECT FROM (SELECT rules FROM rule_sets WHERE site_id = $site::bigint ORDER BY version DESC LIMIT 1) AS t,
        LATERAL jsonb_array_elements(t.rules) AS n WHERE n->>'name' = r.rule->>'name')`;

/** A portion of what was deleted from a site in the last days, the latest first. */
export function binOf(
  store: Store,
  of: { site: string; days: number; kind: Kind | undefined; q: string | undefined },
  portion: { limit: number; offset: number },
): Promise<BinRow[]> {
  return store.rows<BinRow>(
    `SELECT d.id::text, d.kind, d.name, d.address, d.deleted_at AS "deletedAt",
       (SELECT a.actor FROM audit a WHERE a.site_id = $site::bigint AND a.object = d.object
          AND a.action = CASE d.kind WHEN 'block' THEN 'page.delete' WHEN 'creative' THEN 'creative.drop' WHEN 'rule' THEN 'rules.replace'
          ELSE d.kind || '.delete' END
        ORDER BY a.id DESC LIMIT 1) AS "deletedBy",
       count(*) OVER ()::text AS total
     FROM (${DELETED}) AS d WHERE d.deleted_at > now() - $days::int * interval '1 day' AND ($kind::text IS NULL OR d.kind = $kind::text)
       AND ($q::text IS NULL OR d.name ILIKE $q::text OR d.address ILIKE $q::text)
     ORDER BY d.deleted_at DESC, d.id DESC ${limitOf({ ...portion, sort: undefined })}`,
    {
      site: of.site,
      days: of.days,
      kind: of.kind ?? null,
      q: of.q ? containing(of.q) : null,
    },
  );
}
