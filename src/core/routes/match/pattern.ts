import { RE2JS } from "re2js";

const MAX_CHARACTERS = 500;
// Instructions of the compiled program; the usual pattern has twenty to fifty.
const MAX_INSTRUCTIONS = 1_000;

/** A compiled pattern. The engine is linear in the length of the path, whatever the pattern. */
export interface Pattern {
  /** The captures of a path that matches as a whole; undefined when it does not. Groups that took no part are empty. */
  match(path: string): string[] | undefined;
  groups: number;
}

export type CompiledPattern = { ok: true; pattern: Pattern } | { ok: false; message: string };

/** Compiles a pattern in RE2's syntax; look-around and back-references, which can stall an engine, are not in it. */
export function compilePattern(source: string, ignoreCase: boolean): CompiledPattern {
  if (!/^\^?\//.test(source))
    return { ok: false, message: "A pattern starts with a slash, such as /blog/(\\d+)/(.+)." };
  if (source.length > MAX_CHARACTERS)
    return { ok: false, message: `The pattern has more than ${MAX_CHARACTERS} characters; make two of it.` };
  try {
    const compiled = RE2JS.compile(patternText(source), ignoreCase ? RE2JS.CASE_INSENSITIVE : 0);
    if (compiled.programSize() > MAX_INSTRUCTIONS)
      return { ok: false, message: "The pattern is too large: its repetitions multiply. Make them shorter." };
    const groups = compiled.groupCount();
    return {
      ok: true,
      pattern: {
        groups,
        match(path) {
          const matcher = compiled.matcher(path);
          if (!matcher.matches()) return undefined;
          return Array.from({ length: groups }, (_, index) => matcher.group(index + 1) ?? "");
        },
      },
    };
  } catch (error) {
    return { ok: false, message: patternMessage(error) };
  }
}

/** The pattern as it is compiled: paths are compared without a slash at their end, so one in the pattern is left off. */
export function patternText(source: string): string {
  return source.replace(/(?<=[^\\/])\/(\$?)$/, "$1");
}

/** What is wrong with a pattern; undefined when it compiles. */
export function patternFault(source: string): string | undefined {
  const compiled = compilePattern(source, false);
  return compiled.ok ? undefined : compiled.message;
}

/** The number of groups of a pattern; 0 for one that does not compile. */
export function patternGroups(source: string): number {
  const compiled = compilePattern(source, false);
  return compiled.ok ? compiled.pattern.groups : 0;
}

/**
 * How many characters of the pattern stand for themselves: what “longest literal part first” compares. Characters
 * that may be absent or are one choice of several do not count.
 */
export function literalLength(source: string): number {
  let count = 0;
  let depth = 0;
  for (let at = 0; at < source.length; at += 1) {
    const sign = source[at]!;
    const escaped = sign === "\\";
    if (escaped) at += 1;
    else if (sign === "[") {
      at = endOfClass(source, at);
      continue;
    } else if (sign === "(") depth += 1;
    else if (sign === ")") depth -= 1;
    else if (sign === "|" && depth === 0) return 0;
    if (depth > 0 || /^[)^$.?*+{}|]$/.test(escaped ? "" : sign)) continue;
    if (escaped && /[a-zA-Z0-9]/.test(source[at] ?? "")) continue;
    if (!/^(?:[?*]|\{0)/.test(source.slice(at + 1, at + 3))) count += 1;
    if (source[at + 1] === "{") at = source.indexOf("}", at);
    if (at === -1) return count;
  }
  return count;
}

/**
 * The text that every path which matches begins with, as far as it can be read off the pattern: up to the first
 * sign that may stand for more than itself.
 */
export function literalHead(source: string): string {
  const text = source.replace(/^\^/, "");
  if (hasChoice(text)) return "";
  let head = "";
  for (let at = 0; at < text.length;) {
    const escaped = text[at] === "\\";
    const sign = escaped ? (text[at + 1] ?? "") : text[at]!;
    if (escaped ? /[a-zA-Z0-9]/.test(sign) : /[.[({*+?|^$)]/.test(sign)) return head;
    const next = text[at + (escaped ? 2 : 1)];
    if (next === "?" || next === "*" || next === "{") return head;
    head += sign;
    if (next === "+") return head;
    at += escaped ? 2 : 1;
  }
  return head;
}

// A choice between whole patterns: then they need not begin alike.
function hasChoice(source: string): boolean {
  let depth = 0;
  for (let at = 0; at < source.length; at += 1) {
    const sign = source[at]!;
    if (sign === "\\") at += 1;
    else if (sign === "[") at = endOfClass(source, at);
    else if (sign === "(") depth += 1;
    else if (sign === ")") depth -= 1;
    else if (sign === "|" && depth === 0) return true;
  }
  return false;
}

function endOfClass(source: string, start: number): number {
  for (let at = source[start + 1] === "]" ? start + 2 : start + 1; at < source.length; at += 1) {
    if (source[at] === "\\") at += 1;
    else if (source[at] === "]") return at;
  }
  return source.length;
}

function patternMessage(error: unknown): string {
  const said = error instanceof Error ? error.message : "";
  if (/\(\?(?:[=!]|<[=!])/.test(said)) return "Look-ahead and look-behind are not available in patterns.";
  if (/\\[1-9]/.test(said)) return "Back-references such as \\1 are not available in a pattern.";
  const what = said.replace(/^error parsing regexp:\s*/i, "");
  return `This is no pattern: ${what || "it cannot be read"}.`;
}
