import { addressOf, methodOf } from "../contract/ground/address.ts";
import { readFile } from "node:fs/promises";
import { z } from "zod";
import { DocumentRewriter, type RewriteReport } from "../core/links/rewrite/rewrite-document.ts";
import { hostName } from "../core/ground/fields.ts";
import { rewriteAnswerSchema, ruleSchema, type Rule } from "../core/rules/rule.ts";
import {
  needsOfRules,
  ruleBundleSchema,
  resolverOfBundle,
  type RuleBundle,
} from "../core/rules/sets/bundle.ts";
import { Unusable } from "./unusable.ts";

/** The page that a document is, as rules look at it. */
export interface Place {
  page?: string | undefined;
  category?: string | undefined;
}

/** Something that rewrites a document that comes in pieces. */
export interface Rewriting {
  rewrite(
    pieces: AsyncIterable<Uint8Array> | Iterable<Uint8Array>,
    place: Place,
    put: (bytes: Uint8Array) => void,
  ): Promise<RewriteReport>;
}

const rulesFileSchema = z.union([
  z.array(ruleSchema).transform((rules): Partial<RuleBundle> & { rules: Rule[] } => ({ rules })),
  ruleBundleSchema.partial().required({ rules: true }),
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
  const { rules, hosts: bundled = [], partners, routes = [] } = read.data;
  const [lacking] = partners === undefined ? needsOfRules(rules) : [];
  if (lacking)
    throw new Unusable(
      `the rule “${lacking.rule}” names ${lacking.names}, and ${file} does not say what leads there. Take the file that GET …/rules/bundle answers.`,
    );
  const site = resolverOfBundle({ hosts: [...own, ...bundled], partners: partners ?? [], routes });
  return {
    async rewrite(pieces, place, put) {
      const rewriter = new DocumentRewriter(rules, site, place, true);
      for await (const piece of pieces) put(bytesOf(rewriter.write(textOf(piece))));
      put(bytesOf(rewriter.end()));
      return rewriter.report;
    },
  };
}

// Each byte is a sign of its own, so that a document in any encoding keeps what it is (core/links/rewrite/source-bytes.ts).
const textOf = (bytes: Uint8Array): string =>
  Buffer.from(bytes.buffer, bytes.byteOffset, bytes.length).toString("latin1");
const bytesOf = (text: string): Uint8Array => Buffer.from(text, "latin1");

const REPORT = "POST /sites/:site/rewrite/report";

/** Rewrites by the rules of a running Map Rope, which sees through its short links too. */
export function apiRewriting({ url, site, token }: { url: string; site: string; token: string }): Rewriting {
  if (!URL.canParse(url)) throw new Unusable(`--url ${url} is not an address.`);
  const call = new URL(addressOf(REPORT, { site }), url);
  return {
    async rewrite(pieces, place, put) {
      const html = await utf8(pieces);
      const response = await fetch(call, {
        method: methodOf(REPORT),
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
      put(new TextEncoder().encode(rewritten));
      return report;
    },
  };
}

// What goes over the API is text.
async function utf8(pieces: AsyncIterable<Uint8Array> | Iterable<Uint8Array>): Promise<string> {
  const decoder = new TextDecoder("utf-8", { fatal: true, ignoreBOM: true });
  try {
    let text = "";
    for await (const piece of pieces) text += decoder.decode(piece, { stream: true });
    return text + decoder.decode();
  } catch (error) {
    if (!(error instanceof TypeError)) throw error;
    throw new NotText();
  }
}

/** A document that is not text in UTF-8. */
export class NotText extends Error {
  constructor() {
    super("This is not text in UTF-8; it was left as it is.");
  }
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
