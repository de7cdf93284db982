import type { LinkAction } from "../../../core/objects/ledger.ts";
import { filledCreative } from "../../../core/programs/creative-html.ts";
import { readSnippet } from "../../../core/programs/snippet.ts";
import { subIdOf } from "../../../core/rules/partners.ts";
import { fillAddress } from "../../../core/text/variables.ts";
import type { ChangedRow } from "../../../store/ledger-reading.ts";
import type { Desk } from "../../desk.ts";
import { invalid } from "../../problem.ts";
import { openCreative } from "../../programs/creatives.ts";
import type { OpenSite } from "../../sites.ts";
import type { RowChange } from "./plan.ts";

export type CreativeAction = Extract<LinkAction, { do: "creative" }>;

/**
 * Makes ready for bringing the places of a creative up to what a snippet says. A place keeps its label; words that its
 * author changed, or a picture of their own, stay inside it.
 */
export async function creativeChange(
  desk: Desk,
  site: OpenSite,
  { creative: creativeId, html }: CreativeAction,
): Promise<(row: ChangedRow) => RowChange> {
  const { id, read: was, program } = await openCreative(desk, site, creativeId);
  const { trackingId } = program.terms;
  const read = readSnippet(html);
  if (!read.ok) throw invalid([{ path: "html", message: read.reason }]);
  return (row) => {
    const sub = subIdOf(site.partners, fillAddress(row.href, site.variables)) ?? "";
    const now = filledCreative(read.snippet, { id: trackingId, sub }, id);
    if (!now.ok) return { refused: now.reason };
    const before = filledCreative(was, { id: trackingId, sub }, id);
    if (row.href === now.href && before.ok && before.inside === now.inside) return undefined;
    return {
      href: now.href,
      override: row.override,
      inside: {
        do: "put",
        html: now.inside,
        words: read.snippet.picture ? read.snippet.picture.alt : read.snippet.words,
        was: { words: was.words, picture: before.ok ? before.picture : null },
      },
    };
  };
}

/** The links that stand where this creative was put in. */
export async function linksOfCreative(
  desk: Desk,
  site: OpenSite,
  id: string,
  edition: "written" | "readers",
): Promise<string[]> {
  const rows = await desk.store.rows<{ id: string }>(
    "SELECT id::text FROM ledger_links WHERE site_id = $site::bigint AND creative_id = $id::bigint AND edition <> $other",
    { site: site.id, id, other: edition === "written" ? "published" : "draft" },
  );
  return rows.map((row) => row.id);
}
