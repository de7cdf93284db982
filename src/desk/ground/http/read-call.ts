import { namesVersion, USUAL_BODY, type Call } from "../../../contract/ground/call.ts";
import type { Actor } from "../../../core/people/actor.ts";
import { onSite, reaches, roleOn } from "../../../core/people/roles.ts";
import type { Desk } from "../../desk.ts";
import { withOwnHost } from "../../routes/route-values.ts";
import { noSite, openSite, type OpenSite } from "../../sites/open-site.ts";
import { checked, Problem } from "../problem.ts";
import { versionAsked } from "./conditional.ts";
import type { Asked } from "./handler.ts";
import { jsonOf, readBytes, requireJson } from "./read-body.ts";
import { readHeaders, type CallHeaders } from "./read-headers.ts";
import { readParameters, readQuery } from "./read-query.ts";

/** From so many bytes on, working on a text would hold up those who ask for something else. */
const LONG_BODY = 100_000;

/** A call as it was read: what its handler is asked, and what the dispatcher needs of it. */
export interface ReadCall {
  asked: Asked<Call, Desk>;
  /** How long it waits rather than get what was, in milliseconds. */
  timeoutMs: number;
  headers: CallHeaders;
  /** The version that `If-Match` asks for. */
  ifMatch: number | undefined;
  /** Its body as it came. */
  bytes: Uint8Array;
}

/** Reads what a request asks for, each part by its schema. Throws a Problem that says what is wrong, and nothing of it to who may not make the call. */
export async function readCall(
  call: Call,
  desk: Desk,
  request: Request,
  actor: Actor,
  inPath: Readonly<Record<string, string | undefined>>,
): Promise<ReadCall> {
  // Who may not make a call at all is told nothing of what is wrong with it.
  if (!call.path.startsWith("/sites/:site")) refuseOthers(call, actor);
  const params = readParameters(call.params, inPath);
  const site = params.site === undefined ? undefined : await siteOf(desk, params.site, actor);
  const acting = site ? onSite(actor, site.id) : actor;
  refuseOthers(call, acting);
  if (site?.archivedAt && call.method !== "GET" && call.role !== "reader" && !call.ofResting)
    throw resting(site);
  const headers = readHeaders(request.headers);
  const query = readQuery(call.asked, new URL(request.url).searchParams);
  const contentType = headers["content-type"];
  if (call.bytes) refuseOther(call.bytes.media, contentType);
  if (call.body) requireJson(contentType);
  const most = call.bytes?.max ?? (call.body && (call.maxBody ?? USUAL_BODY));
  const bytes = most === undefined ? new Uint8Array() : await readBytes(request, most);
  const ifMatch = versionAsked(headers["if-match"] ?? null);
  return {
    asked: {
      desk,
      actor: acting,
      site: site as never,
      params,
      query: query as never,
      body: (call.body ? bodyOf(call, jsonOf(bytes), site, ifMatch) : undefined) as never,
      bytes: call.bytes ? bytes : new Uint8Array(),
      contentType,
      isLong: Number(request.headers.get("content-length") ?? Infinity) > LONG_BODY,
      background: headers.prefer.background,
      now: Date.now(),
    },
    timeoutMs: headers.prefer.timeoutMs,
    headers,
    ifMatch,
    bytes,
  };
}

function bodyOf(call: Call, json: unknown, site: OpenSite | undefined, ifMatch: number | undefined): unknown {
  let input = json;
  if (site && call.takesHost && isObject(input)) input = withOwnHost(site, input);
  // What If-Match says need not be said again.
  if (ifMatch !== undefined && namesVersion(call) && isObject(input)) input = { version: ifMatch, ...input };
  return checked(call.body!, input);
}

// A site that one may not come into is, for whoever asks, not there.
async function siteOf(desk: Desk, idOrKey: string, actor: Actor): Promise<OpenSite> {
  const site = await openSite(desk, idOrKey);
  if (roleOn(actor, site.id) === null) throw noSite(idOrKey);
  return site;
}

// What anybody who has signed in may ask of the installation, a reader's role is said of.
function refuseOthers({ role }: Call, actor: Actor): void {
  if (reaches(actor.role, role) || (role === "reader" && actor.sites !== undefined)) return;
  throw new Problem(403, "Not allowed", `This needs the role ${role}; yours is ${actor.role ?? "none"}.`);
}

function resting({ name }: OpenSite): Problem {
  return new Problem(
    409,
    "This site is archived",
    `${name} is archived: readers get what they got, and nothing is changed. Reopen it first, under “Settings”.`,
  );
}

function refuseOther(media: readonly string[], contentType: string): void {
  const given = contentType.split(";")[0]!.trim().toLowerCase();
  const kind = /^application\/[\w.+-]+\+json$/.test(given) ? "application/json" : given;
  if (kind === "" || media.includes("*/*") || media.includes(kind)) return;
  throw new Problem(415, "Unsupported media type", `This takes ${media.join(", ")}; not ${given}.`);
}

function isObject(value: unknown): value is Record<string, unknown> {
  return typeof value === "object" && value !== null && !Array.isArray(value);
}
