import { whatAnswers, type StandingAt } from "../../core/routes/chain/what-answers.ts";
import { AnyLetters } from "../../core/address/any-letters.ts";
import { machineDocument } from "../../core/sites/machine-documents.ts";
import { spelledPath } from "../../core/sites/spelling.ts";
import { compareKey } from "../../core/address/compare.ts";
import { ownPlace } from "../../core/address/classify.ts";
import { caseFoldedKey } from "../../core/address/path-key.ts";
import { publicAddress } from "../../core/address/public-address.ts";
import type { OtherRoute, RouteSurroundings } from "../../core/routes/advise.ts";
import { literalOf, type PatternTable } from "../../core/routes/match/pattern-table.ts";
import { readRouteKey } from "../../core/routes/match/address-form.ts";
import { MAX_HOPS } from "../../core/address/max-hops.ts";
import { leadsBack } from "../../core/routes/chain/leads-back.ts";
import type { ElsewhereAnswer, OwnAnswer, OwnSite, RouteAnswer } from "../../core/routes/chain/own-site.ts";
import { swapsOf } from "../../core/rules/swaps/swapped.ts";
import type { LinkResolver } from "../../core/rules/resolve/link-facts.ts";
import { answerOfRoute, routeThere, type RouteThere } from "../routes/route-there.ts";
import { patternsOf } from "../routes/site-patterns.ts";
import type { OpenSite } from "../sites/open-site.ts";
import type { WithStore, WithDeliveryPort } from "../ground/parts.ts";
import { routesAtKeys, routesAlike } from "../../store/routes/places.ts";
import { type PageThere, pagesStandingAt } from "../../store/pages/places.ts";
import { filesAtPaths } from "../../store/files/files.ts";
import { contentRoutes } from "../../store/routes/destinations.ts";
import { readingsAtKeys, type ReadingThere } from "../../store/origin/readings.ts";
import { badHealthNotes } from "../../store/trace/route-health.ts";

/** A route that stands in content in place of its raw destination. */
interface InContent {
  url: string;
  pages: readonly string[] | null;
}

/** What stands at some places of a site, looked up once; answers questions of core without further queries. */
export class SiteSnapshot {
  private readonly routes = new Map<string, RouteThere[]>();
  private readonly pages = new Map<string, PageThere>();
  private readonly files = new Set<string>();
  /** Keys of published pages and of files, as they are found in any letter case. */
  private readonly letters = new AnyLetters();
  private readonly near = new Map<string, RouteThere[]>();
  private readonly bad = new Map<string, string>();
  /** What became of pages of the site that stand elsewhere, by their path keys. */
  private readonly readings = new Map<string, ReadingThere>();
  private readonly site: OpenSite;
  private readonly patterns: PatternTable<RouteThere>;
  private readonly inContent: ReadonlyMap<string, InContent>;
  private readonly deliveryPort: number;

  constructor(
    site: OpenSite,
    patterns: PatternTable<RouteThere>,
    inContent: ReadonlyMap<string, InContent>,
    deliveryPort: number,
  ) {
    this.site = site;
    this.patterns = patterns;
    this.inContent = inContent;
    this.deliveryPort = deliveryPort;
  }

  addRoute(route: RouteThere): void {
    const others = (this.routes.get(route.key) ?? []).filter((other) => other.id !== route.id);
    this.routes.set(route.key, [...others, route]);
  }

  addNear(route: RouteThere): void {
    const key = route.key.toLowerCase();
    this.near.set(key, [...(this.near.get(key) ?? []), route]);
  }

  addBad(destination: string, note: string): void {
    this.bad.set(destination, note);
  }

  addFile(path: string): void {
    this.files.add(path);
    this.letters.add(path);
  }

  addReading(reading: ReadingThere): void {
    this.readings.set(reading.key, reading);
  }

  /** Where a page of ours that stands elsewhere leads on to when it is asked for; undefined where it does not. */
  movedFrom(key: string): string | undefined {
    const there = this.readings.get(key);
    return there?.state === "moved" && !this.pages.has(key) ? (there.leadsTo ?? undefined) : undefined;
  }

  // Of a site that stands elsewhere not all is known: what was not asked for yet is taken to be there.
  private standsElsewhere(host: string | null, key: string): boolean {
    if (!this.site.origin || !this.servesPages(host ?? this.site.primary)) return false;
    return this.readings.get(key)?.state !== "gone";
  }

  private elsewhereAt(host: string | null, key: string): ElsewhereAnswer | undefined {
    if (!this.standsElsewhere(host, key)) return undefined;
    const to = this.movedFrom(key);
    return { by: "elsewhere", status: to === undefined ? 200 : 301, destination: to ?? null };
  }

  addPage(page: PageThere): void {
    this.pages.set(page.key, page);
    if (page.published) this.letters.add(page.key);
  }

  /** The exact route that answers this place, or that claims it while switched off. Host null asks for all hosts at once. */
  routeAt(host: string | null, key: string): RouteThere | undefined {
    const caseInsensitive = (this.routes.get(caseFoldedKey(key)) ?? []).filter(
      (route) => route.caseInsensitive,
    );
    const there = [...(this.routes.get(key) ?? []), ...caseInsensitive];
    return (
      there.find((route) => host === null || route.host === host) ?? there.find((route) => route.host === "*")
    );
  }

  pageAt(key: string): PageThere | undefined {
    return this.pages.get(key);
  }

  // The page that readers get at a place; host null asks for all hosts at once.
  private pageServedAt(host: string | null, key: string): PageThere | undefined {
    const page = [key, this.inAnyLetters(key)]
      .map((one) => this.pages.get(one))
      .find((one) => one?.published);
    return page && (host === null || this.servesPages(host)) ? page : undefined;
  }

  private fileAt(key: string): string | undefined {
    const file = [key, this.inAnyLetters(key)].find((one) => this.files.has(one));
    return file ?? (machineDocument(key) ? key : undefined);
  }

  private inAnyLetters(key: string): string {
    return (this.site.delivered.anyLetters ? this.letters.find(key) : undefined) ?? key;
  }

  private servesPages(host: string): boolean {
    return this.site.hosts.some(({ name, role }) => name === host && role !== "short");
  }

  private spelled(page: PageThere): string {
    return spelledPath(page.path, this.site.delivered.slashes);
  }

  /** The site at a moment, as whoever follows an address needs it; without one of its routes when that is asked. */
  ownSite(
    now: number,
    except?: string,
    closest?: (host: string, key: string) => string | undefined,
  ): OwnSite {
    const { site } = this;
    // Delivery sends nobody to the address that was just asked for: such a route stands aside there.
    const answers = (route: RouteAnswer | undefined, host: string, key: string): RouteAnswer | undefined =>
      route && route.destination !== null && leadsBack(route.destination, host, key, site.primary)
        ? undefined
        : route;
    const standing: StandingAt<RouteAnswer, PageThere> = {
      routeAt: (host, key) => {
        const exact = this.routeAt(host, key);
        return exact && exact.id !== except ? answers(answerOfRoute(exact, now), host, key) : undefined;
      },
      pageAt: (host, key) => this.pageServedAt(host, key),
      fileAt: (key) => this.fileAt(key),
      patternAt: (host, key) => {
        for (const { entry, captures } of this.patterns.find(host, key)) {
          const one =
            entry.id === except ? undefined : answers(answerOfRoute(entry, now, captures), host, key);
          if (one) return one;
        }
        return undefined;
      },
    };
    const answerAt = (asked: string | null, key: string): OwnAnswer => {
      const host = asked ?? site.primary;
      const there = whatAnswers(standing, host, key);
      if (there?.by === "route") return there.route;
      if (there?.by === "page")
        return {
          by: "page",
          id: there.page.id,
          title: there.page.title,
          status: 200,
          path: this.spelled(there.page),
        };
      if (there) return { by: "file", status: 200, path: there.path };
      if (key === "/" && site.hosts.some(({ name, role }) => name === host && role === "short")) {
        const { shortRoot = "/" } = site.delivered;
        const destination = leadsBack(shortRoot, host, key, site.primary) ? "/" : shortRoot;
        return { by: "miss", rule: "root", status: 302, destination };
      }
      const elsewhere = this.elsewhereAt(asked, key);
      if (elsewhere) return elsewhere;
      const { misses } = site;
      if (
        misses.answer === "destination" &&
        misses.destination !== undefined &&
        !leadsBack(misses.destination, host, key, site.primary)
      )
        return {
          by: "miss",
          rule: "destination",
          status: misses.seconds ? 200 : 302,
          destination: misses.destination,
        };
      const one = misses.answer === "closest" ? closest?.(host, key) : undefined;
      return one === undefined
        ? { by: "miss", rule: "help", status: 404, destination: null }
        : { by: "miss", rule: "closest", status: 302, destination: one };
    };
    return {
      hosts: site.hostNames,
      primary: site.primary,
      answerAt,
      absolute: (path) => publicAddress(site.primary, path, this.deliveryPort),
    };
  }

  /** The site as rules and classification see it; a path without a host is one of the primary host. */
  linkResolver(): LinkResolver {
    const standing: StandingAt<{ destination: string | null }, PageThere> = {
      routeAt: (host, key) => {
        const exact = this.routeAt(host, key);
        return exact?.enabled ? exact : undefined;
      },
      pageAt: (_host, key) => this.pages.get(key) ?? this.pages.get(this.inAnyLetters(key)),
      fileAt: (key) => this.fileAt(key),
      patternAt: (host, key) => {
        const [hit] = this.patterns.find(host, key);
        // A link is judged by where its route leads in its time, whenever that is.
        return hit && answerOfRoute({ ...hit.entry, from: 0, until: Infinity }, 0, hit.captures);
      },
    };
    const answering = (asked: string | null, key: string) =>
      whatAnswers(standing, asked ?? this.site.primary, key);
    return {
      hosts: this.site.hostNames,
      partners: this.site.partners,
      swapped: (href) => swapsOf(this.site.swaps)(href)?.address,
      answers: (host, key) =>
        answering(host, key)?.by ?? (this.standsElsewhere(host, key) ? "page" : undefined),
      spelled: (host, key) => {
        const there = answering(host, key);
        if (there?.by === "file") return there.path;
        return there?.by === "page" && there.page.published ? this.spelled(there.page) : undefined;
      },
      routeDestination: (host, key) => {
        const there = answering(host, key);
        return there?.by === "route" ? (there.route.destination ?? undefined) : undefined;
      },
      inContent: (href, page) => {
        if (this.inContent.size === 0) return undefined;
        const found = this.inContent.get(compareKey(href));
        return found && (!found.pages || (page !== undefined && found.pages.includes(page)))
          ? found.url
          : undefined;
      },
    };
  }

  /** The site as the route linter sees it, without the route that is being saved. */
  surroundings(now: number, except?: string): RouteSurroundings {
    const other = (route: RouteThere | undefined): OtherRoute | undefined =>
      route && route.id !== except
        ? { id: route.id, address: route.address, destination: route.destination }
        : undefined;
    // A “miss” that leads on by the site's choice would hide that nothing answers.
    const own = this.ownSite(now, except);
    return {
      ...own,
      answerAt: (host, key) => {
        const answer = own.answerAt(host, key);
        return answer.by === "miss" ? { by: "miss", rule: "help", status: 404, destination: null } : answer;
      },
      claimAt: (host, key) => other(this.routeAt(host, key)),
      pageAt: (host, key) => this.pageServedAt(host, key),
      patternAt: (host, key) => {
        const hit = this.patterns
          .find(host ?? this.site.primary, key)
          .find(({ entry }) => entry.id !== except);
        const place = hit && readRouteKey(hit.entry.key);
        return place && place.match !== "exact"
          ? { ...other(hit.entry)!, literal: literalOf({ match: place.match, key: place.key }) }
          : undefined;
      },
      nearTo: (host, key) =>
        other(
          (this.near.get(key.toLowerCase()) ?? []).find(
            (route) =>
              route.id !== except &&
              route.key !== key &&
              (host === null || route.host === "*" || route.host === host),
          ),
        ),
      answersBadly: (destination) => this.bad.get(destination),
    };
  }
}

/** Looks up what stands at these addresses and keys, and at what they lead on to, in a few queries whatever their number. */
export async function snapshotSite(
  desk: WithStore & WithDeliveryPort,
  site: OpenSite,
  addresses: readonly string[],
  keys: readonly string[] = [],
): Promise<SiteSnapshot> {
  const { store } = desk;
  const [patterns, inContent] = await Promise.all([patternsOf(store, site.id), routesInContent(desk, site)]);
  const snapshot = new SiteSnapshot(site, patterns, inContent, desk.deliveryPort);
  const { anyLetters, shortRoot } = site.delivered;
  const swap = swapsOf(site.swaps);
  const seen = new Set<string>();
  const keyOf = (address: string | null): string[] => {
    const place = address === null ? undefined : ownPlace(address, site.hostNames);
    return place ? [place.key] : [];
  };
  let wanted = [
    ...keys,
    ...addresses.flatMap((address) => [address, swap(address)?.address ?? []].flat().flatMap(keyOf)),
    ...[site.misses.destination, shortRoot].flatMap((to) => keyOf(to ?? null)),
  ];
  for (let hop = 0; hop <= MAX_HOPS && wanted.length > 0; hop += 1) {
    const fresh = [...new Set(wanted.flatMap((key) => [key, caseFoldedKey(key)]))].filter(
      (key) => !seen.has(key),
    );
    if (fresh.length === 0) break;
    for (const key of fresh) seen.add(key);
    const [routes, pages, files, readings] = await Promise.all([
      routesAtKeys(store, {
        site: site.id,
        keys: fresh,
      }),
      pagesStandingAt(store, { site: site.id, keys: fresh, anyLetters }),
      filesAtPaths(store, { site: site.id, keys: fresh, anyLetters }),
      site.origin ? readingsAtKeys(store, { site: site.id, keys: fresh }) : [],
    ]);
    for (const reading of readings) snapshot.addReading(reading);
    for (const { path } of files) snapshot.addFile(path);
    for (const page of pages) snapshot.addPage(page);
    const there = routes.map(routeThere);
    for (const route of there) snapshot.addRoute(route);
    wanted = [
      ...there.flatMap((route) => [...keyOf(route.destination), ...keyOf(route.endDestination)]),
      ...beyondPatterns(patterns, site, fresh).flatMap(keyOf),
    ];
  }
  return snapshot;
}

// Where prefix, wildcard and pattern routes would lead from these keys.
function beyondPatterns(
  patterns: PatternTable<RouteThere>,
  site: OpenSite,
  keys: readonly string[],
): string[] {
  if (patterns.size === 0) return [];
  return keys.flatMap((key) =>
    site.hostNames.flatMap((host) =>
      patterns.find(host, key).flatMap(({ entry, captures }) => {
        const answer = answerOfRoute({ ...entry, from: 0, until: Infinity }, 0, captures);
        return [answer?.destination, entry.endDestination].filter(
          (to): to is string => typeof to === "string",
        );
      }),
    ),
  );
}

async function routesInContent(
  desk: WithStore & WithDeliveryPort,
  site: OpenSite,
): Promise<Map<string, InContent>> {
  const rows = await contentRoutes(desk.store, { site: site.id });
  return new Map(
    rows.map(({ key, host, address, pages }) => [
      key,
      { url: publicAddress(host ?? site.primary, address, desk.deliveryPort), pages },
    ]),
  );
}

/** Adds what the linter wants besides: addresses that differ in letter case only, and destinations known to answer badly. */
export async function snapshotForAdvice(
  desk: WithStore,
  site: OpenSite,
  snapshot: SiteSnapshot,
  keys: readonly string[],
  destination: string | null,
): Promise<void> {
  const rows = await routesAlike(desk.store, { site: site.id, keys: keys.map((key) => key.toLowerCase()) });
  for (const row of rows) snapshot.addNear(routeThere(row));
  if (destination === null) return;
  const [bad] = await badHealthNotes(desk.store, { destination });
  if (bad) snapshot.addBad(destination, bad.note);
}
