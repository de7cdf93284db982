import { rootless } from "../address/host.ts";
import { MAX_ADDRESS_LENGTH } from "../address/address.ts";
import { domainNames } from "../rules/resolve/match.ts";
import { subIdFault } from "./sub-id.ts";
import { encoded, ownParameters, type LinkTemplate, type Piece, type Placeholder } from "./template.ts";

/** What of a program its links are built from. */
export interface LinkTerms {
  name: string;
  template: LinkTemplate;
  trackingId: string;
  /** `shop.example`, or `*.shop.example` for its subdomains. */
  domains: readonly string[];
  /** Characters that a sub-ID may have. */
  subIdLimit: number;
}

export type BuildFault = "address" | "host" | "tracked" | "id" | "placeholder" | "sub-id" | "length";
export type BuiltLink =
  | { ok: true; address: string }
  | { ok: false; code: BuildFault; field: "destination" | "subId" | "program"; reason: string };

// Capitals only, where lower case is usual in addresses: filter[price] is no placeholder.
const LEFT_OVER =
  /\{[\w .-]{1,40}\}|%7B\w{1,40}%7D|\[[A-Z_ -]{2,40}\]|\b(?:YOUR|[Yy]our|INSERT|[Ii]nsert)[-_ ]?(?:\w{2,12}[-_ ]?)?(?:ID|Id|id)\b|\bX{4,}\b/;

/** True when a text holds a placeholder that somebody forgot to fill in. */
export function hasLeftOver(text: string): boolean {
  return LEFT_OVER.test(text);
}

const OURS = /^(?:\{|%7B)(?:id|sub)(?:\}|%7D)$/i;

/** The placeholders of a text that are written in somebody else's way than {id} and {sub}, each once. */
export function foreignPlaceholders(text: string): string[] {
  const all = text.match(new RegExp(LEFT_OVER, "g")) ?? [];
  return [...new Set(all)].filter((one) => !OURS.test(one));
}

/**
 * Builds a program's tracked link to a page of its shop. Refused, with the reason, when the tracking could not work:
 * another host, no tracking ID, a placeholder that was left, an address that is tracked already, a sub-ID too long.
 */
export function buildLink(terms: LinkTerms, destination: string, subId: string): BuiltLink {
  const fault = buildFault(terms, destination, subId);
  if (fault) return { ok: false, ...fault };
  const { template, trackingId } = terms;
  const values: Record<Placeholder, string> = { id: trackingId, sub: subId, destination };
  const address =
    template.style === "wrapper" ? filledWrapper(template, values) : filledParameters(template, values);
  if (address.length > MAX_ADDRESS_LENGTH)
    return {
      ok: false,
      code: "length",
      field: "destination",
      reason: `The link would have ${address.length} characters; more than 2,048 are not carried everywhere.`,
    };
  return { ok: true, address };
}

type Fault = Omit<Extract<BuiltLink, { ok: false }>, "ok">;

function buildFault(terms: LinkTerms, destination: string, subId: string): Fault | undefined {
  const { name, template, trackingId, domains } = terms;
  if (!/[A-Za-z0-9]/.test(trackingId))
    return {
      code: "id",
      field: "program",
      reason: `${name} has no tracking ID yet: the link would earn nothing.`,
    };
  if (!/^https?:\/\//i.test(destination) || !URL.canParse(destination))
    return { code: "address", field: "destination", reason: "Paste the whole web address of the product." };
  if (hasLeftOver(destination) || hasLeftOver(trackingId) || hasLeftOver(subId))
    return {
      code: "placeholder",
      field: hasLeftOver(subId) ? "subId" : hasLeftOver(trackingId) ? "program" : "destination",
      reason: "A placeholder was left in it; put the real value there.",
    };
  const url = new URL(destination);
  if (isTracked(url, template, trackingId))
    return {
      code: "tracked",
      field: "destination",
      reason: `This address is tracked already; paste the plain one of the product, or whoever is named in it is paid.`,
    };
  if (!domainNames(rootless(url.hostname)).some((domain) => domains.includes(domain)))
    return {
      code: "host",
      field: "destination",
      reason: `${url.hostname} does not belong to ${name}, whose links lead to ${domains.slice(0, 3).join(", ")}.`,
    };
  const wrongSub = subIdFault(subId, terms.subIdLimit);
  return wrongSub === undefined ? undefined : { code: "sub-id", field: "subId", reason: wrongSub };
}

const SHORTEST_ID = 4;

// Tracked by the network itself, by the template's own parameters, or by our ID under whatever name.
function isTracked(url: URL, template: LinkTemplate, trackingId: string): boolean {
  if (template.style === "wrapper" && url.host === template.host) return true;
  if (template.style === "parameters" && ownParameters(template).some((one) => url.searchParams.has(one)))
    return true;
  return trackingId.length >= SHORTEST_ID && [...url.searchParams.values()].includes(trackingId);
}

type Wrapper = Extract<LinkTemplate, { style: "wrapper" }>;
type Parameters = Extract<LinkTemplate, { style: "parameters" }>;

function filledWrapper(template: Wrapper, values: Record<Placeholder, string>): string {
  const scheme = /^https?/i.exec(template.text)![0].toLowerCase();
  const path = template.path.map((piece) => encoded(filled(piece, values))).join("/");
  const query = queryOf(template, values);
  return `${scheme}://${template.host}/${path}${query === "" ? "" : `?${query}`}`;
}

// The page's own parameters stay as they are and where they are, a lone ? or & at their end too: what
// was added can be taken off again and nothing else.
function filledParameters(template: Parameters, values: Record<Placeholder, string>): string {
  const [whole, fragment] = splitAt(values.destination, "#");
  const joint = whole.includes("?") ? "&" : "?";
  return `${whole}${joint}${queryOf(template, values)}${fragment}`;
}

function queryOf(template: LinkTemplate, values: Record<Placeholder, string>): string {
  return template.parameters
    .filter(([, piece]) => typeof piece === "string" || piece.holds !== "sub" || values.sub !== "")
    .map(([name, piece]) => `${encoded(name)}=${encoded(filled(piece, values))}`)
    .join("&");
}

function filled(piece: Piece, values: Record<Placeholder, string>): string {
  return typeof piece === "string" ? piece : `${piece.before}${values[piece.holds]}${piece.after}`;
}

/** A text up to a sign, and from it on. */
export function splitAt(text: string, sign: string): [string, string] {
  const at = text.indexOf(sign);
  return at === -1 ? [text, ""] : [text.slice(0, at), text.slice(at)];
}
