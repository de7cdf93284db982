import { createHash } from "node:crypto";
import { gunzipSync } from "node:zlib";
import { readNamedAddresses, type NamedAddresses } from "../../../core/origin/sitemap.ts";
import { textOf } from "../../../core/origin/text-of.ts";
import { reducePage, type Area, type ReducedPage } from "../../../core/origin/reduce.ts";

/** A page as it was read: its blocks by the keys of their words and links. */
export interface PageText extends Omit<ReducedPage, "blocks"> {
  blocks: { key: string; area: Area; html: string }[];
  /** By which is told whether it is another than before. */
  digest: string;
}

/** A sitemap unpacked, at most: as large as one may be (sitemaps.org protocol). */
const MOST_UNPACKED = 50 * 1024 * 1024;

/** Reads a page's bytes, in the character set that they are in. */
export function readPageText(bytes: Uint8Array, type: string, address: string): PageText {
  const { blocks, ...page } = reducePage(textOf(bytes, type), address);
  const keyed = blocks.map((block) => ({ key: keyOf(`${block.area} ${block.html}`), ...block }));
  const digest = keyOf(`${page.title}\n${keyed.map(({ key }) => key).join(" ")}`);
  return { ...page, blocks: keyed, digest };
}

/** Reads a sitemap or feed, unpacked where it was sent as a packed file. */
export function readAddressText(bytes: Uint8Array): NamedAddresses {
  const isPacked = bytes[0] === 0x1f && bytes[1] === 0x8b;
  try {
    return readNamedAddresses(
      textOf(isPacked ? gunzipSync(bytes, { maxOutputLength: MOST_UNPACKED }) : bytes, ""),
    );
  } catch {
    // Of a packed file nothing can be read that is cut or larger than one may be.
    return { kind: "unreadable", reason: "is a packed file that cannot be unpacked" };
  }
}

function keyOf(text: string): string {
  return createHash("sha1").update(text).digest("base64url").slice(0, 14);
}
