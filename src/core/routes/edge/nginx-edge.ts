import { EDGE_LOG, EDGE_LOG_FORMAT } from "../../clicks/edge-log.ts";
import type { EdgeEntry, EdgeSite } from "./edge-route.ts";
import { LAST_SIGNS, NGINX_MAPS } from "./nginx-maps.ts";

/** What an edge is besides its routes. */
export interface EdgeOptions {
  /** Where the rest is passed to: host and port of an installation, `http://` before them. */
  upstream: string;
  /** Values of `listen`, such as `80` or `443 ssl`. */
  listen: readonly string[];
  /** The file that its clicks are written down in. */
  log: string;
  /** Files that are included in each server: certificates and the like. */
  includes: readonly string[];
  /** Folder of the maps of routes. */
  folder: string;
}

const SAFE = "[A-Za-z0-9\\-._~!$&'()*+,;=:@/]";

/** The line of an entry in its map. */
export function nginxLine(site: EdgeSite, { host, key, value }: EdgeEntry): string {
  return `"${host ?? site.id}${key}" "${written(value)}";\n`;
}

// In values a dollar begins a variable; a literal one is written as a variable that holds it. In keys it is itself.
function written(text: string): string {
  if (!/["\\$]/.test(text)) return text;
  return text.replace(/["\\]/g, "\\$&").replace(/\$/g, "${maprope_dollar}");
}

/**
 * The configuration of an edge, to be included in nginx's `http` block: it answers exact routes whose path and query are in
 * plain form, asked for with GET or HEAD; everything else is passed on. `most` and `longest`, of entries in a map and of signs in a key, size its tables.
 */
export function nginxEdge(
  sites: readonly EdgeSite[],
  options: EdgeOptions,
  { most, longest }: { most: number; longest: number },
): string {
  const { listen, log, includes, folder } = options;
  const upstream = options.upstream.replace(/^https?:\/\//, "").replace(/\/$/, "");
  const scheme = /^https:/.test(options.upstream) ? "https" : "http";
  const hosts = sites.flatMap(({ id, hosts: of }) => of.map((host) => [host, id] as const));
  return [
    "# Written by Map Rope; what is changed here is lost. Include this file in the http block of nginx.",
    `map_hash_max_size ${Math.max(8192, (most + hosts.length) * 2)};`,
    // Sixteen addresses that fall together: with room for one, nginx tries a thousand tables before it takes one (10 s of a million).
    `map_hash_bucket_size ${Math.ceil(((longest + 48) * 16) / 64) * 64};`,
    "variables_hash_max_size 2048;",
    'geo $maprope_dollar { default "$"; }',
    EDGE_LOG_FORMAT,
    "",
    "map $host $maprope_site {",
    '  default "";',
    ...hosts.map(([host, id]) => `  "${host}" ${id};`),
    "}",
    "# The path as it was asked for, without slashes at its end, where it and its query are in plain form.",
    'map "$request_method $request_uri" $maprope_plain {',
    '  default "";',
    `  "~^(?:GET|HEAD) (?![^?]*/\\\\.)(?<maprope_key>/${SAFE}*?)/*(?:\\\\?(?:${SAFE}|[?]|%[0-9A-Fa-f][0-9A-Fa-f])*)?\\\\z" $maprope_key;`,
    "}",
    'map $maprope_plain $maprope_last { default ""; "~(?<maprope_sign>.)\\z" $maprope_sign; }',
    "map $maprope_last $maprope_part {",
    `  default ${LAST_SIGNS.length};`,
    ...LAST_SIGNS.flatMap((signs, at) => [...signs].map((sign) => `  ${sign} ${at};`)),
    "}",
    ...NGINX_MAPS.map(
      (name) =>
        `map "${name.startsWith("host") ? "$host" : "$maprope_site"}$maprope_plain" $maprope_in_${name} { default ""; include ${folder}/${name}.map; }`,
    ),
    ...["host", "site"].flatMap((of) => [
      `map $maprope_part $maprope_on_${of} {`,
      ...[...LAST_SIGNS, ""].map((_, at) => `  ${at} $maprope_in_${of}_${at};`),
      "}",
    ]),
    'map $maprope_on_host $maprope_entry { "" $maprope_on_site; default $maprope_on_host; }',
    "# Status, query, robots, route, the path where letter case counts, and where it leads, in two parts.",
    'map "$maprope_plain $maprope_entry" $maprope_answers {',
    '  default "";',
    '  "~^(\\\\S+) (?<maprope_status>30[12378]) (?<maprope_query>[df]) (?<maprope_robots>[-nob]) (?<maprope_route>\\\\d+) (?:-|\\\\1) (?<maprope_to>[^ #]*)(?<maprope_heading>\\\\S*)\\\\z" 1;',
    "}",
    'map "$maprope_query|$maprope_to|$args" $maprope_args {',
    '  default "";',
    '  "~^f\\\\|[^?|]*\\\\|(?<maprope_alone>.+)\\\\z" "?$maprope_alone";',
    '  "~^f\\\\|[^|]*\\\\?[^|]*\\\\|(?<maprope_more>.+)\\\\z" "&$maprope_more";',
    "}",
    'map $maprope_robots $maprope_robots_told { default ""; n noindex; o nofollow; b "noindex, nofollow"; }',
    'map $maprope_status $maprope_cache { default "private, no-store"; ~^30[18] "public, max-age=3600"; }',
    'map "$maprope_answers:$maprope_route" $maprope_counted { default ""; "~^1:[1-9]" 1; }',
    "map $http_upgrade $maprope_connection { default upgrade; '' ''; }",
    `upstream maprope { server ${upstream}; keepalive 64; }`,
    "",
    ...(hosts.length === 0
      ? []
      : [
          "server {",
          ...listen.map((one) => `  listen ${one};`),
          `  server_name ${[...hosts.map(([host]) => host), ...sites.flatMap(({ former }) => former)].join(" ")};`,
          ...includes.map((file) => `  include ${file};`),
          "  merge_slashes off;",
          "  absolute_redirect off;",
          "  server_tokens off;",
          "  location / {",
          `    access_log ${log} ${EDGE_LOG} if=$maprope_counted;`,
          '    set $maprope_code "";',
          "    if ($maprope_answers) { set $maprope_code $maprope_status; }",
          ...["301", "302", "303", "307", "308"].map(
            (status) =>
              `    if ($maprope_code = ${status}) { add_header Cache-Control $maprope_cache always; add_header X-Robots-Tag $maprope_robots_told always; return ${status} "$maprope_to$maprope_args$maprope_heading"; }`,
          ),
          `    proxy_pass ${scheme}://maprope;`,
          "    proxy_http_version 1.1;",
          "    proxy_set_header Host $host;",
          "    proxy_set_header X-Forwarded-For $remote_addr;",
          "    proxy_set_header X-Forwarded-Proto $scheme;",
          "    proxy_set_header Upgrade $http_upgrade;",
          "    proxy_set_header Connection $maprope_connection;",
          "    proxy_request_buffering off;",
          "    proxy_read_timeout 300s;",
          "    client_max_body_size 0;",
          "  }",
          "}",
        ]),
    "",
  ].join("\n");
}
