import { literal } from "../../text/literal.ts";
import {
  comment,
  ENCODED_RESERVED,
  NORMAL_PATH,
  type ExactRule,
  type PatternRule,
  type ServerRules,
} from "./server-rules.ts";

/** What an exported configuration is for besides its routes. */
export interface ServerOptions {
  site: string;
  /** Port that the server listens on. */
  listen: number;
  /** Decoded paths that pages and files answer, ahead of patterns. */
  passes: readonly string[];
}

const STATUSES = [301, 302, 303, 307, 308];

/**
 * The routes as a configuration of nginx, to be included in its `http` block: maps that find the answer, and a
 * server that gives it. Exact addresses are a hash, whatever their number; nginx hashes without letter case, so
 * those for which case counts are compared once more. Patterns see the path as it was asked for.
 */
export function toNginx(rules: ServerRules, { site, listen, passes }: ServerOptions): string {
  const exact = numbered(rules, passes);
  const longest = Math.max(64, ...exact.hash.map(({ key }) => bytesOf(key)));
  return [
    `# Routes of ${comment(site)}, exported by Map Rope. Include this file in the http block.`,
    ...rules.leftOut.map(({ address, reason }) => `# Left out: ${comment(address)}: ${reason}.`),
    "",
    `map_hash_max_size ${Math.max(4096, exact.hash.length * 4)};`,
    `map_hash_bucket_size ${Math.ceil((longest + 32) / 64) * 64};`,
    'geo $maprope_dollar { default "$"; }',
    "",
    "# The path that was asked for: decoded, and as it came when it is in normal form (others meet no pattern here);\n# no slash at its end.",
    block("$uri", "$maprope_path", [`"~(?s)^(?<maprope_cut>/.*?)/*\\\\z" $maprope_cut;`]),
    block("$request_uri", "$maprope_raw", [
      `"~^(?![^?]*/\\\\.\\\\.?(?:[/?]|\\\\z))(?<maprope_plain>/${quoted(NORMAL_PATH)}?)/*(?:\\\\?.*)?\\\\z" $maprope_plain;`,
    ]),
    "",
    block("$request_uri", "$maprope_odd", [`"~*^[^?]*${ENCODED_RESERVED}" odd;`]),
    block("$host$maprope_odd$maprope_path", "$maprope_found", [
      ...exact.hash.map(({ key, id }) => `"${quoted(key)}" ${id};`),
      ...exact.regex.map(({ source, id }) => `"~${quoted(source)}" ${id};`),
    ]),
    block(
      "$maprope_found",
      "$maprope_case",
      exact.hash
        .filter(({ caseInsensitive }) => !caseInsensitive)
        .map(({ key, id }) => `${id} "${value(key)}";`),
    ),
    block('"$maprope_case|$host$maprope_path"', "$maprope_same", [
      '"~^\\\\|" 1;',
      '"~(?s)^(.+)\\\\|\\\\1\\\\z" 1;',
    ]),
    block('"$maprope_same:$maprope_found"', "$maprope_exact", [
      ...exact.answers.map(({ id, answer }) => `"1:${id}" "${answer}";`),
    ]),
    block(
      '"$host$maprope_raw"',
      "$maprope_pattern",
      rules.patterns.map((rule) => `"~${quoted(patternSource(rule))}" "${answerOf(rule, true)}";`),
    ),
    block("$maprope_exact", "$maprope_answer", ['"" $maprope_pattern;', "default $maprope_exact;"]),
    "",
    "# An answer is its status, whether the query goes on, its robots header, and where it leads.",
    block("$maprope_answer", "$maprope_status", ['"~^(?<maprope_number>\\\\d+) " $maprope_number;']),
    block("$maprope_answer", "$maprope_to", ['"~^\\\\d+ . . (?<maprope_end>[^#]*)" $maprope_end;']),
    block("$maprope_answer", "$maprope_heading", ['"~(?<maprope_mark>#.*)\\\\z" $maprope_mark;']),
    block("$maprope_answer", "$maprope_robots", [
      '"~^\\\\d+ . n " "noindex";',
      '"~^\\\\d+ . o " "nofollow";',
      '"~^\\\\d+ . b " "noindex, nofollow";',
    ]),
    block("$maprope_answer", "$maprope_joint", [
      '"~^\\\\d+ f . [^?#]*(?:#|\\\\z)" "?";',
      '"~^\\\\d+ f " "&";',
    ]),
    block('"$maprope_joint|$args"', "$maprope_args", [
      '"~^[?&]\\\\|(?<maprope_query>.+)\\\\z" "$maprope_joint$maprope_query";',
    ]),
    block("$maprope_status", "$maprope_cache", [
      '"~^30[18]" "public, max-age=3600";',
      '"~^30" "private, no-store";',
      '410 "public, max-age=300";',
    ]),
    "",
    "server {",
    `  listen ${listen};`,
    `  server_name ${rules.hosts.join(" ")};`,
    "  merge_slashes off;",
    "  absolute_redirect off;",
    "  add_header Cache-Control $maprope_cache always;",
    "  add_header X-Robots-Tag $maprope_robots always;",
    "  if ($request_method !~ ^(?:GET|HEAD)$) { return 405; }",
    ...STATUSES.map(
      (status) =>
        `  if ($maprope_status = ${status}) { return ${status} "$maprope_to$maprope_args$maprope_heading"; }`,
    ),
    "  if ($maprope_status = 410) { return 410; }",
    "  # What no route answers is the site's own: put it here.",
    "  location / { return 404; }",
    "}",
    "",
  ].join("\n");
}

interface Numbered {
  hash: { key: string; id: number; caseInsensitive: boolean }[];
  regex: { source: string; id: number }[];
  answers: { id: number; answer: string }[];
}

// Addresses that are alike but for letter case cannot share the hash: they are compared one after the other.
function numbered(rules: ServerRules, passes: readonly string[]): Numbered {
  const groups = new Map<string, (ExactRule | undefined)[]>();
  const paths = new Map<string, string>();
  const put = (host: string, path: string, rule: ExactRule | undefined): void => {
    const key = `${host}${path}`;
    const caseInsensitive = key.toLowerCase();
    groups.set(caseInsensitive, [...(groups.get(caseInsensitive) ?? []), rule]);
    paths.set(caseInsensitive, key);
  };
  for (const rule of rules.exact) put(rule.host, rule.path, rule);
  for (const path of passes) {
    const there = groups.get(`${rules.primary}${path}`.toLowerCase());
    if (!there) put(rules.primary, path, undefined);
  }
  const made: Numbered = { hash: [], regex: [], answers: [] };
  let id = 0;
  for (const [caseInsensitive, group] of groups) {
    for (const rule of group) {
      id += 1;
      made.answers.push({ id, answer: rule ? answerOf(rule, false) : PASS });
      const key = rule ? `${rule.host}${rule.path}` : paths.get(caseInsensitive)!;
      if (group.length === 1) made.hash.push({ key, id, caseInsensitive: rule?.caseInsensitive ?? false });
      else made.regex.push({ source: `${rule?.caseInsensitive ? "(?i)" : ""}^${literal(key)}\\z`, id });
    }
  }
  return made;
}

const PASS = "0 d - -";

function answerOf(rule: ExactRule | PatternRule, captures: boolean): string {
  const robots =
    rule.robots === "" ? "-" : rule.robots === "noindex" ? "n" : rule.robots === "nofollow" ? "o" : "b";
  const to = rule.destination === null ? "-" : value(rule.destination, captures);
  return `${rule.status} ${rule.forwards ? "f" : "d"} ${robots} ${to}`;
}

function patternSource(rule: PatternRule): string {
  return `${rule.caseInsensitive ? "(?i)" : ""}^${literal(rule.host)}(?:${rule.source})\\z`;
}

// Values that stand side by side in the key of a map have a sign between them: a 1 and a 2 are not the number 12.
function block(source: string, name: string, entries: readonly string[]): string {
  const from = source.startsWith('"') ? source : `"${source}"`;
  return [
    `map ${from} ${name} {`,
    ...entries.map((entry) => `  ${entry}`),
    ...(entries.some((entry) => entry.startsWith("default")) ? [] : ['  default "";']),
    "}",
  ].join("\n");
}

function quoted(text: string): string {
  return text.replace(/["\\]/g, "\\$&");
}

// In values a dollar begins a variable; a literal one is written as a variable that holds it.
function value(text: string, captures = false): string {
  return quoted(text).replace(captures ? /\$(?![1-9])/g : /\$/g, "${maprope_dollar}");
}

function bytesOf(text: string): number {
  return new TextEncoder().encode(text).length;
}
