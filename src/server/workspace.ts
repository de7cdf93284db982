import { randomUUID } from "node:crypto";
import { createServer, type IncomingMessage, type Server, type ServerResponse } from "node:http";
import { join } from "node:path";
import { pathToFileURL } from "node:url";
import { constants } from "node:zlib";
import compression from "compression";
import sirv from "sirv";
import { problemResponse } from "../desk/ground/http/responses.ts";
import { createApi, type ApiLimits } from "./api.ts";
import type { Desk } from "../desk/desk.ts";
import { readJson } from "../desk/ground/http/read-body.ts";
import { WORKSPACE_HEADERS } from "./workspace-headers.ts";
import { SPECULATION } from "./speculation.ts";
import { movedScreen } from "./moved-screens.ts";
import { withRequestId } from "../desk/ground/request-id.ts";
import type { Watched } from "./watched.ts";
import type { ProxyTrust } from "../incoming/proxy-trust.ts";
import { personOfSession, signIn, signOut } from "../desk/people/people.ts";
import { lookAtLink, takeLink } from "../desk/people/links.ts";
import { actorOfToken } from "../desk/people/tokens.ts";
import { mailReset } from "../desk/people/mail-links.ts";
import { linkLookSchema, linkTakeSchema, resetInputSchema } from "../core/people/person.ts";
import { checked, Problem } from "../desk/ground/problem.ts";
import { listSites } from "../desk/sites/sites.ts";
import type { Actor } from "../core/people/actor.ts";

/** What the screens and endpoints of the workspace are given with each request, as `Astro.locals`. */
export interface WorkspaceLocals {
  actor: Actor | undefined;
  /** Session token of the request, when it came with one, and the cookie that it comes in. */
  session: string | undefined;
  cookie: string;
  /** People reach the workspace by https. */
  secure: boolean;
  /** Reads a body of at most so many bytes as JSON; throws what `refusal` answers. */
  json(request: Request, most: number): Promise<unknown>;
  call(request: Request, actor: Actor | undefined): Promise<Response>;
  bearer(token: string): Promise<Actor | undefined>;
  signIn: (input: { email: string; password: string }) => ReturnType<typeof signIn>;
  signOut(token: string): Promise<void>;
  problem: (status: number, title: string, detail: string) => Response;
  refusal(error: unknown): Response;
  /** What a link that somebody holds is for; with a password, it is taken up. Throws what `refusal` answers. */
  link(input: unknown): Promise<object>;
  /** Mails somebody a link for a new password. Throws what `refusal` answers. */
  reset(input: unknown): Promise<void>;
  hasMail: boolean;
  sites: () => ReturnType<typeof listSites>;
  health: () => Promise<Record<string, unknown>>;
  /** What browsers fetch before it is gone to. */
  speculation: string;
}

type AstroHandler = (
  request: IncomingMessage,
  response: ServerResponse,
  next: (error?: unknown) => void,
  locals: object,
) => Promise<void>;

const NOT_FOUND = "/404";
const METHODS: ReadonlySet<string> = new Set(["GET", "HEAD", "POST", "PUT", "PATCH", "DELETE", "OPTIONS"]);

// Other methods (TRACE among them) cannot even be handed on as a request of the Fetch Standard, section 2.2.1.
function refuseMethod(response: ServerResponse): void {
  response.writeHead(405, { "Content-Type": "application/problem+json", Allow: [...METHODS].join(", ") });
  const detail = "This method is not answered here.";
  response.end(JSON.stringify({ type: "about:blank", title: "Method not allowed", status: 405, detail }));
}

/** The workspace listener: built files first, then Astro's handler with the desk in its locals. */
export async function createWorkspace(options: {
  desk: Desk;
  buildFolder: string;
  apiToken: string | undefined;
  trust: ProxyTrust;
  api: ApiLimits;
  report(message: string, error: unknown): void;
  watched: Watched;
}): Promise<Server> {
  const { desk, report, trust } = options;
  const api = createApi(desk, options.api, report);
  const entry = pathToFileURL(join(options.buildFolder, "server/entry.mjs")).href;
  const { handler } = (await import(entry)) as { handler: AstroHandler };
  const files = sirv(join(options.buildFolder, "client"), {
    immutable: true,
    maxAge: 31_536_000,
    etag: true,
    // The build has laid compressed forms beside its files.
    brotli: true,
    gzip: true,
  });
  // The quality at which a screen costs a millisecond or two; its files are compressed better, once.
  const compressed = compression({
    threshold: 1_000,
    brotli: { params: { [constants.BROTLI_PARAM_QUALITY]: 4 } },
  });

  async function localsFor(request: IncomingMessage): Promise<WorkspaceLocals> {
    const remote = request.socket.remoteAddress ?? "";
    const secure = trust.isSecure(remote, String(request.headers["x-forwarded-proto"] ?? ""));
    const cookie = secure ? "__Host-maprope_session" : "maprope_session";
    const session = sessionIn(request.headers.cookie ?? "", cookie);
    const from = trust.address(remote, String(request.headers["x-forwarded-for"] ?? ""));
    const actor = session ? await personOfSession(desk, session) : undefined;
    return {
      session,
      cookie,
      secure,
      json: readJson,
      actor,
      call: api,
      bearer: (token) => actorOfToken(desk, token, options.apiToken, from),
      signIn: (input) => signIn(desk, input, from, request.headers["user-agent"]),
      signOut: (token) => signOut(desk, token),
      problem: (status, title, detail) => problemResponse(new Problem(status, title, detail)),
      refusal: (error) => problemResponse(error instanceof Problem ? error : notAvailable(error)),
      link: (input) => useLink(desk, input),
      reset: (input) => mailReset(desk, checked(resetInputSchema, input), from),
      hasMail: desk.mailer !== undefined,
      sites: async () => (actor ? listSites(desk, actor) : []),
      health: () => desk.health(),
      speculation: SPECULATION,
    };
  }
  function notAvailable(error: unknown): Problem {
    report("The workspace could not do what was asked.", error);
    return new Problem(
      503,
      "Not available",
      "The workspace cannot do this at the moment. Try again shortly.",
    );
  }
  function answerWithAstro(request: IncomingMessage, response: ServerResponse): void {
    localsFor(request)
      .then((locals) => {
        // Whoever asked has left meanwhile, as a browser does that goes to another page: nothing of it can be read.
        if (response.destroyed) return undefined;
        // No screen has this address: the one that says so answers, unless it is the one that is missing.
        const nothing = (error?: unknown): void => {
          if (error || request.url === NOT_FOUND) return fail(response, error);
          request.url = NOT_FOUND;
          void handler(request, response, (again) => fail(response, again), locals);
        };
        return handler(request, response, nothing, locals);
      })
      .catch((error: unknown) => fail(response, error));
  }
  function fail(response: ServerResponse, error: unknown): void {
    if (error) report("A request to the workspace failed.", error);
    if (response.headersSent) return void response.end();
    const status = error ? 503 : 404;
    const detail = error
      ? "The workspace cannot answer at the moment; nothing was lost. Try again shortly."
      : "There is nothing under this address.";
    response.writeHead(status, { "Content-Type": "application/problem+json" });
    response.end(
      JSON.stringify({ type: "about:blank", title: error ? "Not available" : "Not found", status, detail }),
    );
  }
  function handle(request: IncomingMessage, response: ServerResponse): void {
    for (const [name, value] of Object.entries(WORKSPACE_HEADERS)) response.setHeader(name, value);
    if (!METHODS.has(request.method ?? "")) return refuseMethod(response);
    const moved = movedScreen(request.url ?? "");
    if (moved) return void response.writeHead(308, { Location: moved }).end();
    // It wants the types of a framework, and nothing of it beyond what every server has.
    type Expected = Parameters<typeof compressed>;
    files(request, response, () => {
      compressed(request as Expected[0], response as Expected[1], () => answerWithAstro(request, response));
    });
  }
  return createServer((request, response) => {
    if (options.watched.answers(request, response)) return;
    const id = requestIdOf(request, trust);
    response.setHeader("X-Request-Id", id);
    options.watched.follow(request, response, id);
    withRequestId(id, () => handle(request, response));
  });
}

const REQUEST_ID = /^[\w.-]{8,80}$/;

// A proxy before us that is believed may have given it one already; else it is one of our own.
function requestIdOf({ headers, socket }: IncomingMessage, trust: ProxyTrust): string {
  const given = headers["x-request-id"];
  const isBelieved =
    typeof given === "string" && REQUEST_ID.test(given) && trust.believes(socket.remoteAddress ?? "");
  return isBelieved ? given : randomUUID();
}

// With a password it is taken up, without one it is looked at.
function useLink(desk: Desk, input: unknown): Promise<object> {
  const isTaken = typeof input === "object" && input !== null && "password" in input;
  return isTaken
    ? takeLink(desk, checked(linkTakeSchema, input))
    : lookAtLink(desk, checked(linkLookSchema, input).token);
}

const SESSION = /^[A-Za-z0-9_-]{20,100}$/;

function sessionIn(cookies: string, name: string): string | undefined {
  for (const one of cookies.split(";")) {
    const [key, value = ""] = one.trim().split("=");
    if (key === name && SESSION.test(value)) return value;
  }
  return undefined;
}
