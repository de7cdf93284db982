import Papa from "papaparse";
import { z } from "zod";
import { publicAddress } from "../../core/address/public-address.ts";
import { type LedgerFacets, type LedgerFilter, type LedgerLink } from "../../core/ledger/ledger.ts";
import { guardedCell } from "../../core/text/spreadsheet-cell.ts";
import { relTokens } from "../../core/rules/resolve/link-attributes.ts";
import {
  LEDGER_SORTS,
  countFacets,
  groupLedger,
  ledgerIds,
  ledgerRowsById,
  readLedger,
  type LedgerGroupRow,
  type LedgerListRow,
} from "../../store/ledger/ledger-reading.ts";
import { listing, sortedBy } from "../ground/lists.ts";
import { requireFreshLedger } from "./fresh-ledger.ts";
import type { OpenSite } from "../sites/open-site.ts";
import type { WithStore, WithDeliveryPort, WithReport } from "../ground/parts.ts";
import type { WithThread } from "../jobs/desk-thread.ts";
import { cursorOffset, type Listing } from "../../contract/ground/lists.ts";
import { linksQuery, groupsQuery } from "../../contract/ledger.ts";

/** The links of a site as the ledger has them, in the order of pages and their text. */
export async function listLinks(
  desk: WithStore & WithDeliveryPort,
  site: OpenSite,
  query: z.infer<typeof linksQuery>,
): Promise<Listing<LedgerLink>> {
  const { limit, cursor, sort, ...filter } = query;
  sortedBy(sort, LEDGER_SORTS);
  const { rows, total } = await readLedger(desk.store, site.id, filter, {
    sort,
    limit,
    offset: cursorOffset(cursor),
  });
  return listing(
    rows.map((row) => linkView(desk, site, row)),
    total,
    query,
  );
}

/** What a filter leaves, by everything it can be narrowed by. */
export async function linkFacets(
  desk: WithStore,
  site: OpenSite,
  filter: LedgerFilter,
): Promise<LedgerFacets> {
  const rows = await countFacets(desk.store, site.id, filter);
  const of = (facet: string): LedgerFacets["kind"] =>
    rows.filter((row) => row.facet === facet).map(({ value, links }) => ({ value, links }));
  return {
    kind: of("kind"),
    treatment: of("treatment"),
    target: of("target"),
    anchor: of("anchor"),
    place: of("place"),
    host: of("host"),
    rule: of("rule"),
    finding: of("finding"),
    program: of("program"),
  };
}

/** The ledger by host or by page. */
export async function groupLinks(
  desk: WithStore,
  site: OpenSite,
  query: z.infer<typeof groupsQuery>,
): Promise<Listing<LedgerGroupRow>> {
  const { limit, cursor, by, sort: _, ...filter } = query;
  const { rows, total } = await groupLedger(desk.store, site.id, filter, by, {
    limit,
    offset: cursorOffset(cursor),
  });
  return listing(rows, total, query);
}

const MAX_EXPORTED = 500_000;
const EXPORTED_AT_ONCE = 5_000;
const HEAD = [
  "page",
  "anchor",
  "href",
  "destination",
  "host",
  "kind",
  "stored_rel",
  "stored_target",
  "rel",
  "target",
  "treatment",
  "rules",
  "short_link",
  "clicks",
  "findings",
];

/** The ledger as CSV, as far as a filter leaves it. */
export async function exportLinks(
  desk: WithStore & WithDeliveryPort & WithReport & WithThread,
  site: OpenSite,
  filter: LedgerFilter,
): Promise<string> {
  await requireFreshLedger(desk, site);
  const ids = await ledgerIds(desk.store, site.id, filter, MAX_EXPORTED);
  const lines = [HEAD.join(",")];
  for (let from = 0; from < ids.length; from += EXPORTED_AT_ONCE) {
    const rows = await ledgerRowsById(desk.store, site.id, ids.slice(from, from + EXPORTED_AT_ONCE));
    lines.push(Papa.unparse(rows.map((row) => exportedCells(desk, site, row))));
  }
  return `${lines.join("\r\n")}\r\n`;
}

function exportedCells(desk: WithDeliveryPort, site: OpenSite, row: LedgerListRow): string[] {
  const link = linkView(desk, site, row);
  return [
    link.page || link.title,
    link.anchor,
    link.href,
    link.destination,
    link.host,
    link.kind,
    row.stored_rel ?? "",
    row.stored_target ?? "",
    row.rel,
    row.target ?? "",
    link.treatment,
    link.rules.join("; "),
    link.shortLink?.url ?? "",
    link.clicks === null ? "" : String(link.clicks),
    link.findings.join(" "),
  ].map(guardedCell);
}

/** A row as the API answers it. */
export function linkView(desk: WithDeliveryPort, site: OpenSite, row: LedgerListRow): LedgerLink {
  const shortId = row.route_id ?? row.short_id;
  return {
    id: row.id,
    page: row.page,
    pageId: row.pageId,
    title: row.title,
    place: row.place,
    onPages: row.onPages,
    category: row.category,
    edition: row.edition,
    live: row.live,
    ordinal: row.ordinal,
    anchor: row.words,
    anchorKind: row.anchor,
    href: row.href,
    destination: row.ends,
    host: row.host,
    via: row.via,
    kind: row.kind as LedgerLink["kind"],
    stored: { rel: relTokens(row.stored_rel ?? ""), target: row.stored_target },
    delivered: { rel: relTokens(row.rel), target: row.target },
    wanted: row.wanted_rel === null ? null : { rel: relTokens(row.wanted_rel), target: row.wanted_target },
    override: row.override,
    treatment: row.treatment as LedgerLink["treatment"],
    rule: row.rules[0] ?? null,
    rules: row.rules,
    programs: row.programs,
    shortLink:
      row.route_address !== null && shortId !== null
        ? {
            id: shortId,
            url: publicAddress(row.route_host ?? site.primary, row.route_address, desk.deliveryPort),
            used: row.route_id !== null,
          }
        : null,
    health: row.health ?? (row.kind === "broken" ? "dead" : null),
    clicks: row.route_id !== null && row.counted !== false ? (row.clicks ?? 0) : null,
    findings: row.findings as LedgerLink["findings"],
  };
}
