/** What stands at the places of a site, as whoever asks knows it: R is a route there, P a page. */
export interface StandingAt<R, P> {
  /** The exact route of this place, on this host or on every host. */
  routeAt(host: string, key: string): R | undefined;
  pageAt(host: string, key: string): P | undefined;
  /** The path of the file there. */
  fileAt(key: string): string | undefined;
  /** The route that matches this place by its beginning or its form, the closest. */
  patternAt(host: string, key: string): R | undefined;
}

export type StandingThere<R, P> =
  { by: "route"; route: R } | { by: "page"; page: P } | { by: "file"; path: string };

/**
 * What of a site answers a place: an exact route, else a page, else a file, else a route that matches it; undefined when
 * nothing does. The one statement of that order: delivery's index, the desk's snapshots, the linter and imports ask here.
 */
export function whatAnswers<R, P>(
  site: StandingAt<R, P>,
  host: string,
  key: string,
): StandingThere<R, P> | undefined {
  const route = site.routeAt(host, key);
  if (route !== undefined) return { by: "route", route };
  const page = site.pageAt(host, key);
  if (page !== undefined) return { by: "page", page };
  const path = site.fileAt(key);
  if (path !== undefined) return { by: "file", path };
  const pattern = site.patternAt(host, key);
  return pattern === undefined ? undefined : { by: "route", route: pattern };
}
