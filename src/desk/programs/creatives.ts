import { compareKey } from "../../core/address/compare.ts";
import type { Creative, CreativeInput } from "../../core/objects/creative.ts";
import { filledCreative } from "../../core/programs/creative-html.ts";
import { readSnippet, type ReadSnippet } from "../../core/programs/snippet.ts";
import { audit, type Actor, type Desk } from "../desk.ts";
import { invalid, notFound } from "../problem.ts";
import type { OpenSite } from "../sites.ts";
import { openProgram } from "./programs.ts";
import type { ProgramRow } from "../../store/programs.ts";

interface CreativeRow {
  id: string;
  name: string;
  html: string;
  read: ReadSnippet;
  version: number;
}

/** The creatives of a program, by name, each filled from its account and with the pages that use it. */
export async function listCreatives(desk: Desk, site: OpenSite, programId: string): Promise<Creative[]> {
  const program = await openProgram(desk, site, programId);
  const rows = await desk.store.rows<CreativeRow>(
    "SELECT id::text, name, html, read, version FROM creatives WHERE program_id = $program::bigint AND deleted_at IS NULL ORDER BY lower(name), id",
    { program: program.id },
  );
  const views = rows.map((row) => viewOf(row, program));
  const uses = await usesOf(desk, site, views.flatMap(({ filled }) => (filled ? compareKey(filled.href) : []))); // prettier-ignore
  return views.map((view) => ({
    ...view,
    uses: view.filled ? (uses.get(compareKey(view.filled.href)) ?? []) : [],
  }));
}

/** Keeps a snippet as a creative of the program, whole as it was pasted. */
export async function keepCreative(
  desk: Desk,
  actor: Actor,
  site: OpenSite,
  programId: string,
  { name, html }: CreativeInput,
): Promise<Creative> {
  const program = await openProgram(desk, site, programId);
  const read = readSnippet(html);
  if (!read.ok) throw invalid([{ path: "html", message: read.reason }]);
  const [row] = await desk.store.rows<CreativeRow>(
    `WITH made AS (INSERT INTO creatives (site_id, program_id, name, html, read) VALUES ($site::bigint, $program::bigint, $name, $html, $read::jsonb) RETURNING *)
     SELECT id::text, name, html, read, version FROM made`,
    { site: site.id, program: program.id, name, html, read: JSON.stringify(read.snippet) },
  );
  await audit(desk, actor, { siteId: site.id, action: "creative.keep", object: name });
  return viewOf(row!, program);
}

/** Takes a creative away, or brings it back; places that use it keep their link. */
export async function setCreativeDeleted(
  desk: Desk,
  actor: Actor,
  site: OpenSite,
  id: string,
  deleted: boolean,
): Promise<void> {
  const [row] = await desk.store.rows<{ name: string }>(
    `WITH changed AS (UPDATE creatives SET deleted_at = CASE WHEN $deleted THEN now() END
       WHERE id = $id::bigint AND site_id = $site::bigint AND (deleted_at IS NULL) = $deleted RETURNING name) SELECT name FROM changed`,
    { id: /^\d{1,18}$/.test(id) ? id : "0", site: site.id, deleted },
  );
  if (!row) throw notFound("This creative");
  await audit(desk, actor, {
    siteId: site.id,
    action: deleted ? "creative.drop" : "creative.restore",
    object: row.name,
  });
}

function viewOf({ id, name, html, read, version }: CreativeRow, { terms }: ProgramRow): Creative {
  const filled = filledCreative(read, { id: terms.trackingId, sub: "" });
  const { kind, href, words, picture, pixel, leftOut } = read;
  return {
    id, name, html, kind, href, words, picture, pixel, leftOut, version, uses: [],
    filled: filled.ok ? { href: filled.href, html: filled.html } : null,
    fault: filled.ok ? null : filled.reason,
  }; // prettier-ignore
}

async function usesOf(
  desk: Desk,
  site: OpenSite,
  keys: readonly string[],
): Promise<Map<string, Creative["uses"]>> {
  const rows = await desk.store.rows<{ key: string; page: string; title: string }>(
    `SELECT DISTINCT l.destination_key AS key, s.page_id::text AS page, s.title FROM ledger_links l JOIN ledger_sources s ON s.id = l.source_id
     WHERE l.site_id = $site::bigint AND l.destination_key = ANY($keys::text[]) ORDER BY s.title`,
    { site: site.id, keys },
  );
  const uses = new Map<string, Creative["uses"]>();
  for (const { key, page, title } of rows) uses.set(key, [...(uses.get(key) ?? []), { page, title }]);
  return uses;
}
