import { readFile } from "node:fs/promises";
import { z } from "zod";
import { DocumentRewriter, type RewriteReport } from "../core/links/rewrite-document.ts";
import { hostName } from "../core/objects/fields.ts";
import { rewriteAnswerSchema, ruleSchema } from "../core/objects/rule.ts";
import type { SiteSight } from "../core/rules/link-facts.ts";
import { Unusable } from "./unusable.ts";

/** The page that a document is, as rules look at it. */
export interface Place {
  page?: string;
  category?: string;
}

/** Something that rewrites a document that comes in pieces. */
export interface Rewriting {
  rewrite(
    pieces: AsyncIterable<string> | Iterable<string>,
    place: Place,
    put: (text: string) => void,
  ): Promise<RewriteReport>;
}

const rulesFileSchema = z.union([
  z.array(ruleSchema),
  z.object({ rules: z.array(ruleSchema) }).transform(({ rules }) => rules),
]);

/** Rewrites by the rules of a file, here. */
export async function fileRewriting(file: string, hosts: readonly string[]): Promise<Rewriting> {
  const text = await readFile(file, "utf8").catch(() => {
    throw new Unusable(`the rules could not be read from ${file}.`);
  });
  const read = rulesFileSchema.safeParse(jsonOf(text, file));
  if (!read.success) throw new Unusable(`the rules in ${file} cannot be taken: ${firstIssue(read.error)}`);
  const own = hosts.map((host) => {
    const checked = hostName.safeParse(host);
    if (!checked.success) throw new Unusable(`--host ${host}: ${checked.error.issues[0]!.message}`);
    return checked.data;
  });
  // What a path leads to is not known here: it is taken for a page of our own.
  const site: SiteSight = { hosts: own, answers: () => "page", routeDestination: () => undefined };
  return {
    async rewrite(pieces, place, put) {
      const rewriter = new DocumentRewriter(read.data, site, place);
      for await (const piece of pieces) put(rewriter.write(piece));
      put(rewriter.end());
      return rewriter.report;
    },
  };
}

/** Rewrites by the rules of a running Map Rope, which sees through its short links too. */
export function apiRewriting({ url, site, token }: { url: string; site: string; token: string }): Rewriting {
  if (!URL.canParse(url)) throw new Unusable(`--url ${url} is not an address.`);
  const call = new URL(`/api/v1/sites/${encodeURIComponent(site)}/rewrite/report`, url);
  return {
    async rewrite(pieces, place, put) {
      let html = "";
      for await (const piece of pieces) html += piece;
      const response = await fetch(call, {
        method: "POST",
        headers: { Authorization: `Bearer ${token}`, "Content-Type": "application/json" },
        body: JSON.stringify({ html, ...place }),
        signal: AbortSignal.timeout(60_000),
      }).catch((error: unknown) => {
        const { message } = ((error as Error).cause as Error | undefined) ?? (error as Error);
        throw new Unusable(`${call.origin} does not answer: ${message}`);
      });
      const answer: unknown = await response.json().catch(() => undefined);
      if (!response.ok) throw new Unusable(`${call.origin} refused: ${detailOf(answer) ?? response.status}`);
      const { html: rewritten, ...report } = rewriteAnswerSchema.parse(answer);
      put(rewritten);
      return report;
    },
  };
}

function jsonOf(text: string, file: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    throw new Unusable(`${file} is not JSON.`);
  }
}

function firstIssue(error: z.ZodError): string {
  const [issue] = error.issues.flatMap((one) => (one.code === "invalid_union" ? one.errors.flat() : one));
  return `${issue!.path.join(".")}${issue!.path.length > 0 ? ": " : ""}${issue!.message}`;
}

function detailOf(answer: unknown): string | undefined {
  const { detail } = (answer ?? {}) as { detail?: unknown };
  return typeof detail === "string" ? detail : undefined;
}
