import { promisify } from "node:util";
import { brotliCompress, constants, gzip } from "node:zlib";
import Negotiator from "negotiator";
import type { IncomingMessage } from "node:http";

/** The content codings that we have (RFC 9110, section 8.4.1), the smallest first. */
export type Coding = "br" | "gzip";

const CODINGS = ["br", "gzip", "identity"];
// What is smaller fits into the first packets either way.
const LEAST_BYTES = 1_000;
const COMPRESSIBLE =
  /^(?:text\/|image\/svg\+xml|application\/(?:json|xml|[\w.-]+\+(?:json|xml)|javascript|manifest\+json))/;

/** Whether a body of this media type and size is worth a coding: pictures and fonts are compressed as they are. */
export function isWorthCoding(type: string, bytes: number): boolean {
  return bytes >= LEAST_BYTES && COMPRESSIBLE.test(type);
}

/** The coding that a reader's Accept-Encoding prefers (RFC 9110, section 12.5.3); undefined: none. */
export function codingFor(request: Pick<IncomingMessage, "headers">): Coding | undefined {
  // Nothing said means that anything would do; who says nothing is seldom one who can take everything.
  if (request.headers["accept-encoding"] === undefined) return undefined;
  // Its types do not have what version 1 takes: which to prefer where a reader has no preference.
  const accepted = new Negotiator(request as IncomingMessage) as unknown as {
    encodings(available: readonly string[], options: { preferred: readonly string[] }): string[];
  };
  const [best] = accepted.encodings(CODINGS, { preferred: ["br", "gzip"] });
  return best === "br" || best === "gzip" ? best : undefined;
}

const byBrotli = promisify(brotliCompress);
const byGzip = promisify(gzip);

/** A body in a coding; done off the serving thread. */
export function coded(body: Buffer, coding: Coding): Promise<Buffer> {
  if (coding === "gzip") return byGzip(body, { level: 6 });
  return byBrotli(body, {
    params: {
      [constants.BROTLI_PARAM_QUALITY]: 5,
      [constants.BROTLI_PARAM_SIZE_HINT]: body.length,
    },
  });
}
