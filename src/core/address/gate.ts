import type { Address } from "./address.ts";
import { withoutEnds } from "../text/cut.ts";
import { repairAddress } from "./repair.ts";

/** What an address is to be: where a link leads, or where a picture comes from. */
export type AddressUse = "link" | "picture";

/**
 * The one gate in: an address as it may be stored, or undefined for one that may not. What is right already stays
 * as its author wrote it, what can be made right is repaired, all else (scripts, files of somebody's machine,
 * credentials, control characters) does not pass. A picture comes from the web or from a path of the site.
 */
export function admitted(written: unknown, use: AddressUse): Address | undefined {
  if (typeof written !== "string") return undefined;
  const repaired = repairAddress(written, { isExact: true });
  if (!repaired.ok) return undefined;
  if (use === "picture" && repaired.form !== "web" && repaired.form !== "path") return undefined;
  return repaired.repairs.length === 0 ? (written as Address) : repaired.address;
}

// What most addresses look like: a plain host with neither credentials nor anything that a browser strips, a path, a
// heading, a query. Parsing all others costs a microsecond each.
const PLAINLY_FINE = /^(?:https?:\/\/[a-z\d.-]+(?::\d+)?(?=[/?#]|$)|\/(?![/\\\t\n\r])|[#?])/i;
// Browsers take these away before they read an address (URL Standard, section 4.4, steps 1 to 3).
const AROUND = Array.from({ length: 0x21 }, (_, code) => String.fromCharCode(code)).join("");
const WITHIN = /[\t\n\r]/g;
const SCHEME = /^([a-z][a-z\d+.-]*):/i;
const LET_OUT: ReadonlySet<string> = new Set(["http", "https", "mailto", "tel"]);
const OWN = "http://own.invalid";

/**
 * The last gate on the way out: true for an address that may stand in what readers get. It is read as a browser reads
 * it: http, https, mailto, tel, or relative to the page; without credentials, and never a path of ours that a browser
 * takes for another host. Linear in the address.
 */
export function mayLeave(address: string): boolean {
  if (PLAINLY_FINE.test(address)) return true;
  const bare = withoutEnds(address, AROUND);
  const read = bare.replace(WITHIN, "");
  const scheme = SCHEME.exec(read)?.[1]?.toLowerCase();
  if (scheme !== undefined && !LET_OUT.has(scheme)) return false;
  // No browser follows what it cannot parse, such as a host that waits for its variable.
  if (!URL.canParse(read, OWN)) return true;
  const url = new URL(read, OWN);
  if (url.username !== "" || url.password !== "") return false;
  const isDisguised = url.origin !== OWN && scheme === undefined && !bare.startsWith("//");
  return !isDisguised;
}
