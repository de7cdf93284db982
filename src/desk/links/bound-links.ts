import { ownPlace } from "../../core/address/classify.ts";
import type { Body } from "../../core/pages/body/body.ts";
import { findLinks } from "../../core/links/find.ts";
import { movedTo } from "../../core/links/rewrite/deliver.ts";
import { rewriteLinks } from "../../core/links/rewrite/rewrite.ts";
import type { LinkResolver } from "../../core/rules/resolve/link-facts.ts";
import type { PageRow } from "../../store/ground/models.ts";
import type { OpenSite } from "../sites/open-site.ts";
import type { WithStore } from "../ground/parts.ts";
import { pagesAtKeys, pathsOfPages } from "../../store/pages/places.ts";

/**
 * Remembers for each inside link which page stands at its path, so that the link follows when that page moves.
 * What a link was bound to before stays, also while no page has the path any more.
 */
export async function bindLinks(
  desk: WithStore,
  site: OpenSite,
  html: string,
  before: Readonly<Record<string, string>>,
): Promise<Record<string, string>> {
  const keys = [...new Set(findLinks(html).flatMap(({ href }) => ownPlace(href, site.hostNames)?.key ?? []))];
  if (keys.length === 0) return {};
  const rows = await pagesAtKeys(desk.store, { site: site.id, keys });
  const there = new Map(rows.map(({ key, id }) => [key, id]));
  for (const { publishedKey, id } of rows) if (publishedKey) there.set(publishedKey, id);
  return Object.fromEntries(
    keys.flatMap((key) => {
      const id = before[key] ?? there.get(key);
      return id === undefined ? [] : [[key, id]];
    }),
  );
}

/** The paths that these pages have for readers now, or in draft when they are not published. */
export async function pagePaths(
  core: WithStore,
  site: OpenSite,
  ids: readonly string[],
): Promise<ReadonlyMap<string, string>> {
  if (ids.length === 0) return new Map();
  const rows = await pathsOfPages(core.store, { site: site.id, ids });
  return new Map(rows.map(({ id, path }) => [id, path]));
}

/** The site's resolver with the paths of the pages that links are bound to. */
export async function withPagePaths(
  desk: WithStore,
  site: OpenSite,
  resolver: LinkResolver,
  bound: Readonly<Record<string, string>> = {},
): Promise<LinkResolver> {
  const paths = await pagePaths(desk, site, [...new Set(Object.values(bound))]);
  return { ...resolver, pagePath: (id) => paths.get(id) };
}

/** Stored HTML with the addresses of links that have moved; the same when none has. */
export function withMovedLinks(html: string, moved: (href: string) => string | undefined): string {
  return rewriteLinks(html, ({ href, rel, target }) => ({ rel, target, href: moved(href) }), {
    keepOverride: true,
  });
}

/** A page's HTML and body with inside links leading to where their pages are now, for the author to see. */
export async function followMovedPages(
  desk: WithStore,
  site: OpenSite,
  { html, body, bound }: Pick<PageRow, "html" | "body" | "bound">,
): Promise<{ html: string; body: Body }> {
  const paths = await pagePaths(desk, site, [...new Set(Object.values(bound))]);
  const resolver = { hosts: site.hostNames, pagePath: (id: string) => paths.get(id) };
  const moved = (href: string): string | undefined => movedTo(href, bound, resolver);
  if (!findLinks(html).some(({ href }) => moved(href) !== undefined)) return { html, body };
  return { html: withMovedLinks(html, moved), body: withMoved(body, moved) as Body };
}

function withMoved(node: unknown, moved: (href: string) => string | undefined): unknown {
  if (Array.isArray(node)) return node.map((one) => withMoved(one, moved));
  if (typeof node !== "object" || node === null) return node;
  return Object.fromEntries(
    Object.entries(node).map(([name, value]) => [
      name,
      name === "href" && typeof value === "string" ? (moved(value) ?? value) : withMoved(value, moved),
    ]),
  );
}
