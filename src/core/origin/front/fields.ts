/** Fields that are of one connection, whatever `Connection` says (RFC 9110 section 7.6.1, and what browsers send of old). */
const OF_CONNECTION: ReadonlySet<string> = new Set([
  "connection",
  "keep-alive",
  "proxy-connection",
  "proxy-authenticate",
  "proxy-authorization",
  "te",
  "trailer",
  "transfer-encoding",
  "upgrade",
]);

/** Names and values by turns, as they stand in a message. */
export type RawFields = readonly string[];

/** The value of a field, those of several joined by commas (RFC 9110 section 5.3); undefined where there is none. */
export function fieldOf(fields: RawFields, name: string): string | undefined {
  let found: string | undefined;
  for (let at = 0; at + 1 < fields.length; at += 2)
    if (isName(fields[at]!, name))
      found = found === undefined ? fields[at + 1]! : `${found}, ${fields[at + 1]!}`;
  return found;
}

/** Fields as they may go on to the next connection: without those of this one and those that `Connection` names. */
export function endToEnd(fields: RawFields): string[] {
  const named = fieldOf(fields, "connection");
  const dropped =
    named === undefined || isUsualConnection(named)
      ? OF_CONNECTION
      : new Set([
          ...OF_CONNECTION,
          ...named
            .toLowerCase()
            .split(",")
            .map((one) => one.trim()),
        ]);
  return without(fields, dropped);
}

/** Fields without those of these names, in lower case. */
export function without(fields: RawFields, names: ReadonlySet<string>): string[] {
  const kept: string[] = [];
  for (let at = 0; at + 1 < fields.length; at += 2)
    if (!names.has(fields[at]!.toLowerCase())) kept.push(fields[at]!, fields[at + 1]!);
  return kept;
}

/** Who asked, as the next server is told. */
export interface Forwarding {
  /** The reader's address; that of whoever handed the request to us; whether what they say of who asked may be believed. */
  address: string;
  peer: string;
  isBelieved: boolean;
  host: string;
  isSecure: boolean;
  /** Our name in `Via` (RFC 9110 section 7.6.3). */
  pseudonym: string;
}

const TOLD_BEFORE: ReadonlySet<string> = new Set([
  "forwarded",
  "x-forwarded-for",
  "x-forwarded-proto",
  "x-forwarded-host",
  "x-real-ip",
]);

/**
 * The fields of a request as the origin gets them: those of the reader's that go on, with who asked (RFC 7239, and the
 * fields of old that most systems read) and by which way. What a reader writes there themselves is not handed on.
 */
export function requestFields(
  fields: RawFields,
  { address, peer, isBelieved, host, isSecure, pseudonym }: Forwarding,
): string[] {
  const before = isBelieved ? fieldOf(fields, "x-forwarded-for") : undefined;
  const forwardedBefore = isBelieved ? fieldOf(fields, "forwarded") : undefined;
  const via = fieldOf(fields, "via");
  const proto = isSecure ? "https" : "http";
  // To a list that is believed, each adds who handed it on (RFC 7239 section 5.2).
  const from = forwardedBefore === undefined ? address : peer;
  const node = from.includes(":") ? `"[${from}]"` : from;
  const own = `for=${node};host="${host.replace(/["\\]/g, "")}";proto=${proto}`;
  const kept = without(endToEnd(fields), new Set([...TOLD_BEFORE, "via", "expect"]));
  kept.push("Forwarded", forwardedBefore === undefined ? own : `${forwardedBefore}, ${own}`);
  kept.push("X-Forwarded-For", before === undefined ? address : `${before}, ${peer}`);
  kept.push("X-Forwarded-Proto", proto, "X-Forwarded-Host", host);
  kept.push("Via", via === undefined ? `1.1 ${pseudonym}` : `${via}, 1.1 ${pseudonym}`);
  return kept;
}

/** True where a request has come through us before: our name stands in its `Via`. */
export function hasPassed(fields: RawFields, pseudonym: string): boolean {
  const via = fieldOf(fields, "via");
  return via !== undefined && via.split(",").some((hop) => hop.trim().split(/\s+/)[1] === pseudonym);
}

/** The fields of an answer as the reader gets them. */
export function answerFields(fields: RawFields, pseudonym: string): string[] {
  const via = fieldOf(fields, "via");
  const kept = via === undefined ? endToEnd(fields) : without(endToEnd(fields), VIA);
  kept.push("Via", via === undefined ? `1.1 ${pseudonym}` : `${via}, 1.1 ${pseudonym}`);
  return kept;
}

const VIA: ReadonlySet<string> = new Set(["via"]);

function isName(name: string, lower: string): boolean {
  return name.length === lower.length && (name === lower || name.toLowerCase() === lower);
}

function isUsualConnection(value: string): boolean {
  return /^(?:keep-alive|close)$/i.test(value.trim());
}

/** Fields as pairs of name and value. */
export function pairsOf(fields: RawFields): [string, string][] {
  const pairs: [string, string][] = [];
  for (let at = 0; at + 1 < fields.length; at += 2) pairs.push([fields[at]!, fields[at + 1]!]);
  return pairs;
}
