import Papa from "papaparse";
import { delimiterOf } from "../../text/delimiter.ts";
import type { Route, WrittenRoute } from "../route.ts";
import { NOTICE_SECONDS } from "../choices.ts";
import { guardedCell, readCell } from "../../text/spreadsheet-cell.ts";

/** The columns of the routes' CSV, in their order; the first twelve are the fixed ones of the API. */
export const ROUTE_COLUMNS = [
  "kind",
  "host",
  "match",
  "address",
  "destination",
  "status",
  "query",
  "title",
  "tags",
  "enabled",
  "valid_from",
  "valid_until",
  "aliases",
  "parameters",
  "noindex",
  "nofollow",
  "counted",
  "replaces_page",
  "after_end",
  "end_destination",
  "notice_seconds",
  "notice_text",
  "in_content",
  "content_pages",
] as const;
type Column = (typeof ROUTE_COLUMNS)[number];

/** One route as a file holds it: the fields that stand there, unchecked, and the line they begin on. */
export interface RouteRowRead {
  line: number;
  fields: Record<string, unknown>;
}

/** A whole file, taken apart. */
export interface RouteRowsRead {
  rows: RouteRowRead[];
  /** Column names that mean nothing here. */
  unknown: string[];
  /** Why the file as a whole cannot be read. */
  fault?: string;
}

/** Writes routes as CSV (RFC 4180), one line a route, with a header row. */
export function routesToCsv(routes: Iterable<Route>): string {
  const lines: string[][] = [[...ROUTE_COLUMNS]];
  for (const route of routes) lines.push(ROUTE_COLUMNS.map((column) => guardedCell(cellOf(route, column))));
  return `${Papa.unparse(lines, { newline: "\r\n" })}\r\n`;
}

function cellOf(route: Route, column: Column): string {
  const yes = (value: boolean): string => (value ? "true" : "false");
  switch (column) {
    case "kind":
    case "match":
    case "address":
    case "query":
    case "title":
    case "parameters":
      return route[column];
    case "host":
    case "destination":
      return route[column] ?? "";
    case "status":
      return String(route.status);
    case "tags":
    case "aliases":
      return writeList(route[column]);
    case "enabled":
    case "counted":
      return yes(route[column]);
    case "noindex":
    case "nofollow":
      return yes(route.robots[column]);
    case "replaces_page":
      return yes(route.replacesPage);
    case "valid_from":
      return route.validFrom ?? "";
    case "valid_until":
      return route.validUntil ?? "";
    case "after_end":
      return route.afterEnd;
    case "end_destination":
      return route.endDestination ?? "";
    case "notice_seconds":
      return route.notice ? String(route.notice.seconds) : "";
    case "notice_text":
      return route.notice?.text ?? "";
    case "in_content":
      return route.inContent;
    case "content_pages":
      return writeList(route.contentPages);
  }
}

/**
 * Reads CSV with a header row: comma, semicolon or tab, with or without a byte order mark, quoted as RFC 4180 says.
 * Columns may stand in any order; a missing one takes its default. What the cells mean is checked by the route's schema.
 */
export function readRoutesCsv(text: string): RouteRowsRead {
  const plain = text.replace(/^\uFEFF/, "");
  const parsed = Papa.parse<string[]>(plain, { delimiter: delimiterOf(plain) });
  const [head, ...lines] = parsed.data;
  const names = (head ?? []).map((name) =>
    name
      .trim()
      .toLowerCase()
      .replace(/[\s-]+/g, "_"),
  );
  if (!names.includes("address")) {
    return {
      rows: [],
      unknown: [],
      fault:
        "The first line is to name the columns, and “address” is not among them. The columns are kind, host, match, address, destination, status and so on.",
    };
  }
  const columns = names.map((name) => ROUTE_COLUMNS.find((column) => column === name));
  const rows: RouteRowRead[] = [];
  // Papa counts rows, people count lines: a quoted cell may hold line breaks.
  let line = 2;
  for (const cells of lines) {
    const empty = cells.every((cell) => cell.trim() === "");
    if (!empty) rows.push({ line, fields: fieldsOf(columns, cells.map(readCell)) });
    line +=
      1 + cells.reduce((breaks, cell) => breaks + (cell.includes("\n") ? cell.split("\n").length - 1 : 0), 0);
  }
  return { rows, unknown: names.filter((name, index) => name !== "" && columns[index] === undefined) };
}

// The names of columns hold none of the three: whichever stands between them most often is it.
function fieldsOf(
  columns: readonly (Column | undefined)[],
  cells: readonly string[],
): Record<string, unknown> {
  const cell = (column: Column): string => {
    const index = columns.indexOf(column);
    return index === -1 ? "" : (cells[index] ?? "").trim();
  };
  const text = (column: Column): string | undefined => cell(column) || undefined;
  const list = (column: Column): string[] | undefined =>
    cell(column) === "" ? undefined : readList(cell(column));
  const flag = (column: Column): boolean | string | undefined => {
    const value = cell(column).toLowerCase();
    if (value === "") return undefined;
    if (["true", "yes", "1", "on"].includes(value)) return true;
    return ["false", "no", "0", "off"].includes(value) ? false : `“${value}” is neither true nor false`;
  };
  const seconds = cell("notice_seconds");
  const robots = { noindex: flag("noindex"), nofollow: flag("nofollow") };
  return withoutUndefined({
    kind: text("kind") ?? (cell("status") === "410" ? "gone" : "redirect"),
    host: text("host"),
    match: text("match"),
    address: cell("address"),
    destination: text("destination"),
    status: text("status"),
    query: text("query"),
    title: text("title"),
    tags: list("tags"),
    enabled: flag("enabled"),
    validFrom: text("valid_from"),
    validUntil: text("valid_until"),
    aliases: list("aliases"),
    parameters: text("parameters"),
    robots:
      robots.noindex === undefined && robots.nofollow === undefined ? undefined : withoutUndefined(robots),
    counted: flag("counted"),
    replacesPage: flag("replaces_page"),
    afterEnd: text("after_end"),
    endDestination: text("end_destination"),
    notice:
      seconds === "" && cell("notice_text") === ""
        ? undefined
        : { seconds: seconds === "" ? NOTICE_SECONDS : Number(seconds), text: cell("notice_text") },
    inContent: text("in_content"),
    contentPages: list("content_pages"),
  });
}

// Several in one cell stand between bars or semicolons; where one of these belongs to a text it has a backslash before it.
function writeList(items: readonly string[]): string {
  return items.map((item) => item.replace(/[\\|;]/g, "\\$&")).join(" | ");
}

function readList(cell: string): string[] {
  const items = [""];
  for (let at = 0; at < cell.length; at += 1) {
    const sign = cell[at]!;
    const next = cell[at + 1];
    if (sign === "\\" && next !== undefined && "\\|;".includes(next))
      items[items.length - 1] += cell[(at += 1)]!;
    else if (sign === "|" || sign === ";") items.push("");
    else items[items.length - 1] += sign;
  }
  return items.map((item) => item.trim()).filter(Boolean);
}

function withoutUndefined(fields: Record<string, unknown>): Record<string, unknown> {
  return Object.fromEntries(Object.entries(fields).filter(([, value]) => value !== undefined));
}

/** A route as JSON: what would make it again. */
export function routeToInput(route: Route): WrittenRoute {
  return {
    kind: route.kind,
    host: route.host,
    match: route.match,
    address: route.address,
    destination: route.destination,
    status: route.status as WrittenRoute["status"],
    query: route.query,
    parameters: route.parameters,
    notice: route.notice,
    title: route.title,
    tags: route.tags,
    robots: route.robots,
    counted: route.counted,
    enabled: route.enabled,
    validFrom: route.validFrom,
    validUntil: route.validUntil,
    afterEnd: route.afterEnd,
    endDestination: route.endDestination,
    aliases: route.aliases,
    inContent: route.inContent,
    contentPages: route.contentPages,
    replacesPage: route.replacesPage,
  };
}

/** Reads JSON: a list of routes, or an object that holds one as `routes` or `items`. Lines are counted by entry. */
export function readRoutesJson(text: string): RouteRowsRead {
  let parsed: unknown;
  try {
    parsed = JSON.parse(text.replace(/^\uFEFF/, ""));
  } catch (error) {
    return {
      rows: [],
      unknown: [],
      fault: `This is no JSON: ${error instanceof Error ? error.message : "unreadable"}.`,
    };
  }
  const holder = parsed as { routes?: unknown; items?: unknown };
  const list = Array.isArray(parsed) ? parsed : (holder?.routes ?? holder?.items);
  if (!Array.isArray(list))
    return { rows: [], unknown: [], fault: 'JSON for routes is a list of them, or {"routes": [ … ]}.' };
  const rows = list.map((fields: unknown, index) => ({
    line: index + 1,
    fields: typeof fields === "object" && fields !== null ? { ...fields } : { address: fields },
  }));
  return { rows, unknown: [] };
}
