import { createServer, type IncomingMessage, type Server, type ServerResponse } from "node:http";
import { join } from "node:path";
import { pathToFileURL } from "node:url";
import sirv from "sirv";
import { answerCall, problemResponse } from "../desk/ground/http/answer.ts";
import type { Desk } from "../desk/desk.ts";
import { readJson } from "../desk/ground/http/read-body.ts";
import { WORKSPACE_HEADERS } from "./workspace-headers.ts";
import { movedScreen } from "./moved-screens.ts";
import type { ProxyTrust } from "../incoming/proxy-trust.ts";
import { actorOfToken, personOfSession, signIn, signOut } from "../desk/people/people.ts";
import { Problem } from "../desk/ground/problem.ts";
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
  sites: () => ReturnType<typeof listSites>;
  health: () => Promise<Record<string, unknown>>;
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
  report(message: string, error: unknown): void;
}): Promise<Server> {
  const { desk, report, trust } = options;
  const entry = pathToFileURL(join(options.buildFolder, "server/entry.mjs")).href;
  const { handler } = (await import(entry)) as { handler: AstroHandler };
  const files = sirv(join(options.buildFolder, "client"), {
    immutable: true,
    maxAge: 31_536_000,
    etag: true,
  });

  async function localsFor(request: IncomingMessage): Promise<WorkspaceLocals> {
    const remote = request.socket.remoteAddress ?? "";
    const secure = trust.isSecure(remote, String(request.headers["x-forwarded-proto"] ?? ""));
    const cookie = secure ? "__Host-maprope_session" : "maprope_session";
    const session = sessionIn(request.headers.cookie ?? "", cookie);
    const from = trust.address(remote, String(request.headers["x-forwarded-for"] ?? ""));
    return {
      session,
      cookie,
      secure,
      json: readJson,
      actor: session ? await personOfSession(desk, session) : undefined,
      call: (call, actor) =>
        answerCall(desk, call, actor, (error) =>
          report(`${call.method} ${new URL(call.url).pathname} failed.`, error),
        ),
      bearer: (token) => actorOfToken(desk, token, options.apiToken, from),
      signIn: (input) => signIn(desk, input, from),
      signOut: (token) => signOut(desk, token),
      problem: (status, title, detail) => problemResponse(new Problem(status, title, detail)),
      refusal: (error) => problemResponse(error instanceof Problem ? error : notAvailable(error)),
      sites: () => listSites(desk),
      health: () => desk.health(),
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
  return createServer((request, response) => {
    for (const [name, value] of Object.entries(WORKSPACE_HEADERS)) response.setHeader(name, value);
    if (!METHODS.has(request.method ?? "")) return refuseMethod(response);
    const moved = movedScreen(request.url ?? "");
    if (moved) return void response.writeHead(308, { Location: moved }).end();
    files(request, response, () => answerWithAstro(request, response));
  });
}

const SESSION = /^[A-Za-z0-9_-]{20,100}$/;

function sessionIn(cookies: string, name: string): string | undefined {
  for (const one of cookies.split(";")) {
    const [key, value = ""] = one.trim().split("=");
    if (key === name && SESSION.test(value)) return value;
  }
  return undefined;
}
