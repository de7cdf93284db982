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
import {
  MISS_SORTS,
  findMiss,
  missGroups,
  missesOfPeople,
  openMisses,
  setIgnored,
} from "../../store/misses/misses.ts";
import { listing, portionOf } from "../ground/lists.ts";
import { notFound, Problem } from "../ground/problem.ts";
import { knownAddresses } from "./known-addresses.ts";
import { createRoute } from "../routes/routes.ts";
import type { OpenSite } from "../sites/open-site.ts";
import { audited } from "../ground/audit.ts";
import type { WithStore, WithDeliveryPort } from "../ground/parts.ts";
import { type Listing } from "../../contract/ground/lists.ts";
import { missesQuery } from "../../contract/misses.ts";
import type { Actor } from "../../core/people/actor.ts";

/** Requests that nothing answered and that nobody has dealt with yet, with what their askers may have meant. */
export async function listMisses(
  desk: WithStore & WithDeliveryPort,
  site: OpenSite,
  query: z.infer<typeof missesQuery>,
): Promise<Listing<Miss>> {
  const rows = await openMisses(
    desk.store,
    { site: site.id, group: query.group, ignored: query.ignored === "1", q: query.q },
    portionOf(query, MISS_SORTS),
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
      const miss = await findMiss(desk.store, { id, siteId: site.id });
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
    setIgnored(desk.store, { ids, siteId: site.id, ignoredAt: ignore ? new Date() : null }, transaction),
  );
}

/** How many there are in each group, routes that would answer many at once, and what a redirect of all would hide. */
export async function missSummary(desk: WithStore & WithDeliveryPort, site: OpenSite): Promise<MissSummary> {
  const [[counts], people, known, letGo] = await Promise.all([
    missGroups(desk.store, { site: site.id }),
    missesOfPeople(desk.store, { site: site.id }),
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
  const miss = await findMiss(desk.store, { id, siteId: site.id });
  if (!miss) throw notFound("This miss");
  return miss;
}
