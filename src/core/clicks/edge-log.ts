/** The name of the log format of an edge, and what stands at the beginning of each of its lines. */
export const EDGE_LOG = "maprope_clicks";
const MARK = "mr1";

/**
 * The `log_format` of nginx in which an edge writes its clicks down: tabs between fields, each escaped as a JSON string is.
 * Of the reader it holds the address, which leaves no trace once the visitor's key is made.
 */
export const EDGE_LOG_FORMAT = `log_format ${EDGE_LOG} escape=json '${[
  MARK,
  "$msec",
  "$maprope_site",
  "$maprope_route",
  "$request_method",
  "$remote_addr",
  "$http_sec_purpose",
  "$http_purpose",
  "$http_x_purpose",
  "$http_x_moz",
  "$http_referer",
  "$http_user_agent",
].join("\\t")}';`;

/** One counted answer of an edge. */
export interface EdgeClick {
  /** Milliseconds since 1970, by the edge's clock. */
  at: number;
  site: string;
  route: string;
  method: string;
  address: string;
  purpose: string;
  referrer: string;
  userAgent: string;
}

// One expression for the whole line: splitting it and checking each field took several times as long.
const LINE = new RegExp(
  `^${MARK}\\t(\\d{1,12})\\.(\\d{3})\\t(\\d{1,18})\\t(\\d{1,18})\\t([A-Z]{1,20})\\t([^\\t]+)${"\\t([^\\t]*)".repeat(6)}$`,
);

/** Reads a line without its newline, each byte a sign; undefined for one that is torn or of another format. */
export function readEdgeLine(line: string): EdgeClick | undefined {
  const field = LINE.exec(line);
  if (!field) return undefined;
  const isEscaped = line.includes("\\");
  // Quotes are escaped where nginx wrote them.
  if (!isEscaped && line.includes('"')) return undefined;
  const referrer = isEscaped ? unescaped(field[11]!) : field[11];
  const userAgent = isEscaped ? unescaped(field[12]!) : field[12];
  const purpose = field[7]! || field[8]! || field[9]! || field[10]!;
  if (referrer === undefined || userAgent === undefined) return undefined;
  return {
    at: Number(field[1]! + field[2]!),
    site: field[3]!,
    route: field[4]!,
    method: field[5]!,
    address: field[6]!,
    purpose,
    referrer,
    userAgent,
  };
}

function unescaped(text: string): string | undefined {
  if (!text.includes("\\")) return text.includes('"') ? undefined : text;
  try {
    return JSON.parse(`"${text}"`) as string;
  } catch {
    return undefined;
  }
}
