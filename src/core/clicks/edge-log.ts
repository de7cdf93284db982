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

const FIELDS = 12;

/** Reads a line without its newline, each byte a sign; undefined for one that is torn or of another format. */
export function readEdgeLine(line: string): EdgeClick | undefined {
  const fields = line.split("\t");
  const [mark, msec = "", site = "", route = "", method = "", address = ""] = fields;
  if (mark !== MARK || fields.length !== FIELDS) return undefined;
  if (!/^\d{1,12}\.\d{3}$/.test(msec) || !/^\d{1,18}$/.test(site) || !/^\d{1,18}$/.test(route))
    return undefined;
  const texts = fields.slice(6).map(unescaped);
  if (texts.includes(undefined) || !/^[A-Z]{1,20}$/.test(method) || address === "") return undefined;
  const [secPurpose, purpose, xPurpose, xMoz, referrer, userAgent] = texts as string[];
  return {
    at: Number(msec.replace(".", "")),
    site,
    route,
    method,
    address,
    purpose: secPurpose! || purpose! || xPurpose! || xMoz!,
    referrer: referrer!,
    userAgent: userAgent!,
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
