import type pg from "pg";
import { to as copyTo } from "pg-copy-streams";
import type { Transaction } from "sequelize";
import { fieldOf } from "../ground/copy-text.ts";
import type { RouteStatus } from "../../core/routes/choices.ts";
import type { DeliveredMore, DeliveredRoute } from "./delivered-route.ts";

/** SQL of the settings that few routes have, of a route r; null for the others. */
export const MORE_OF_ROUTE = `CASE WHEN r.query = 'drop' AND r.parameters = '' AND r.notice IS NULL AND NOT r.noindex AND NOT r.nofollow AND NOT r.replaces_page
      AND r.valid_from IS NULL AND r.valid_until IS NULL AND r.in_content = 'nowhere' THEN NULL
    ELSE json_build_object('query', r.query, 'parameters', r.parameters, 'notice', r.notice, 'noindex', r.noindex, 'nofollow', r.nofollow,
      'replacesPage', r.replaces_page, 'validFrom', r.valid_from, 'validUntil', r.valid_until, 'afterEnd', r.after_end, 'endDestination', r.end_destination,
      'inContent', r.in_content, 'contentPages', r.content_pages::text[], 'destinationKey', r.destination_key, 'address', r.address) END`;

// One line for each address, those of a route one after the other: no aggregate, no sort, whatever the number.
const COPY = `COPY (SELECT r.id, r.site_id, r.kind = 'short', r.host, r.status, r.counted, a.key, r.destination, ${MORE_OF_ROUTE}
  FROM routes r JOIN route_addresses a ON a.route_id = r.id WHERE r.deleted_at IS NULL AND r.enabled ORDER BY r.id) TO STDOUT`;

const TAB = 9;
const NEWLINE = 10;
const BACKSLASH = 92;

/**
 * Reads all routes of all sites for delivery, by COPY: a million rows as objects of the query layer took 40 s and
 * left twice the table behind as garbage; as bytes they take a quarter of that (measured by
 * `npm run bench -- redirects`). Each text is cut out of the bytes as a string of its own: one that were a slice
 * would keep its whole portion alive.
 */
export async function streamRoutes(
  transaction: Transaction,
  take: (route: DeliveredRoute) => void,
): Promise<void> {
  const { connection } = transaction as Transaction & { connection: pg.Client };
  const source = connection.query(copyTo(COPY));
  let rest: Buffer = Buffer.alloc(0);
  let open: DeliveredRoute | undefined;
  const line = (buffer: Buffer, start: number, end: number): void => {
    const cut = fieldsOf(buffer, start, end);
    const key = textAt(buffer, cut, 6)!;
    const id = textAt(buffer, cut, 0)!;
    if (open?.id === id) return void open.keys.push(key);
    if (open) take(open);
    open = routeOf(buffer, cut, id, key);
  };
  for await (const chunk of source as AsyncIterable<Buffer>) {
    const buffer = rest.length === 0 ? chunk : Buffer.concat([rest, chunk]);
    let start = 0;
    for (let end = buffer.indexOf(NEWLINE); end !== -1; end = buffer.indexOf(NEWLINE, start)) {
      line(buffer, start, end);
      start = end + 1;
    }
    rest = buffer.subarray(start);
  }
  if (open) take(open);
}

// Where each field begins; the last entry is the end of the line and one more.
function fieldsOf(buffer: Buffer, start: number, end: number): number[] {
  const cut = [start];
  for (let at = start; at < end; at += 1) if (buffer[at] === TAB) cut.push(at + 1);
  cut.push(end + 1);
  return cut;
}

function routeOf(buffer: Buffer, cut: readonly number[], id: string, key: string): DeliveredRoute {
  const more = textAt(buffer, cut, 8);
  return {
    id,
    siteId: textAt(buffer, cut, 1)!,
    caseInsensitive: textAt(buffer, cut, 2) === "t",
    host: textAt(buffer, cut, 3),
    status: Number(textAt(buffer, cut, 4)) as RouteStatus,
    counted: textAt(buffer, cut, 5) === "t",
    keys: [key],
    destination: textAt(buffer, cut, 7),
    more: more === null ? null : (JSON.parse(more) as DeliveredMore),
  };
}

// A field of COPY's text format; \N is null. Nearly all are plain ASCII without a backslash.
function textAt(buffer: Buffer, cut: readonly number[], field: number): string | null {
  const start = cut[field]!;
  const end = cut[field + 1]! - 1;
  let plain = true;
  for (let at = start; at < end; at += 1) {
    const byte = buffer[at]!;
    if (byte === BACKSLASH || byte > 127) {
      plain = false;
      break;
    }
  }
  if (plain) return buffer.toString("latin1", start, end);
  return fieldOf(buffer.toString("utf8", start, end));
}
