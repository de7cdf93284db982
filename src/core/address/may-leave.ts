import { withoutEnds } from "../text/cut.ts";

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
