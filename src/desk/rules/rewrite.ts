import type { z } from "zod";
import { setImmediate as immediate } from "node:timers/promises";
import { DocumentRewriter } from "../../core/links/rewrite/rewrite-document.ts";
import { LinkScanner } from "../../core/links/scan.ts";
import type { rewriteAnswerSchema, rewriteInputSchema } from "../../core/rules/rule.ts";
import { Problem } from "../ground/problem.ts";
import { snapshotSite } from "../links/site-snapshot.ts";
import { currentRules } from "./rules.ts";
import type { OpenSite } from "../sites/open-site.ts";
import type { WithStore, WithDeliveryPort } from "../ground/parts.ts";

/** Applies the rules in force to any HTML, with a report of what changed. */
export async function rewriteHtml(
  desk: WithStore & WithDeliveryPort,
  site: OpenSite,
  { html, page, category }: z.infer<typeof rewriteInputSchema>,
): Promise<z.infer<typeof rewriteAnswerSchema>> {
  const addresses = new Set<string>();
  const scanner = new LinkScanner(({ href }) => addresses.add(href));
  for await (const piece of inPieces(html)) scanner.write(piece);
  scanner.end();
  const [{ rules }, snapshot] = await Promise.all([
    currentRules(desk, site),
    snapshotSite(desk, site, [...addresses]),
  ]);
  const rewriter = new DocumentRewriter(rules, snapshot.linkResolver(), { page, category });
  const rewritten: string[] = [];
  for await (const piece of inPieces(html)) rewritten.push(rewriter.write(piece));
  rewritten.push(rewriter.end());
  return { html: rewritten.join(""), ...rewriter.report };
}

const PIECE = 64 * 1024;

// A long document is read a piece at a time; between them, whoever else asks has their turn.
async function* inPieces(text: string): AsyncGenerator<string> {
  for (let from = 0; from < text.length; from += PIECE) {
    yield text.slice(from, from + PIECE);
    await immediate();
  }
}

/** The HTML of a request's bytes; refused when it is not text in UTF-8. */
export function htmlOf(bytes: Uint8Array, contentType: string): string {
  const charset = /charset\s*=\s*"?([\w-]+)/i.exec(contentType)?.[1]?.toLowerCase() ?? "utf-8";
  if (charset !== "utf-8" && charset !== "us-ascii" && charset !== "utf8")
    throw new Problem(415, "Unsupported media type", `Send the document in UTF-8; ${charset} is not taken.`);
  try {
    return new TextDecoder("utf-8", { fatal: true, ignoreBOM: true }).decode(bytes);
  } catch {
    throw new Problem(422, "This cannot be taken as it is", "The document is not text in UTF-8.", {
      errors: [{ path: "", message: "The document is not text in UTF-8." }],
    });
  }
}
