import { z } from "zod";
import "./plain-issues.ts";
import { repairAddress } from "../address/repair/repair.ts";
import { ownPlace } from "../address/classify.ts";

// eslint-disable-next-line no-control-regex -- control characters are what it looks for
const CONTROL = /[\u0000-\u001F\u007F]/;
const ENCODED_CONTROL = /%(?:0[0-9a-f]|1[0-9a-f]|7f)/i;

/** One line of text: trimmed, no control characters, at most `most` characters. */
export function line(name: string, most: number) {
  return z
    .string(`${name} is text.`)
    .trim()
    .max(most, `${name} has more than ${most} characters; shorten it.`)
    .refine(
      (text) => !CONTROL.test(text),
      `${name} is one line: take out line breaks and control characters.`,
    );
}

/** A line that may not be empty. */
export function requiredLine(name: string, most: number) {
  return line(name, most).refine((text) => text !== "", `${name} is missing.`);
}

/** A path on one of the site's hosts. Only its form is checked; whether it is free is the desk's to say. */
export const sitePath = z
  .string("A path is text that starts with a slash, such as /reviews/first-eyepiece.")
  .trim()
  .superRefine((path, context) => {
    const wrong = pathFault(path);
    if (wrong) context.addIssue({ code: "custom", message: wrong });
  });

/** What is wrong with a path of ours, and how it would be right; undefined when it is fine. */
export function pathFault(path: string): string | undefined {
  if (path === "") return "The path is missing. It starts with a slash, such as /to/eyepiece.";
  const host = /^https?:\/\/([^/?#]*)/i.exec(path)?.[1];
  if (host !== undefined)
    return `${host || "This"} is no host of this site; a path of ours starts with a slash, such as /to/eyepiece.`;
  if (!path.startsWith("/") || path.startsWith("//"))
    return "A path starts with one slash, such as /to/eyepiece.";
  if (path.length > 1024) return "The path has more than 1,024 characters; shorten it.";
  if (CONTROL.test(path) || ENCODED_CONTROL.test(path))
    return "The path holds a control character or line break; take it out.";
  if (/[?#]/.test(path)) return "A path ends before ? and #; leave out the query and the heading.";
  if (/\s/.test(path)) return "A path has no spaces; put a hyphen between words.";
  if (path.includes("\\")) return "A path is written with forward slashes.";
  if (/["<>`^{|}]/.test(path))
    return 'A path has none of " < > ` ^ { | }; letters, digits, hyphens and slashes are safest.';
  if (/%(?![0-9a-f]{2})/i.test(path))
    return "A % in a path starts two hexadecimal digits; write %25 for the sign itself.";
  if (/(?:^|\/)(?:\.|%2e){1,2}(?:\/|$)/i.test(path)) return "A path does not contain . or .. segments.";
  return undefined;
}

function webAddress(name: string, otherwise: string) {
  return z.string(`${name} is text.`).transform((pasted, context) => {
    const repaired = repairAddress(pasted);
    if (repaired.ok && (repaired.form === "web" || repaired.form === "path")) return repaired.address;
    context.addIssue({ code: "custom", message: repaired.ok ? otherwise : repaired.reason.message });
    return z.NEVER;
  });
}

/** An address that a link or a route may lead to: repaired on the way in, refused with the reason. */
export const destination = webAddress(
  "A destination",
  "A route leads to a web address or to a path of this site; a mail, a phone number or a heading cannot be redirected to.",
);

/** The same of something that is found on the web, such as a page or a picture. */
export const webPlace = webAddress(
  "An address",
  "A web address or a path of this site stands here; a mail, a phone number or a heading is neither.",
);

/** A host name, in lower-case ASCII form without port. */
export const hostName = z
  .string("A host is text.")
  .trim()
  .transform((typed, context) => {
    const bare = typed.replace(/:\d+$/, "").replace(/\.$/, "");
    const valid = bare !== "" && !/[\s/?#@\\:]/.test(bare) && URL.canParse(`http://${bare}/`);
    if (valid) return new URL(`http://${bare}/`).hostname;
    context.addIssue({
      code: "custom",
      message: `“${typed}” is not a host name, such as lowlantern.example.`,
    });
    return z.NEVER;
  });

/** An id as the API shows it: a positive whole number, as text. */
export const id = z.string().regex(/^[1-9]\d{0,17}$/, "An id is a positive whole number.");

/** Which clicks earnings are divided by: ours on short links, or the network's where it counted more; null without any. */
export const clicksOf = z.enum(["ours", "networks"]).nullable();

/** The version of an object that a change was made on. */
export const version = z
  .int("The version is a whole number, taken from the object as it was read.")
  .positive();

/** A time in ISO 8601, kept in UTC. */
export const time = z.iso.datetime({
  offset: true,
  error: "A time is written in ISO 8601, such as 2026-11-23T08:00:00Z.",
});

/**
 * Splits an address that was typed with one of our hosts in front into host and path. What stands behind the host of
 * a pattern is taken as it is: its backslashes are no slashes.
 */
export function splitOwnAddress(
  typed: string,
  hosts: readonly string[],
  isPattern = false,
): { host?: string; path: string } {
  const front = /^\s*(?:https?:\/\/)?([^/?#\s\\()[\]]+)(\/\S*)\s*$/i.exec(typed);
  if (isPattern && front) {
    const place = ownPlace(`http://${front[1]!}/`, hosts);
    return place ? { host: place.host ?? undefined, path: front[2]! } : { path: typed.trim() };
  }
  const repaired = typed.trim().startsWith("/") ? undefined : repairAddress(typed);
  if (!repaired?.ok) return { path: typed.trim() };
  const place = ownPlace(repaired.address, hosts);
  return place
    ? { host: place.host ?? undefined, path: new URL(repaired.address, "http://own.invalid").pathname }
    : { path: typed.trim() };
}
