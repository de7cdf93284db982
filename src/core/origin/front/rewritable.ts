import { answerFields, fieldOf, without, type RawFields } from "./fields.ts";

/** Character sets whose bytes are not those of ASCII where HTML's signs stand, or shift what bytes mean. */
const OTHER_BYTES = /^(?:utf-?16|utf-?32|ucs-?[24]|iso-?2022|iso-10646|hz-gb|utf-?7|ebcdic|ibm037|cp037)/i;

export const CODINGS = ["gzip", "x-gzip", "deflate", "br"] as const;
export type Coding = (typeof CODINGS)[number];

/** How the body of an answer is to be read, to be changed on its way. */
export interface Rewritable {
  /** How it is coded; undefined: plainly. */
  coding: Coding | undefined;
}

/**
 * How an answer is read to change its links; undefined for one that goes on as it is: no HTML, no answer to GET with a
 * body of its own, one whose sender forbids transformations (RFC 9110 section 7.7), in a coding or a character set that is not read.
 */
export function rewritable(method: string, status: number, fields: RawFields): Rewritable | undefined {
  if (method !== "GET" || status !== 200) return undefined;
  const type = fieldOf(fields, "content-type");
  // One type, said once: of two nobody knows which is meant.
  if (
    type === undefined ||
    !/^\s*(?:text\/html|application\/xhtml\+xml)\s*(?:;|$)/i.test(type) ||
    type.includes(",")
  )
    return undefined;
  const charset = /;\s{0,9}charset\s{0,9}=\s{0,9}"?([^";\s]{1,40})/i.exec(type)?.[1];
  if (charset !== undefined && OTHER_BYTES.test(charset)) return undefined;
  if (/(?:^|[,\s])no-transform(?:[,\s]|$)/i.test(fieldOf(fields, "cache-control") ?? "")) return undefined;
  if (fieldOf(fields, "content-range") !== undefined) return undefined;
  const coding = (fieldOf(fields, "content-encoding") ?? "").trim().toLowerCase();
  if (coding === "" || coding === "identity") return { coding: undefined };
  return CODINGS.some((one) => one === coding) ? { coding: coding as Coding } : undefined;
}

/** Fields that tell of the bytes that were sent: of others they would be wrong. */
const OF_THESE_BYTES: ReadonlySet<string> = new Set([
  "content-length",
  "etag",
  "digest",
  "content-digest",
  "repr-digest",
  "content-md5",
  "accept-ranges",
  "last-modified",
]);

/** The fields of an answer whose links are changed: with a tag of our own where the origin gave it one, and no length. */
export function rewrittenFields(fields: RawFields, pseudonym: string, stamp: string): string[] {
  const tag = fieldOf(fields, "etag");
  const kept = without(answerFields(fields, pseudonym), OF_THESE_BYTES);
  if (tag !== undefined) kept.push("ETag", ourTag(tag, stamp));
  return kept;
}

/** Behind which our part of a tag stands. */
const MARK = "~m";

/** The entity tag of a changed page: weak, since its bytes may be coded anew, and told apart by what it was changed by. */
export function ourTag(tag: string, stamp: string): string {
  const [, inner = ""] = /^(?:W\/)?"([^"]*)"$/.exec(tag.trim()) ?? [];
  return `W/"${inner}${MARK}${stamp}"`;
}

const TAG = /(?:W\/)?"[^"]*"/g;

/**
 * `If-None-Match` as the origin is asked, from what a reader holds: tags that we changed pages under are the origin's again where
 * nothing that changes them has changed since; those of before would match what the reader no longer gets, and are left out.
 * Undefined where none is left.
 */
export function tagsForOrigin(header: string, stamp: string): string | undefined {
  if (header.trim() === "*") return header;
  const tags = header.match(TAG) ?? [];
  const kept = tags.flatMap((tag) => {
    const at = tag.lastIndexOf(MARK);
    if (at === -1) return [tag];
    return tag.slice(at + MARK.length, -1) === stamp ? [`W/${tag.slice(tag.indexOf('"'), at)}"`] : [];
  });
  return kept.length > 0 ? kept.join(", ") : undefined;
}

/** True where a reader holds a page under a tag of ours. */
export function holdsOurs(header: string): boolean {
  return (header.match(TAG) ?? []).some((tag) => tag.includes(MARK));
}
