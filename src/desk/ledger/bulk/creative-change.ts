import type { LinkAction } from "../../../core/ledger/ledger.ts";
import { filledCreative } from "../../../core/creatives/creative-html.ts";
import { readSnippet } from "../../../core/creatives/snippet.ts";
import { subIdOf } from "../../../core/rules/partners.ts";
import { decoded } from "../../../core/text/decoded.ts";
import { fillAddress } from "../../../core/text/variables.ts";
import type { ChangedRow } from "../../../store/ledger/ledger-reading.ts";
import { invalid } from "../../ground/problem.ts";
import { openCreative } from "../../creatives/creatives.ts";
import type { OpenSite } from "../../sites/open-site.ts";
import type { RowChange } from "./planned.ts";
import type { WithStore } from "../../ground/parts.ts";
import { ledgerLinksOfCreative } from "../../../store/ledger/found.ts";

export type CreativeAction = Extract<LinkAction, { do: "creative" }>;

/**
 * Makes ready for bringing the places of a creative up to what a snippet says. A place keeps its label; words that its
 * author changed, or a picture of their own, stay inside it.
 */
export async function creativeChange(
  desk: WithStore,
  site: OpenSite,
  { creative: creativeId, html }: CreativeAction,
): Promise<(row: ChangedRow) => RowChange> {
  const { id, read: was, program } = await openCreative(desk, site, creativeId);
  const { trackingId } = program.terms;
  const read = readSnippet(html);
  if (!read.ok) throw invalid([{ path: "html", message: read.reason }]);
  const asWas = filledCreative(was, { id: trackingId, sub: LABEL }, id);
  return (row) => {
    // A creative need not be built as the program's template is: the label is read where the creative itself has it.
    const sub =
      (asWas.ok ? labelIn(row.href, asWas.href) : undefined) ??
      subIdOf(site.partners, fillAddress(row.href, site.variables)) ??
      "";
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

// A sign that no label holds, as it comes out of encoding.
const LABEL = "\u0001";

function labelIn(href: string, pattern: string): string | undefined {
  const [before = "", after, ...more] = pattern.split(encodeURIComponent(LABEL));
  if (after === undefined || more.length > 0 || href.length < before.length + after.length) return undefined;
  if (!href.startsWith(before) || !href.endsWith(after)) return undefined;
  return decoded(href.slice(before.length, href.length - after.length));
}

/** The links that stand where this creative was put in. */
export async function linksOfCreative(
  desk: WithStore,
  site: OpenSite,
  id: string,
  edition: "written" | "readers",
): Promise<string[]> {
  const rows = await ledgerLinksOfCreative(desk.store, {
    site: site.id,
    id,
    other: edition === "written" ? "published" : "draft",
  });
  return rows.map((row) => row.id);
}
