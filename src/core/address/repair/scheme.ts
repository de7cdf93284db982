import { distance } from "fastest-levenshtein";
import type { Repair } from "../address.ts";

// A colon or two slashes make a scheme; `http/` alone may be a host or a folder of that name.
const RUN_OF_SCHEMES = /^(?:https?(?:[:;]+[/\\]*|[/\\]{2,}))+(?=https?(?:[:;]+[/\\]|[/\\]{2,}))/i;
const SCHEME_AND_SLASHES = /^([a-z]{2,7})(?:([:;]+)([/\\]+)|()([/\\]{2,}))/i;
const SCHEME_WITHOUT_SLASHES = /^(https?):(?=[^/\\])/i;
const HOST_AND_REST =
  /^(?:[\p{L}\p{N}](?:[\p{L}\p{M}\p{N}_-]*[\p{L}\p{M}\p{N}])?\.)+(?:\p{L}[\p{L}\p{M}]+|xn--[a-z\d-]+)\.?(?::\d{1,5})?(?=$|[/?#\\])/iu;
const LOOPBACK_NAME = /^(?:[a-z\d-]+\.)*localhost(?::\d{1,5})?(?=$|[/?#\\])/i;
const IPV4 = /^\d{1,3}(?:\.\d{1,3}){3}(?::\d{1,5})?(?=$|[/?#\\])/;

/** True when the text starts as a host name does (`shop.example/x`, `localhost:3000`), with no scheme before it. */
export function startsWithHost(text: string): boolean {
  return HOST_AND_REST.test(text) || LOOPBACK_NAME.test(text) || IPV4.test(text);
}

/** The scheme that is assumed when none was pasted: names under `.localhost` (RFC 6761) have no certificates. */
export function assumedScheme(text: string): "http" | "https" {
  return LOOPBACK_NAME.test(text) ? "http" : "https";
}

/**
 * Mends what goes wrong at the start of a web address: doubled schemes, `htp://`, `https//`, `http:\\`,
 * a scheme that is missing altogether. Text that is no web address comes back unchanged.
 */
export function repairScheme(pasted: string): { text: string; repairs: Repair[] } {
  const repairs: Repair[] = [];
  const spaced = withoutOddSigns(pasted);
  if (spaced !== pasted)
    repairs.push({
      code: "slashes",
      message: "Corrected the signs and spaces between the scheme and the host.",
    });
  let text = spaced.replace(RUN_OF_SCHEMES, "");
  if (text !== spaced) {
    // The inner one is what was copied; but a name without certificates only answers to http, if that was there too.
    const host = text.replace(/^https?[:;]*[/\\]+/i, "");
    const schemes = spaced.slice(0, spaced.length - host.length).toLowerCase();
    if (LOOPBACK_NAME.test(host) && /http[^s]/.test(schemes)) text = `http://${host}`;
    const kept = /^https?/i.exec(text)?.[0].toLowerCase() ?? "https";
    repairs.push({ code: "doubled-scheme", message: `The scheme stood there twice; kept ${kept}.` });
  }

  const withoutSlashes = SCHEME_WITHOUT_SLASHES.exec(text);
  if (withoutSlashes) {
    text = `${withoutSlashes[1]}://${text.slice(withoutSlashes[0].length)}`;
    repairs.push({ code: "slashes", message: "Set the two slashes after the scheme." });
  }
  const found = SCHEME_AND_SLASHES.exec(text);
  const start = found && ([found[0], found[1]!, found[2] ?? "", found[3] ?? found[5]!] as const);
  const scheme = start && closestWebScheme(start[1]!);
  if (start && scheme) {
    const rest = text.slice(start[0].length);
    const spelled = start[1]!.toLowerCase() === scheme;
    if (!spelled)
      repairs.push({ code: "scheme-spelling", message: `Corrected the scheme “${start[1]}” to ${scheme}.` });
    const tooMany = start[3]!.length > 2;
    if (start[2] !== ":" || start[3] !== "//") {
      repairs.push({ code: "slashes", message: "Corrected the colon and slashes after the scheme." });
    }
    // Three slashes and no host behind them is a file-like address: left for the refusal to explain.
    const repaired = tooMany && !startsWithHost(rest) ? `${scheme}:///` : `${scheme}://${rest}`;
    if (!RUN_OF_SCHEMES.test(repaired)) return { text: repaired, repairs };
    const again = repairScheme(repaired); // a misspelt scheme stood before another one
    return { text: again.text, repairs: [...repairs, ...again.repairs] };
  }

  const bare = text.replace(/^:?[/\\]{2,}/, "");
  if (startsWithHost(bare)) {
    const assumed = assumedScheme(bare);
    repairs.push({ code: "missing-scheme", message: `Added the missing ${assumed}://.` });
    text = `${assumed}://${bare}`;
  }
  return { text, repairs };
}

// Spaces where a scheme is written, dots for its colon, full-width signs of other keyboards, other scripts' dots in a host.
function withoutOddSigns(pasted: string): string {
  const [start, rest] = [pasted.slice(0, 80), pasted.slice(80)] as const;
  const plain = start
    .replace(
      /^([a-z]{2,7})\s{0,5}(?:[:：]\s{0,5}|[.;](?=[/\\]))([/\\／]{1,5})\s{0,5}(?=\S)/i,
      (_, scheme: string, slashes: string) => `${scheme}:${"/".repeat(slashes.length)}`,
    )
    .replace(
      /^([^/\\?#]*\/\/)?([^/\\?#]*)/,
      (_, scheme: string | undefined, host: string) =>
        dotted(scheme ?? "") + dotted(scheme === undefined ? host : host.replace(/／/g, "/")),
    );
  return plain + rest;
}

function dotted(host: string): string {
  return host.replace(/[。．｡]/g, ".");
}

function closestWebScheme(word: string): "http" | "https" | undefined {
  const lower = word.toLowerCase();
  // Cut off in front, or its letters in another order; never an http where an s was typed.
  const letters = [...lower].sort().join("");
  if (lower === "tps" || letters === "hpstt") return "https";
  if (lower === "tp" || letters === "hptt") return "http";
  if (lower.includes("s") && distance(lower, "http") <= 1) return "https";
  const toHttps = distance(lower, "https");
  const toHttp = distance(lower, "http");
  if (Math.min(toHttp, toHttps) > 1) return undefined;
  return toHttps < toHttp || (toHttps === toHttp && lower.endsWith("s")) ? "https" : "http";
}
