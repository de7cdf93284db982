import {
  constants,
  createBrotliCompress,
  createBrotliDecompress,
  createGunzip,
  createGzip,
  createInflate,
  createDeflate,
} from "node:zlib";
import type { Transform } from "node:stream";
import type { Coding } from "../../../core/origin/front/rewritable.ts";

/** A body is decoded up to so many bytes: what grows beyond is no page. */
export const MOST_DECODED = 64 * 1024 * 1024;

// Pages are coded anew for each reader: quickly, not as small as can be.
const GZIP_LEVEL = 4;
const BROTLI_QUALITY = 3;

/** A stream that takes a coding off. What is cut off or damaged is an error of the stream. */
export function decoderOf(coding: Coding): Transform {
  switch (coding) {
    case "br":
      return createBrotliDecompress();
    case "deflate":
      return createInflate();
    default:
      return createGunzip();
  }
}

/** A stream that puts the same coding on, and its flush, by which what was written so far goes on its way. */
export function encoderOf(coding: Coding): Transform & { flush(callback?: () => void): void } {
  switch (coding) {
    case "br":
      return createBrotliCompress({ params: { [constants.BROTLI_PARAM_QUALITY]: BROTLI_QUALITY } });
    case "deflate":
      return createDeflate({ level: GZIP_LEVEL });
    default:
      return createGzip({ level: GZIP_LEVEL });
  }
}

/** False for a first piece that is certainly not in the coding that it is said to be in (RFC 1952 section 2.3.1, RFC 1950 section 2.2). */
export function maybeCoded(coding: Coding, first: Uint8Array): boolean {
  if (coding === "br" || first.length < 2) return true;
  if (coding === "deflate") return (first[0]! & 0x0f) === 8 && ((first[0]! << 8) | first[1]!) % 31 === 0;
  return first[0] === 0x1f && first[1] === 0x8b;
}
