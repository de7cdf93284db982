import { z } from "zod";
import { id } from "../../../core/ground/fields.ts";
import { MAX_HTML } from "../../../core/pages/page.ts";
import type { Role } from "../../../core/people/person.ts";
import type { Desk } from "../../desk.ts";
import { UNWATCHED, type Job, type Progress } from "../../jobs/jobs.ts";
import type { OpenSite } from "../../sites/open-site.ts";
import type { Actor } from "../audit.ts";

/** What an operation answers with; a “file” says itself what it is. */
export type Media = "application/json" | "text/html" | "application/zip" | "file";
export type Method = "GET" | "POST" | "PUT" | "PATCH" | "DELETE";

/** What an operation works on. `site` is there when its path has one. */
export interface Call<Q, B> {
  desk: Desk;
  actor: Actor;
  site: OpenSite;
  params: Record<string, string>;
  query: Q;
  body: B;
  /** The request's body as it came, for operations that take one whole. */
  bytes: Uint8Array;
  contentType: string;
  /** The body is so long that what is done with it is done on the desk's thread. */
  isLong: boolean;
  /** The caller would rather have a job than wait (`Prefer: respond-async`, RFC 7240 section 4.1). */
  background: boolean;
  now: number;
}

/** One call of the HTTP API: what it takes, what it answers, who may. Documentation and checks come from here. */
export interface Operation {
  method: Method;
  /** Path below /api/v1, parameters as `:name`. */
  path: string;
  summary: string;
  role: Role;
  /** The parameters of its path; one that holds something else names nothing. */
  params: z.ZodObject<Record<string, z.ZodType<string>>>;
  query?: z.ZodType;
  body?: z.ZodType;
  /** Shape of a JSON answer; absent when the answer is HTML or empty. */
  answer?: z.ZodType;
  status: 200 | 201 | 204;
  media: Media;
  /** The content security policy of an HTML answer that the workspace shows in a frame. */
  shownWithin?: string;
  /** The answer is made from the ledger: it waits a moment for it, and tells as `current` whether what was changed last is in it. */
  ofLedger?: boolean;
  /** The largest body in bytes, when the operation takes the body whole and not as JSON. */
  takesBytes?: number;
  /** The largest JSON body in bytes. */
  mostBody: number;
  run(call: Call<unknown, unknown>): Promise<unknown>;
}

interface Definition<Q extends z.ZodType, B extends z.ZodType> {
  summary: string;
  role: Role;
  query?: Q;
  body?: B;
  answer?: z.ZodType;
  status?: 200 | 201 | 204;
  media?: Media;
  shownWithin?: string;
  ofLedger?: boolean;
  takesBytes?: number;
  mostBody?: number;
  run(call: Call<z.infer<Q>, z.infer<B>>): Promise<unknown>;
}

/** A file as an answer: its name and content. */
export interface FileAnswer {
  name: string;
  /** Media type; that of the operation when absent. */
  type?: string;
  content: Uint8Array | string;
}

/** An answer that is still being worked on: 202 with the job, and where to ask for it. */
export class Accepted {
  readonly job: Job;

  constructor(job: Job) {
    this.job = job;
  }
}

/** Does long work: as a job where the caller would rather not wait for it, else at once. */
export async function asPreferred<T>(
  { desk, actor, background }: Pick<Call<unknown, unknown>, "desk" | "actor" | "background">,
  name: string,
  work: (progress: Progress) => Promise<T>,
): Promise<T | Accepted> {
  return background ? new Accepted(desk.jobs.start(actor.name, name, work)) : work(UNWATCHED);
}

/** A JSON body is this large at most, in bytes, unless its call says otherwise. */
const USUAL_BODY = 2_000_000;
/** For calls that take a page's text: the longest, with room for JSON's escapes. */
export const TEXT_BODY = MAX_HTML + 1_000_000;

/** The path of one site's calls. */
export const SITE = "/sites/:site";

/** A list that is answered whole. */
export function wholeList<T>(items: T[]): { items: T[]; nextCursor: null; total: number } {
  return { items, nextCursor: null, total: items.length };
}

/** The shape of every list answer. */
export const listOf = (item: z.ZodType) =>
  z.object({ items: z.array(item), nextCursor: z.string().nullable(), total: z.int() });

/** True for a list that is answered whole and cut to the part that was asked for behind it. */
export function isWholeList({ answer, query }: Pick<Operation, "answer" | "query">): boolean {
  const hasLimit = query instanceof z.ZodObject && "limit" in query.shape;
  return answer instanceof z.ZodObject && "nextCursor" in answer.shape && !hasLimit;
}

const PARAMETERS: Readonly<Record<string, z.ZodType<string>>> = {
  site: z.string().regex(/^[a-z\d][a-z\d-]{0,59}$/),
  id,
  revision: id,
  version: z.string().regex(/^\d{1,9}$/),
  job: z.uuid(),
};

// A call whose path has a parameter that nobody has said the meaning of cannot be declared.
function parametersOf(path: string): Operation["params"] {
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

/** Declares an operation; the types of query and body follow from their schemas. */
export function operation<Q extends z.ZodType, B extends z.ZodType>(
  method: Method,
  path: string,
  definition: Definition<Q, B>,
): Operation {
  return {
    status: 200,
    media: "application/json",
    mostBody: USUAL_BODY,
    ...definition,
    method,
    path,
    params: parametersOf(path),
    run: definition.run as Operation["run"],
  };
}
