import type { ServerOptions } from "./nginx.ts";
import { before, from } from "../../text/cut.ts";
import { literal } from "../../text/literal.ts";
import {
  comment,
  ENCODED_RESERVED,
  NORMAL_PATH,
  type ExactRule,
  type PatternRule,
  type ServerRules,
} from "./server-rules.ts";

// An encoded reserved character is not the character itself, and a path that begins with two slashes is not the one
// with one: Apache decodes, and takes slashes at the front as one, before it compares.
const PLAIN = `RewriteCond "%{THE_REQUEST}" "!^[A-Z]+ (?://|[^? ]*${ENCODED_RESERVED})" [NC]`;

const ROBOTS: Readonly<Record<string, string>> = { noindex: "n", nofollow: "o", "noindex, nofollow": "b" };

/**
 * The routes as a configuration of Apache: a virtual host with mod_rewrite and mod_headers. Rules stand in groups
 * of one host, and a request skips the groups of other hosts. Patterns see the path as it was asked for.
 */
export function toApache(rules: ServerRules, { site, listen, passes }: ServerOptions): string {
  const exact = (host: string): string[] =>
    rules.exact.filter((rule) => rule.host === host).flatMap(exactRule);
  const pass = (host: string): string[] =>
    host === rules.primary
      ? passes.flatMap((path) => [PLAIN, `RewriteRule "^${quoted(literal(path))}/*$" "-" [END]`])
      : [];
  const patterns = (host: string): string[] =>
    rules.patterns.filter((rule) => rule.host === host).flatMap(patternRule);
  const lines: string[] = [
    "RewriteEngine On",
    'RewriteCond "%{REQUEST_METHOD}" "!^(?:GET|HEAD)$"',
    'RewriteRule "^" "-" [R=405,L]',
    "# The path as it came, when it is in normal form (others meet no pattern here); no slash at its end.",
    `RewriteCond "%{THE_REQUEST}" "^[A-Z]+ (?![^? ]*/\\.\\.?[/? ])(/${NORMAL_PATH}?)/*(?:[?]\\S*)? HTTP/"`,
    'RewriteRule "^" "-" [E=maprope_path:%1]',
    ...rules.hosts.flatMap((host) => group(host, [...exact(host), ...pass(host), ...patterns(host)])),
    'Header always set X-Robots-Tag "noindex" env=maprope_n',
    'Header always set X-Robots-Tag "nofollow" env=maprope_o',
    'Header always set X-Robots-Tag "noindex, nofollow" env=maprope_b',
    `Header always set Cache-Control "public, max-age=3600" "expr=%{REQUEST_STATUS} in {'301', '308'}"`,
    `Header always set Cache-Control "private, no-store" "expr=%{REQUEST_STATUS} in {'302', '303', '307'}"`,
    `Header always set Cache-Control "public, max-age=300" "expr=%{REQUEST_STATUS} == '410'"`,
  ];
  const [name, ...aliases] = [rules.primary, ...rules.hosts.filter((host) => host !== rules.primary)];
  return [
    `# Routes of ${comment(site)}, exported by Map Rope. It needs mod_rewrite and mod_headers.`,
    ...rules.leftOut.map(({ address, reason }) => `# Left out: ${comment(address)}: ${reason}.`),
    `<VirtualHost *:${listen}>`,
    `  ServerName ${name}`,
    ...(aliases.length > 0 ? [`  ServerAlias ${aliases.join(" ")}`] : []),
    "  MergeSlashes Off",
    "  AllowEncodedSlashes NoDecode",
    ...lines.map((line) => `  ${line}`),
    "</VirtualHost>",
    "",
  ].join("\n");
}

// A group is skipped as a whole, counted in rules; conditions belong to the rule that follows them.
function group(host: string, lines: readonly string[]): string[] {
  const count = lines.filter((line) => line.startsWith("RewriteRule")).length;
  if (count === 0) return [];
  return [
    `RewriteCond "%{HTTP_HOST}" "!^${quoted(literal(host))}(?::\\d+)?$" [NC]`,
    `RewriteRule "^" "-" [S=${count}]`,
    ...lines,
  ];
}

function exactRule(rule: ExactRule): string[] {
  const address = `^${quoted(literal(rule.path === "/" ? "" : rule.path))}/*$`;
  return ways(rule, address, [PLAIN], false);
}

function patternRule(rule: PatternRule): string[] {
  const condition = `RewriteCond "%{ENV:maprope_path}" "${quoted(`^(?:${rule.source})$`)}"${rule.caseInsensitive ? " [NC]" : ""}`;
  return ways({ ...rule, caseInsensitive: false }, "^", [condition], true);
}

// A query that is handed on is added when there is one: else Apache would leave a lone question mark.
function ways(
  rule: ExactRule | PatternRule,
  address: string,
  conditions: readonly string[],
  captures: boolean,
): string[] {
  const { destination, forwards } = rule;
  const one = (to: string, flags: readonly string[], more: readonly string[]): string[] => [
    ...more,
    ...conditions,
    `RewriteRule "${address}" "${to}" ${flagsOf(rule, flags)}`,
  ];
  if (destination === null) return one("-", [], []);
  const dropped = one(substitution(destination, captures), ["QSD"], []);
  if (!forwards) return dropped;
  const base = before(destination, "#");
  const handedOn = `${substitution(base, captures)}${base.includes("?") ? "&" : "?"}%{QUERY_STRING}${substitution(from(destination, "#"), captures)}`;
  return [...one(handedOn, [], ['RewriteCond "%{QUERY_STRING}" "."']), ...dropped];
}

function flagsOf(rule: ExactRule | PatternRule, more: readonly string[]): string {
  const robots = ROBOTS[rule.robots];
  const flags = [
    ...(rule.destination === null ? ["G", "L"] : [`R=${rule.status}`, "L", "NE"]),
    ...more,
    ...(robots ? [`E=maprope_${robots}:1`] : []),
    ...(rule.caseInsensitive ? ["NC"] : []),
  ];
  return `[${flags.join(",")}]`;
}

// In a substitution % and $ begin back-references; captures come from the condition, with %.
function substitution(destination: string, captures: boolean): string {
  return quoted(
    destination.replace(/[\\%$](?:[1-9])?/g, (sign) =>
      captures && /^\$[1-9]$/.test(sign) ? `%${sign[1]}` : `\\${sign}`,
    ),
  );
}

// Apache takes a backslash before a quotation mark for itself and leaves every other as it is.
function quoted(text: string): string {
  return text.replaceAll('"', '\\"');
}
