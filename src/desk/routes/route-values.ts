import { compareKey } from "../../core/address/compare.ts";
import { splitOwnAddress } from "../../core/ground/fields.ts";
import type { RouteInput } from "../../core/routes/route.ts";
import { NOTICE_SECONDS } from "../../core/routes/choices.ts";
import { highestCapture } from "../../core/routes/match/captures.ts";
import type { RouteRow } from "../../store/ground/models.ts";
import { invalid, type FieldError } from "../ground/problem.ts";
import type { OpenSite } from "../sites/open-site.ts";
import { usualRoute } from "../../core/sites/usual-route.ts";

/** Every field of a route that is written; the rest is the store's own. */
export type RouteValues = Omit<
  RouteRow,
  "id" | "siteId" | "version" | "createdAt" | "updatedAt" | "deletedAt" | "countedFrom" | "clicksBefore"
>;

const DEFAULT_NOTICE = { seconds: NOTICE_SECONDS, text: "" };

/** Every field of a route from what was handed in, its defaults filled in; throws what cannot be, at its field. */
export function normalizeRoute(site: OpenSite, input: RouteInput): RouteValues {
  const { values, errors } = completion(site, input);
  if (errors.length > 0) throw invalid(errors);
  return values;
}

/** The same without throwing: for imports, which name what is wrong with each line. */
export function completion(site: OpenSite, input: RouteInput): { values: RouteValues; errors: FieldError[] } {
  const gone = input.kind === "gone";
  const usual = usualRoute(site.defaults, input.kind);
  const status = input.status ?? (input.notice ? 200 : usual.status);
  const destination = gone ? null : (input.destination ?? null);
  const match = input.match ?? "exact";
  const afterEnd = input.afterEnd ?? (input.endDestination ? "destination" : "nothing");
  const inContent = input.inContent ?? "nowhere";
  const values: RouteValues = {
    kind: input.kind,
    host: input.host ?? null,
    match,
    address: input.address,
    aliases: input.aliases ?? [],
    destination,
    destinationKey: destination && compareKey(destination),
    status,
    query: input.query ?? usual.query,
    parameters: input.parameters ?? "",
    notice: status === 200 ? (input.notice ?? DEFAULT_NOTICE) : null,
    title: input.title ?? "",
    tags: [...new Set(input.tags ?? [])],
    noindex: input.robots?.noindex ?? usual.noindex,
    nofollow: input.robots?.nofollow ?? usual.nofollow,
    counted: input.counted ?? true,
    enabled: input.enabled ?? true,
    replacesPage: input.replacesPage ?? false,
    validFrom: input.validFrom ? new Date(input.validFrom) : null,
    validUntil: input.validUntil ? new Date(input.validUntil) : null,
    afterEnd,
    endDestination: afterEnd === "destination" ? (input.endDestination ?? null) : null,
    inContent,
    contentPages: inContent === "pages" ? (input.contentPages ?? []) : [],
    search: "",
  };
  values.search = searchText(values);
  return { values, errors: impossible(site, input, values) };
}

/** What a route is found by when it is searched for. */
export function searchText(
  values: Pick<RouteValues, "address" | "aliases" | "title" | "destination">,
): string {
  return [values.address, ...values.aliases, values.title, values.destination ?? ""].join(" ").toLowerCase();
}

function impossible(site: OpenSite, input: RouteInput, values: RouteValues): FieldError[] {
  const errors: FieldError[] = [];
  const refuse = (when: boolean, path: string, message: string): void => {
    if (when) errors.push({ path, message });
  };
  const gone = values.kind === "gone";
  refuse(
    values.host !== null && !site.answeringHosts.includes(values.host),
    "host",
    `${values.host} is no host of this site. Its hosts are ${site.answeringHosts.join(", ")}.`,
  );
  refuse(
    gone !== (values.status === 410),
    "status",
    gone
      ? "A gone route answers 410."
      : "410 is for routes of kind “gone”; choose 301, 302, 303, 307, 308 or the notice page (200).",
  );
  refuse(
    !gone && values.destination === null,
    "destination",
    "The destination is missing: where shall readers arrive?",
  );
  refuse(
    Boolean(input.notice) && values.status !== 200,
    "notice",
    "Only the notice page (status 200) has a notice.",
  );
  refuse(
    values.validFrom !== null && values.validUntil !== null && values.validFrom >= values.validUntil,
    "validUntil",
    "The end is not after the beginning.",
  );
  refuse(
    values.afterEnd === "destination" && values.endDestination === null,
    "endDestination",
    "Where shall readers arrive after the end?",
  );
  refuse(
    values.endDestination !== null && highestCapture(values.endDestination) > 0,
    "endDestination",
    "What follows after the end has no captures; write it out.",
  );
  refuse(
    values.match !== "exact" && values.aliases.length > 0,
    "aliases",
    "Only exact addresses have other spellings; a prefix, wildcard or pattern says itself what it answers.",
  );
  refuse(
    values.inContent !== "nowhere" && (values.match !== "exact" || gone),
    "inContent",
    "Only a route with one address and a destination can stand in content.",
  );
  return errors;
}

/** An address that was typed with one of our hosts in front is taken apart before it is checked, and brings that host along. */
export function withOwnHost<T extends { address?: unknown; host?: unknown; match?: unknown }>(
  site: OpenSite,
  input: T,
): T {
  if (typeof input.address !== "string") return input;
  const { host, path } = splitOwnAddress(input.address, site.hostNames, input.match === "pattern");
  return { ...input, address: path, ...(host ? { host } : {}) };
}

/** All of a stored route that somebody wrote: as it is shown, and as it would be handed in again. */
export function writtenOf(row: RouteRow) {
  return {
    kind: row.kind,
    host: row.host,
    match: row.match,
    address: row.address,
    aliases: row.aliases,
    destination: row.destination,
    status: row.status,
    query: row.query,
    parameters: row.parameters,
    notice: row.notice,
    title: row.title,
    tags: row.tags,
    robots: { noindex: row.noindex, nofollow: row.nofollow },
    counted: row.counted,
    enabled: row.enabled,
    replacesPage: row.replacesPage,
    validFrom: row.validFrom?.toISOString() ?? null,
    validUntil: row.validUntil?.toISOString() ?? null,
    afterEnd: row.afterEnd,
    endDestination: row.endDestination,
    inContent: row.inContent,
    contentPages: row.contentPages,
  } satisfies RouteInput;
}
