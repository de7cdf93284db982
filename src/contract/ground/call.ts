import { z } from "zod";
import { id } from "../../core/ground/fields.ts";
import { MAX_HTML } from "../../core/pages/page.ts";
import type { Role } from "../../core/people/choices.ts";
import { wholeListQuery } from "./lists.ts";

export type Method = "GET" | "POST" | "PUT" | "PATCH" | "DELETE";

/** Within what a page of a site is shown in a frame of the workspace: with its look, and nothing in it that runs. */
export const LOOKED_AT =
  "default-src 'none'; style-src http: https: 'unsafe-inline'; img-src http: https: data:; font-src http: https:; base-uri http: https:; sandbox allow-same-origin";

/** A file as an answer: its name and content. */
export interface FileAnswer {
  name: string;
  /** Media type; the first of the call's when absent. */
  type?: string;
  /** A stream is read as fast as whoever asked takes it. */
  content: Uint8Array | string | ReadableStream<Uint8Array>;
}

/** What a call takes and answers, besides its method and path. */
export interface CallDefinition {
  summary: string;
  /** The least role that may make it. */
  role: Role;
  query?: z.ZodObject;
  /** Shape of a JSON body. */
  body?: z.ZodType;
  /** The largest JSON body in bytes; absent: USUAL_BODY. */
  maxBody?: number;
  /** The body is taken whole, in one of these media (any where one is “anything”), of at most so many bytes. */
  bytes?: { media: readonly string[]; max: number };
  /** Shape of a JSON answer; of a job's result where there is one. */
  answer?: z.ZodType;
  /** Something is made: answered as 201, with `Location` where it is. */
  status?: 201;
  /** Where that is, below /api/v1, with `:names` of the path and `{fields}` of the answer; absent: `{id}` below the call's own path. */
  madeAt?: string;
  /** The answer holds what is shown once: it is not kept, and not answered again. */
  showsSecret?: true;
  /** The answer is a file in one of these media. */
  file?: { media: readonly string[] };
  /** The answer is HTML; `shownWithin` is its content security policy where the workspace shows it in a frame. */
  html?: { shownWithin?: string };
  /** A 202 with a job: always, or where the caller prefers it (`Prefer: respond-async`, RFC 7240 section 4.1). */
  job?: "always" | "preferred";
  /** The answer is made from the ledger: it waits a moment for it, and tells as `current` whether what was changed last is in it. */
  ofLedger?: true;
  /** It may be made of a site that rests, though it changes something. */
  ofResting?: true;
  /** A route's `address` may be a whole address of the site: its host is taken from there. */
  takesHost?: true;
}

/** One call of the HTTP API. Server, browser, documentation and command line follow from it. */
export type Call<M extends Method = Method, P extends string = string> = CallDefinition & {
  method: M;
  /** Path below /api/v1, parameters as `:name`. */
  path: P;
  /** The parameters of its path; one that holds something else names nothing. */
  params: z.ZodObject<Record<string, z.ZodType<string>>>;
  /** Everything that its query may hold: its own, and the part of a list that is answered whole. */
  asked: z.ZodObject | undefined;
};

/** The calls of a subject, by name. */
export type Contract = Readonly<Record<string, Call>>;

/** A JSON body is this large at most, in bytes, unless its call says otherwise. */
export const USUAL_BODY = 2_000_000;
/** For calls that take a page's text: the longest, with room for JSON's escapes. */
export const TEXT_BODY = MAX_HTML + 1_000_000;

/** The names of a path's parameters. */
export type ParamsOf<P extends string> = P extends `${string}:${infer Name}/${infer Rest}`
  ? { [K in Name]: string } & ParamsOf<`/${Rest}`>
  : P extends `${string}:${infer Name}`
    ? { [K in Name]: string }
    : unknown;

/** What a call answers when it goes well, or what its job comes to. */
export type AnswerOf<C extends CallDefinition> = C["answer"] extends z.ZodType
  ? z.output<C["answer"]>
  : C["file"] extends object
    ? FileAnswer
    : C["html"] extends object
      ? string
      : void;

/** What a call's JSON body comes to, checked. */
export type BodyOf<C extends CallDefinition> = C["body"] extends z.ZodType ? z.output<C["body"]> : never;

const PARAMETERS: Readonly<Record<string, z.ZodType<string>>> = {
  site: z.string().regex(/^[a-z\d][a-z\d-]{0,59}$/),
  id,
  revision: id,
  entry: id,
  version: z.string().regex(/^\d{1,9}$/),
  job: z.uuid(),
  session: z.uuid(),
  host: z
    .string()
    .max(253)
    .regex(/^(?:[a-z\d-]+\.)+[a-z][a-z\d-]*$/),
  item: z.string().regex(/^(?:page|block|route|file|program|creative|rule|view)-\d{1,18}$/),
};

// A call whose path has a parameter that nobody has said the meaning of cannot be declared.
function parametersOf(path: string): Call["params"] {
  const names = [...path.matchAll(/:(\w+)/g)].map(([, name]) => name!);
  return z.object(
    Object.fromEntries(
      names.map((name) => {
        const schema = PARAMETERS[name];
        if (!schema) throw new Error(`${path}: what is :${name}?`);
        return [name, schema];
      }),
    ),
  );
}

/** Declares a call; the types of what it takes and answers follow from its schemas. */
export function call<const M extends Method, const P extends string, const D extends CallDefinition>(
  method: M,
  path: P,
  definition: D,
): D & Pick<Call<M, P>, "method" | "path" | "params" | "asked"> {
  return { ...definition, method, path, params: parametersOf(path), asked: askedOf(definition) };
}

/** The shape of every list answer. */
export const listOf = <T extends z.ZodType>(item: T) =>
  z.object({ items: z.array(item), nextCursor: z.string().nullable(), total: z.int() });

/** True for a list that is answered whole and cut to the part that was asked for behind it. */
export function isWholeList({ answer, query }: CallDefinition): boolean {
  const hasLimit = query !== undefined && "limit" in query.shape;
  return answer instanceof z.ZodObject && "nextCursor" in answer.shape && !hasLimit;
}

/** The status of a call's answer when it goes well and is no job. */
export function statusOf({ answer, file, html, status }: CallDefinition): 200 | 201 | 204 {
  return status ?? (answer || file || html ? 200 : 204);
}

function askedOf(call: CallDefinition): z.ZodObject | undefined {
  if (!isWholeList(call)) return call.query;
  return call.query ? call.query.extend(wholeListQuery.shape) : wholeListQuery;
}

/** True for a body that says on which version of the object the change was made. */
export function namesVersion({ body }: CallDefinition): boolean {
  return body instanceof z.ZodObject && "version" in body.shape;
}

/** True for an answer that is an object with a version: its `ETag` tells it (RFC 9110, section 8.8.3). */
export function hasVersion({ answer }: CallDefinition): boolean {
  return answer instanceof z.ZodObject && "version" in answer.shape;
}

/** The statuses of the problems that a call may answer with. */
export function problemsOf(call: Call): number[] {
  const { asked, body, bytes, path, method } = call;
  const isChange = method !== "GET";
  return [
    ...new Set([
      // A parameter, a header or a body that is not as documented.
      400,
      401,
      403,
      ...(path.includes(":") ? [404] : []),
      ...(isChange ? [409] : []),
      ...(isChange || asked ? [422] : []),
      ...(namesVersion(call) || method === "DELETE" ? [412] : []),
      ...(body || bytes ? [413, 415] : []),
      429,
      500,
      503,
    ]),
  ].sort((a, b) => a - b);
}
