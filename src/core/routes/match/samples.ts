import { pathKey } from "../../address/path-key.ts";
import type { MatchKind } from "./match-kind.ts";

const FILLINGS = ["x", "1", "x-1/y.z"];

/**
 * Some path keys that an address answers, to see what else answers them. For patterns this is tried, not
 * known: who needs certainty matches the samples against the pattern.
 */
export function samplesOf(address: string, match: MatchKind): string[] {
  if (match === "exact") return [pathKey(address)];
  if (match === "prefix") {
    const base = pathKey(address);
    return [base, ...FILLINGS.map((filling) => `${base === "/" ? "" : base}/${filling}`)];
  }
  if (match === "wildcard") return FILLINGS.map((filling) => pathKey(address).replaceAll("*", filling));
  return FILLINGS.map((filling) => pathKey(example(address, filling)));
}

// Reads a pattern from left to right and writes one text that it may match: first choices, shortest repetitions.
function example(source: string, filling: string): string {
  let text = "";
  let last = "";
  for (let at = 0; at < source.length; at += 1) {
    const sign = source[at]!;
    if (sign === "^" || sign === "$") continue;
    if (/[*+?{]/.test(sign)) {
      if (sign === "{") at = Math.max(at, source.indexOf("}", at));
      const times =
        sign === "{" ? Number(/^\{(\d+)/.exec(source.slice(source.lastIndexOf("{", at)))?.[1] ?? 1) : 1;
      if (times === 0) text = text.slice(0, text.length - last.length);
      else text += last.repeat(Math.min(times, 20) - 1);
      continue;
    }
    if (sign === "(") {
      const end = closing(source, at);
      const inner = source.slice(at + 1, end).replace(/^\?(?:P?<\w+>|[a-zA-Z-]*:)/, "");
      last = example(firstChoice(inner), filling);
      at = end;
    } else if (sign === "[") {
      const end = source.indexOf("]", at + 2);
      last = memberOf(source.slice(at + 1, end), filling);
      at = end === -1 ? source.length : end;
    } else if (sign === ".") last = filling;
    else if (sign === "\\") {
      at += 1;
      last = escapedMember(source[at] ?? "");
    } else last = sign;
    text += last;
  }
  return text;
}

function firstChoice(source: string): string {
  let depth = 0;
  for (let at = 0; at < source.length; at += 1) {
    if (source[at] === "\\") at += 1;
    else if (source[at] === "(") depth += 1;
    else if (source[at] === ")") depth -= 1;
    else if (source[at] === "|" && depth === 0) return source.slice(0, at);
  }
  return source;
}

function closing(source: string, open: number): number {
  let depth = 0;
  for (let at = open; at < source.length; at += 1) {
    if (source[at] === "\\") at += 1;
    else if (source[at] === "(") depth += 1;
    else if (source[at] === ")" && (depth -= 1) === 0) return at;
  }
  return source.length;
}

function memberOf(members: string, filling: string): string {
  if (members.startsWith("^")) return members.includes("x") ? "1" : members.includes("/") ? "x" : filling;
  return members.startsWith("\\") ? escapedMember(members[1] ?? "") : members[0]!;
}

function escapedMember(letter: string): string {
  if (letter === "d") return "1";
  if (/[wDS]/.test(letter)) return "x";
  return /[a-zA-Z]/.test(letter) ? "" : letter;
}
