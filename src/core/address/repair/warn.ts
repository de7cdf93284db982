import { toUnicode } from "punycode/punycode.es6.js";
import type { Warning } from "../address.ts";

/** What is known around an address; everything is optional, and what is missing is not warned about. */
export interface AddressSurroundings {
  /** It stands in an attribute or comes from a machine: no prose is around it, and its last sign is its own. */
  isExact?: boolean;
  /** Reads a number as it is dialled in the site's country; absent where nobody has said which that is. */
  homePhone?: (text: string) => string | undefined;
  /** Hosts of the workspace and of staging copies, with port where they have one: readers never get there. */
  privateHosts?: readonly string[];
  /** Hosts that have answered on https before. */
  httpsHosts?: ReadonlySet<string>;
  /** Tracking parameters that belong to the program the address leads to; undefined when no program is known. */
  programParameters?: readonly string[];
  /** Own short hosts, never warned about as somebody else's. */
  ownHosts?: readonly string[];
}

const SCRIPTS = [
  "Latin",
  "Cyrillic",
  "Greek",
  "Armenian",
  "Cherokee",
  "Georgian",
  "Hebrew",
  "Arabic",
  "Han",
] as const;
const IN_SCRIPT = SCRIPTS.map((name) => [name, new RegExp(`\\p{Script=${name}}`, "u")] as const);
// Cyrillic and Greek letters that are drawn like Latin ones: a label made only of these imitates a Latin name.
const DRAWN_LIKE_LATIN = /^[асԁеһіјӏոорԛѕԝхуүѵαεικνορτυχωο\d-]+$/u;
const IPV4 = /^\d{1,3}(?:\.\d{1,3}){3}$/;
const TRACKING =
  /^(?:aff(?:id|iliate)?(?:_?id)?|partner(?:_?id)?|ref(?:_?id)?|sub_?id\d?|click_?id|[a-z]{1,3}clid|tag)$/i;

/** The second looks that a web address deserves. `typedHost` is the host before IDNA. */
export function warningsFor(url: URL, typedHost: string, around: AddressSurroundings): Warning[] {
  const warnings: Warning[] = [];
  const unicodeHost = typedHost.includes("xn--") || typedHost === "" ? toUnicode(url.hostname) : typedHost;
  const suspect = unicodeHost.split(".").find(isLookAlike);
  if (suspect) {
    warnings.push({
      code: "look-alike",
      message: `“${suspect}” uses letters that look like others from another script; it is really ${url.hostname}.`,
    });
  }
  if (IPV4.test(url.hostname) || url.hostname.startsWith("[")) {
    warnings.push({
      code: "bare-ip",
      message: "This is a bare IP address; a name would survive a move of the server.",
    });
  }
  if (url.protocol === "http:" && around.httpsHosts?.has(url.hostname)) {
    warnings.push({ code: "http", message: `${url.hostname} is known to answer on https; use https.` });
  }
  if (around.privateHosts?.some((own) => own === url.host || own === url.hostname)) {
    warnings.push({
      code: "workspace-host",
      message: "This is the workspace or a staging copy; readers cannot get there.",
    });
  }
  if (looksLikeShortener(url) && !around.ownHosts?.includes(url.hostname)) {
    warnings.push({
      code: "shortener-hop",
      message:
        "This looks like somebody else's short link: it hides where it ends and may stop one day. Link to the end itself, or make a short link of your own.",
    });
  }
  if (around.programParameters) {
    const foreign = [...url.searchParams.keys()].find(
      (name) => TRACKING.test(name) && !around.programParameters!.includes(name),
    );
    if (foreign) {
      warnings.push({
        code: "foreign-tracking",
        message: `The tracking parameter “${foreign}” is not the program's: somebody else may be paid for this link.`,
      });
    }
  }
  return warnings;
}

function isLookAlike(label: string): boolean {
  const present = IN_SCRIPT.filter(([, pattern]) => pattern.test(label)).map(([name]) => name);
  if (present.length > 1 && !(present.length === 2 && present.includes("Latin") && present.includes("Han")))
    return true;
  return present.length === 1 && present[0] !== "Latin" && DRAWN_LIKE_LATIN.test(label.toLowerCase());
}

// A name of a few letters and a code behind it, with digits or capitals inside as generators make them.
function looksLikeShortener(url: URL): boolean {
  const labels = url.hostname.split(".");
  const short = labels.length === 2 && labels[0]!.length <= 5 && labels[1]!.length <= 3;
  return short && url.search === "" && /^\/(?=[^/]*[A-Z\d])[A-Za-z\d_-]{3,10}$/.test(url.pathname);
}
