import Papa from "papaparse";
import type { z } from "zod";
import type { FileAnswer } from "../../contract/ground/call.ts";
import { cursorOffset, type Listing } from "../../contract/ground/lists.ts";
import type { historyQuery } from "../../contract/history.ts";
import type { HistoryEntry } from "../../core/sites/history.ts";
import { guardedCell } from "../../core/text/spreadsheet-cell.ts";
import { historyOf, type HistoryFilter, type HistoryRow } from "../../store/sites/history.ts";
import { canPutBack } from "./put-back.ts";
import { listing } from "../ground/lists.ts";
import type { WithStore } from "../ground/parts.ts";
import type { OpenSite } from "./open-site.ts";

type Query = z.output<typeof historyQuery>;

/** A CSV has at most so many entries; who needs more asks by time. */
const MAX_EXPORTED = 100_000;
const DAY_MS = 86_400_000;

/** What was done to a site, the latest first. */
export async function listHistory(
  desk: WithStore,
  site: OpenSite,
  query: Query,
): Promise<Listing<HistoryEntry>> {
  const portion = { limit: query.limit, offset: cursorOffset(query.cursor) };
  const rows = await historyOf(desk.store, site.id, filterOf(query), portion);
  return listing(rows.map(entryView), Number(rows[0]?.total ?? 0), query);
}

/** The same as CSV. */
export async function exportHistory(
  desk: WithStore,
  site: OpenSite,
  query: Omit<Query, "limit" | "cursor">,
): Promise<FileAnswer & { content: string }> {
  const rows = await historyOf(desk.store, site.id, filterOf(query), { limit: MAX_EXPORTED, offset: 0 });
  const cells = rows.map(({ at, person, action, object, name, detail, requestId }) =>
    [at.toISOString(), person, action, object, name ?? "", JSON.stringify(detail), requestId ?? ""].map(
      guardedCell,
    ),
  );
  const head = ["at", "person", "action", "object", "name", "detail", "request"];
  return {
    name: `${site.key}-history.csv`,
    content: `${Papa.unparse([head, ...cells], { newline: "\r\n" })}\r\n`,
  };
}

function filterOf({ object, action, person, from, to }: Omit<Query, "limit" | "cursor">): HistoryFilter {
  return {
    object,
    action,
    person,
    from: from === undefined ? undefined : new Date(from),
    // A day is meant with all that was done in it.
    to: to === undefined ? undefined : new Date(Date.parse(to) + (/^\d{4}-\d\d-\d\d$/.test(to) ? DAY_MS : 0)),
  };
}

function entryView({ at, detail, total: _, ...row }: HistoryRow): HistoryEntry {
  const { before = null, after = null, ...more } = detail;
  return {
    ...row,
    at: at.toISOString(),
    before,
    after,
    detail: more,
    canPutBack: canPutBack({ action: row.action, before }),
  };
}
