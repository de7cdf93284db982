import { createHash } from "node:crypto";
import { Problem } from "../problem.ts";

/**
 * The entity tag of an answer that has a version (RFC 9110, section 8.8.3): the version, and in short the answer itself,
 * for much of an object (its clicks, its health) changes without being saved.
 */
export function entityTag(version: number, text: string): string {
  return `"${version}.${createHash("sha256").update(text).digest("base64url").slice(0, 12)}"`;
}

/** True when `If-None-Match` names the tag, or anything (RFC 9110, section 13.1.2): compared weakly. */
export function isUnchanged(ifNoneMatch: string | null, tag: string): boolean {
  return (
    ifNoneMatch !== null && tagsIn(ifNoneMatch).some((one) => one === "*" || one.replace(/^W\//, "") === tag)
  );
}

/**
 * The version that `If-Match` asks for (RFC 9110, section 13.1.1); undefined when any will do. Of a tag only the version
 * counts: what else it tells was not what the change was made on. Throws a 400 for what is no tag of ours.
 */
export function versionAsked(ifMatch: string | null): number | undefined {
  if (ifMatch === null || ifMatch.trim() === "*") return undefined;
  const [tag, ...others] = tagsIn(ifMatch);
  const version = /^"(\d{1,9})(?:\.[\w-]+)?"$/.exec(tag ?? "")?.[1];
  if (version !== undefined && others.length === 0) return Number(version);
  const message = 'If-Match is one ETag as it was answered, such as "3.x7Yc0q", or *.';
  throw new Problem(400, "This cannot be taken as it is", message, {
    errors: [{ path: "If-Match", message }],
  });
}

/** What is answered when `If-Match` asks for another version than the stored one. */
export function preconditionFailed(current: unknown): Problem {
  return new Problem(
    412,
    "Changed by somebody else",
    "If-Match names another version than the stored one: a newer one was saved meanwhile. Nothing of yours was written.",
    { more: current === undefined ? {} : { current } },
  );
}

function tagsIn(list: string): string[] {
  return list.match(/(?:W\/)?"[^"]*"|\*/g) ?? [];
}
