import type { LinkAction } from "../../../core/ledger/ledger.ts";
import { routeKey } from "../../../core/routes/match/address-form.ts";
import { reservedPath } from "../../../core/routes/reserved.ts";
import { movedAddress, movedPath } from "../../../core/sites/directory.ts";
import type { ChangedRow } from "../../../store/ledger/ledger-reading.ts";
import { linksThroughRoutes } from "../../../store/ledger/found.ts";
import { pagesStandingAt } from "../../../store/pages/places.ts";
import { claimsAt } from "../../../store/routes/addresses.ts";
import { shortLinksIn } from "../../../store/routes/lists.ts";
import { invalid } from "../../ground/problem.ts";
import type { WithStore } from "../../ground/parts.ts";
import type { OpenSite } from "../../sites/open-site.ts";
import type { BulkPlan, RowChange } from "./planned.ts";

const MAX_LINKS = 200_000;

type Move = BulkPlan["moves"][number];

/** Which short links move to another directory, which cannot, and what becomes of a link that leads to one of them. */
export interface DirectoryChange {
  moves: Move[];
  refused: BulkPlan["refused"];
  /** The entries of the ledger that lead to them. */
  links: string[];
  link(row: ChangedRow): RowChange;
}

/** Finds the short links of a host that begin with a directory, and where each would stand in another. */
export async function directoryChange(
  desk: WithStore,
  site: OpenSite,
  { from, to, host = site.primary }: Extract<LinkAction, { do: "directory" }>,
): Promise<DirectoryChange> {
  if (!site.answeringHosts.includes(host))
    throw invalid([
      {
        path: "action.host",
        message: `${host} is no host of this site. Its hosts are ${site.answeringHosts.join(", ")}.`,
      },
    ]);
  const rows = await shortLinksIn(desk.store, { site: site.id, directory: from, host });
  const moves = rows.flatMap(({ id, address }) => {
    const after = movedPath(address, from, to);
    return after === undefined ? [] : [{ id, before: address, after }];
  });
  const why = await whyNot(desk, site, host, moves);
  const refused = moves.flatMap(({ id, before, after }) =>
    why.has(id) ? [{ where: before, message: `${after} ${why.get(id)!}` }] : [],
  );
  const good = moves.filter(({ id }) => !why.has(id));
  const ids = new Set(good.map(({ id }) => id));
  const links = await linksThroughRoutes(desk.store, { routes: [...ids], other: "none", most: MAX_LINKS });
  return {
    moves: good,
    refused,
    links: links.map(({ id }) => id),
    link({ href, override, route_id: route }) {
      const after = route !== null && ids.has(route) ? movedAddress(href, from, to) : undefined;
      return after === undefined ? undefined : { href: after, override };
    },
  };
}

async function whyNot(
  desk: WithStore,
  site: OpenSite,
  at: string,
  moves: readonly Move[],
): Promise<Map<string, string>> {
  const keys = new Map(moves.map(({ id, after }) => [id, routeKey(after, true)]));
  const own = new Set(keys.keys());
  const of = { site: site.id, keys: [...keys.values()] };
  const [claims, pages] = await Promise.all([claimsAt(desk.store, of), pagesStandingAt(desk.store, of)]);
  const claimed = new Set(
    claims.filter(({ id, host }) => !own.has(id) && (host === "*" || host === at)).map(({ key }) => key),
  );
  const isShortHost = site.hosts.find(({ name }) => name === at)?.role === "short";
  const standing = new Set(isShortHost ? [] : pages.map(({ key }) => key));
  const why = new Map<string, string>();
  for (const [id, key] of keys) {
    if (claimed.has(key)) why.set(id, "belongs to another route already.");
    else if (standing.has(key)) why.set(id, "is a page.");
    else if (reservedPath(key)?.severity === "error") why.set(id, "is answered by delivery itself.");
  }
  return why;
}
