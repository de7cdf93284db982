import type { z } from "zod";
import { publicAddress } from "../core/address/public-address.ts";
import type { Miss, missAnswerSchema } from "../core/objects/miss.ts";
import type { Route } from "../core/objects/route.ts";
import { closestAddresses, type Candidate } from "../core/routes/closest.ts";
import type { Actor, Desk } from "./desk.ts";
import { containing, cursorOffset, listing, orderBy, type ListQuery, type Listing } from "./lists.ts";
import { notFound } from "./problem.ts";
import { createRoute } from "./routes.ts";
import type { OpenSite } from "./sites.ts";

const SORT = { lastSeen: "last_seen", times: "times", address: "key" };
const MOST_KNOWN = 20_000;

/** Requests that nothing answered and that nobody has dealt with yet, with what their askers may have meant. */
export async function listMisses(desk: Desk, site: OpenSite, query: ListQuery): Promise<Listing<Miss>> {
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
     FROM misses WHERE site_id = $site::bigint AND resolved_at IS NULL ${query.q ? "AND key ILIKE $q" : ""}
     ORDER BY ${orderBy(query.sort, SORT)}, id DESC LIMIT ${query.limit} OFFSET ${cursorOffset(query.cursor)}`,
    { site: site.id, ...(query.q ? { q: containing(query.q) } : {}) },
  );
  const known = await knownAddresses(desk, site);
  const items = rows.map((row) => ({
    id: row.id,
    host: row.host,
    address: row.key,
    times: row.times,
    bots: row.bots,
    firstSeen: row.first.toISOString(),
    lastSeen: row.last.toISOString(),
    referrers: row.referrers,
    candidates: closestAddresses(row.key, known.get(row.host) ?? [], 3),
  }));
  return listing(items, Number(rows[0]?.total ?? 0), query);
}

/** Answers a miss from now on with a redirect of its own; the miss leaves the list. */
export async function resolveMiss(
  desk: Desk,
  actor: Actor,
  site: OpenSite,
  id: string,
  answer: z.infer<typeof missAnswerSchema>,
): Promise<{ route: Route }> {
  const miss = /^\d{1,18}$/.test(id)
    ? await desk.store.misses.findOne({ where: { id, siteId: site.id } })
    : null;
  if (!miss) throw notFound("This miss");
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

// What may have been meant, for each host: its own routes, and pages where the host serves pages.
async function knownAddresses(desk: Desk, site: OpenSite): Promise<Map<string, Candidate[]>> {
  const rows = await desk.store.rows<{ address: string; title: string; host: string | null; page: boolean }>(
    `SELECT published->>'path' AS address, published->>'title' AS title, NULL AS host, true AS page FROM pages
       WHERE site_id = $site::bigint AND deleted_at IS NULL AND published_key IS NOT NULL
     UNION ALL (SELECT address, title, host, false FROM routes WHERE site_id = $site::bigint AND deleted_at IS NULL AND enabled AND kind = 'short'
       ORDER BY id DESC LIMIT ${MOST_KNOWN})`,
    { site: site.id },
  );
  const onHost = ({ name, role }: OpenSite["hosts"][number]): Candidate[] =>
    rows
      .filter((row) => (row.page ? role !== "short" : row.host === null || row.host === name))
      .map(({ address, title }) => ({
        address,
        title,
        // A path leads to the primary host; another host's route is named in full.
        ...(name === site.primary ? {} : { destination: publicAddress(name, address, desk.deliveryPort) }),
      }));
  return new Map(site.hosts.map((host) => [host.name, onHost(host)]));
}
