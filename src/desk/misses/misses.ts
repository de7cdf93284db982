import { rootless } from "../../core/address/host.ts";
import { missesLetGo } from "../../store/misses/miss-keeping.ts";
import { z } from "zod";
import { pathKey } from "../../core/address/path-key.ts";
import type {
  Miss,
  MissesAnswered,
  missAnswerSchema,
  missesAnswerSchema,
  missesIgnoredSchema,
  MissSummary,
} from "../../core/misses/miss.ts";
import type { Route } from "../../core/routes/route.ts";
import { closestAddresses } from "../../core/misses/closest.ts";
import { proposePatterns } from "../../core/misses/propose-patterns.ts";
import type { MissRow, Row } from "../../store/ground/models.ts";
import { containing } from "../../store/ground/like.ts";
import { listing, orderBy } from "../ground/lists.ts";
import { notFound, Problem } from "../ground/problem.ts";
import { knownAddresses } from "./known-addresses.ts";
import { createRoute } from "../routes/routes.ts";
import type { OpenSite } from "../sites/open-site.ts";
import { audited, type Actor } from "../ground/audit.ts";
import type { WithStore, WithDeliveryPort } from "../ground/parts.ts";
import { cursorOffset, type Listing } from "../../contract/ground/lists.ts";
import { missesQuery } from "../../contract/misses.ts";

const SORT = { lastSeen: "last_seen", times: "times", address: "key", host: "host" };
const MAX_PROPOSED_FROM = 5_000;
// A scanner's address is one whoever asks for it; what no person asked for is a robot's.
const GROUP = {
  people: "NOT probe AND times > 0",
  robots: "NOT probe AND times = 0",
  scanners: "probe",
} as const;

/** Requests that nothing answered and that nobody has dealt with yet, with what their askers may have meant. */
export async function listMisses(
  desk: WithStore & WithDeliveryPort,
  site: OpenSite,
  query: z.infer<typeof missesQuery>,
): Promise<Listing<Miss>> {
  const where = [
    "site_id = $site::bigint AND resolved_at IS NULL",
    query.ignored === "1" ? "ignored_at IS NOT NULL" : "ignored_at IS NULL",
    query.group ? GROUP[query.group] : "true",
    query.q ? "key ILIKE $q" : "true",
  ].join(" AND ");
  const rows = await desk.store.rows<{
    id: string;
    host: string;
    key: string;
    times: number;
    bots: number;
    first: Date;
    last: Date;
    referrers: string[];
    total: string;
  }>(
    `SELECT id::text, host, key, times, bots, first_seen AS first, last_seen AS last, referrers, count(*) OVER ()::text AS total
     FROM misses WHERE ${where}
     ORDER BY ${orderBy(query.sort, SORT)}, id DESC LIMIT ${query.limit} OFFSET ${cursorOffset(query.cursor)}`,
    { site: site.id, ...(query.q ? { q: containing(query.q) } : {}) },
  );
  const known = query.group === "scanners" ? undefined : await knownAddresses(desk, site);
  const items = rows.map((row) => ({
    id: row.id,
    host: row.host,
    address: row.key,
    times: row.times,
    bots: row.bots,
    firstSeen: row.first.toISOString(),
    lastSeen: row.last.toISOString(),
    referrers: row.referrers,
    candidates: closestAddresses(row.key, known?.get(row.host) ?? [], 3).map(({ score: _, ...one }) => one),
  }));
  return listing(items, Number(rows[0]?.total ?? 0), query);
}

/** Answers a miss from now on with a redirect of its own; the miss leaves the list. */
export async function resolveMiss(
  desk: WithStore & WithDeliveryPort,
  actor: Actor,
  site: OpenSite,
  id: string,
  answer: z.infer<typeof missAnswerSchema>,
): Promise<{ route: Route }> {
  const miss = await missRow(desk, site, id);
  const route = await createRoute(desk, actor, site, {
    kind: "redirect",
    address: miss.key,
    host: miss.host === site.primary ? null : miss.host,
    destination: answer.destination,
    status: answer.status,
  });
  await miss.update({ resolvedAt: new Date() });
  return { route };
}

/** Answers several misses in one step. Those that cannot be are named with the reason; the others are answered. */
export async function resolveMisses(
  desk: WithStore & WithDeliveryPort,
  actor: Actor,
  site: OpenSite,
  { answers, status }: z.infer<typeof missesAnswerSchema>,
): Promise<MissesAnswered> {
  const result: MissesAnswered = { routes: [], refused: [] };
  for (const { id, destination } of answers) {
    try {
      result.routes.push((await resolveMiss(desk, actor, site, id, { destination, status })).route);
    } catch (error) {
      if (!(error instanceof Problem)) throw error;
      const miss = await desk.store.misses.findOne({ where: { id, siteId: site.id } });
      result.refused.push({ id, address: miss?.key ?? "", message: error.message });
    }
  }
  return result;
}

/** Takes misses out of the list without answering them, or back into it; they go on being counted. */
export async function ignoreMisses(
  desk: WithStore,
  actor: Actor,
  site: OpenSite,
  { ids, ignore }: z.infer<typeof missesIgnoredSchema>,
): Promise<void> {
  const entry = {
    siteId: site.id,
    action: "misses.ignore",
    object: "misses",
    detail: { ids: ids.length, ignore },
  };
  await audited(desk, actor, entry, (transaction) =>
    desk.store.misses.update(
      { ignoredAt: ignore ? new Date() : null },
      { where: { id: ids, siteId: site.id }, transaction },
    ),
  );
}

/** How many there are in each group, routes that would answer many at once, and what a redirect of all would hide. */
export async function missSummary(desk: WithStore & WithDeliveryPort, site: OpenSite): Promise<MissSummary> {
  const open = "site_id = $site::bigint AND resolved_at IS NULL AND ignored_at IS NULL";
  const [[counts], people, known, letGo] = await Promise.all([
    desk.store.rows<MissSummary["groups"] & { times: number }>(
      `SELECT count(*) FILTER (WHERE ${GROUP.people})::int AS people, count(*) FILTER (WHERE ${GROUP.robots})::int AS robots,
         count(*) FILTER (WHERE ${GROUP.scanners})::int AS scanners, coalesce(sum(times) FILTER (WHERE ${GROUP.people}), 0)::int AS times
       FROM misses WHERE ${open}`,
      { site: site.id },
    ),
    desk.store.rows<{ host: string; address: string; times: number; referrers: string[] }>(
      `SELECT host, key AS address, times, referrers FROM misses WHERE ${open} AND ${GROUP.people} ORDER BY times DESC LIMIT ${MAX_PROPOSED_FROM}`,
      { site: site.id },
    ),
    knownAddresses(desk, site),
    missesLetGo(desk.store, site.id),
  ]);
  const pages = (known.get(site.primary) ?? []).map(({ address }) => pathKey(address));
  const { times, ...groups } = counts!;
  return {
    groups,
    letGo: letGo ? { misses: letGo.misses, lastAt: letGo.lastAt.toISOString() } : null,
    proposals: proposePatterns(people, pages).slice(0, 10),
    hidden: {
      addresses: groups.people,
      times,
      ownFaults: people.flatMap((miss) => {
        const from = miss.referrers.find((referrer) => isOwn(referrer, site));
        return from ? [{ address: miss.address, from: new URL(from).pathname, times: miss.times }] : [];
      }),
    },
  };
}

function isOwn(referrer: string, site: OpenSite): boolean {
  return URL.canParse(referrer) && site.hostNames.includes(rootless(new URL(referrer).hostname));
}

async function missRow(desk: WithStore, site: OpenSite, id: string): Promise<Row<MissRow>> {
  const miss = /^\d{1,18}$/.test(id)
    ? await desk.store.misses.findOne({ where: { id, siteId: site.id } })
    : null;
  if (!miss) throw notFound("This miss");
  return miss;
}
