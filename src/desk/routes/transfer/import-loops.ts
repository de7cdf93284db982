import { whatAnswers, type StandingAt } from "../../../core/routes/chain/what-answers.ts";
import { MAX_HOPS } from "../../../core/address/max-hops.ts";
import { ownPlace } from "../../../core/address/classify.ts";
import { caseFoldedKey, pathKey } from "../../../core/address/path-key.ts";
import { readRouteKey } from "../../../core/routes/match/address-form.ts";
import { withCaptures } from "../../../core/routes/match/captures.ts";
import { PatternTable } from "../../../core/routes/match/pattern-table.ts";
import { samplesOf } from "../../../core/routes/match/samples.ts";
import type { RouteValues } from "../route-values.ts";
import type { OpenSite } from "../../sites/open-site.ts";
import type { WithStore } from "../../ground/parts.ts";
import { destinationsAt, patternsSharing } from "../../../store/routes/places.ts";
import { publishedKeysAmong } from "../../../store/pages/places.ts";

/** A line of an import that would be taken. */
export interface Planned {
  line: number;
  values: RouteValues;
  keys: string[];
  /** The route at this address that it changes. */
  existing?: { id: string; version: number };
}

/** A place on the site that a line's destination has come to. */
interface Walker {
  one: Planned;
  host: string;
  key: string;
  seen: readonly string[];
}

/** What answers several addresses: a route that is there, or a line that would be. */
interface Answering {
  destination: string | null;
  one: Planned | undefined;
}

/**
 * The lines that would go round in a circle: destinations on our own site are walked through what is there and what
 * would be, all lines one hop at a time. Of a line that answers many addresses some are tried.
 */
export async function loopingLines(
  core: WithStore,
  site: OpenSite,
  planned: readonly Planned[],
): Promise<Set<number>> {
  const fresh = new Map<string, Planned>();
  for (const one of planned)
    if (one.values.enabled && one.values.match === "exact")
      for (const key of one.keys) fresh.set(`${one.values.host ?? "*"} ${key}`, one);
  const patterns = await patternsWith(core, site, planned);
  const stored = new Map<string, string | null>();
  const looping = new Set<number>();
  let walking = planned.flatMap((one) => (one.values.enabled ? begin(site, patterns, one) : []));
  for (let hop = 0; hop <= MAX_HOPS && walking.length > 0; hop += 1) {
    await lookUp(core, site, walking, stored, patterns.size > 0);
    walking = walking.flatMap((walker) => {
      const to = nextOf(walker, fresh, stored, patterns);
      const further = to === undefined ? undefined : stepTo(site, walker, to);
      if (!further) return [];
      if (hop < MAX_HOPS && !further.seen.includes(`${further.host} ${further.key}`)) return [further];
      looping.add(walker.one.line);
      return [];
    });
  }
  return looping;
}

// Where a line leads at first; one that answers many addresses is asked with some of them.
function begin(site: OpenSite, patterns: PatternTable<Answering>, one: Planned): Walker[] {
  const { match, destination, host, address, aliases } = one.values;
  if (destination === null) return [];
  const hosts = host === null ? site.hostNames : [host];
  const asked = match === "exact" ? [address, ...aliases].map(pathKey) : samplesOf(address, match);
  return hosts.flatMap((on) =>
    asked.flatMap((key) => {
      const hit =
        match === "exact" ? undefined : patterns.find(on, key).find(({ entry }) => entry.one === one);
      const to = match === "exact" ? destination : hit && withCaptures(destination, hit.captures);
      if (to === undefined) return [];
      // A short link forgives letter case: it is told by its caseInsensitive key.
      const start = match === "exact" && one.keys[0] === caseFoldedKey(key) ? caseFoldedKey(key) : key;
      return stepTo(site, { one, host: on, key: start, seen: [] }, to) ?? [];
    }),
  );
}

function stepTo(site: OpenSite, { one, host, key, seen }: Walker, destination: string): Walker | undefined {
  const place = ownPlace(destination, site.hostNames);
  // A path leads to the primary host, from whichever host it is asked.
  return (
    place && { one, host: place.host ?? site.primary, key: place.key, seen: [...seen, `${host} ${key}`] }
  );
}

// The destination at a place; undefined where nothing leads on from it.
function nextOf(
  { host, key }: Walker,
  fresh: ReadonlyMap<string, Planned>,
  stored: ReadonlyMap<string, string | null>,
  patterns: PatternTable<Answering>,
): string | undefined {
  const names = [key, caseFoldedKey(key)].flatMap((one) => [`${host} ${one}`, `* ${one}`]);
  const standing: StandingAt<{ to: string | null | undefined }, true> = {
    routeAt: () => {
      const line = names.map((name) => fresh.get(name)).find(Boolean);
      if (line) return { to: line.values.destination };
      const to = names.map((name) => stored.get(name)).find(Boolean);
      return to ? { to } : undefined;
    },
    pageAt: () => stored.has(`page ${key}`) || undefined,
    fileAt: () => undefined,
    patternAt: () => {
      const [hit] = patterns.find(host, key);
      return hit?.entry.destination ? { to: withCaptures(hit.entry.destination, hit.captures) } : undefined;
    },
  };
  const there = whatAnswers(standing, host, key);
  return there?.by === "route" ? (there.route.to ?? undefined) : undefined;
}

async function lookUp(
  core: WithStore,
  site: OpenSite,
  walking: readonly Walker[],
  stored: Map<string, string | null>,
  pages: boolean,
): Promise<void> {
  const keys = [...new Set(walking.flatMap(({ key }) => [key, caseFoldedKey(key)]))].filter(
    (key) => !stored.has(`* ${key}`),
  );
  if (keys.length === 0) return;
  const bind = { site: site.id, keys };
  const rows = await destinationsAt(core.store, bind);
  for (const key of keys) stored.set(`* ${key}`, null);
  for (const { host, key, destination } of rows) stored.set(`${host} ${key}`, destination);
  if (!pages) return;
  const standing = await publishedKeysAmong(core.store, bind);
  for (const { key } of standing) stored.set(`page ${key}`, null);
}

// What answers more than one address each: routes that are there, save those that lines change, and lines.
async function patternsWith(
  core: WithStore,
  site: OpenSite,
  planned: readonly Planned[],
): Promise<PatternTable<Answering>> {
  const table = new PatternTable<Answering>();
  const changed = planned.flatMap(({ existing }) => existing?.id ?? []);
  const rows = await patternsSharing(core.store, { site: site.id, changed });
  for (const { id, host, key, caseInsensitive, destination } of rows)
    add(table, host === "*" ? null : host, key, caseInsensitive, { destination, one: undefined }, Number(id));
  for (const one of planned) {
    const { enabled, match, host, kind, destination } = one.values;
    if (!enabled || match === "exact") continue;
    for (const key of one.keys)
      add(
        table,
        host,
        key,
        kind === "short",
        { destination, one },
        one.existing ? Number(one.existing.id) : Infinity,
      );
  }
  return table;
}

function add(
  table: PatternTable<Answering>,
  host: string | null,
  stored: string,
  caseInsensitive: boolean,
  entry: Answering,
  age: number,
): void {
  const { match, key } = readRouteKey(stored);
  if (match !== "exact") table.add({ match, host, key, caseInsensitive }, entry, age);
}
