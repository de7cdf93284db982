import { publicAddress } from "../../../core/address/public-address.ts";
import type { ChangedRow } from "../../../store/ledger/ledger-reading.ts";
import { UNWATCHED } from "../../../threads/progress.ts";
import { changeMany } from "../../routes/many/bulk.ts";
import { shortenMany } from "../../routes/many/shorten-many.ts";
import type { OpenSite } from "../../sites/open-site.ts";
import type { WithStore, WithDeliveryPort, WithWorkspaceHosts } from "../../ground/parts.ts";
import { lockMadeRoutes } from "../../../store/routes/batches.ts";
import type { Actor } from "../../../core/people/actor.ts";

/** The address of a short link, or why there cannot be one. */
export type ShortUrl = string | { refused: string };

const AT_ONCE = 1_000;
const BY_DRY_RUN: Actor = { name: "preview", role: "reader" };

/** By destination: the short link that it has or would get. With an actor those that are missing are made, and told by id. */
export async function shortUrls(
  desk: WithStore & WithDeliveryPort & WithWorkspaceHosts,
  site: OpenSite,
  rows: readonly ChangedRow[],
  actor?: Actor,
): Promise<{ urls: Map<string, ShortUrl>; made: string[] }> {
  const wanted = new Map<string, string>();
  for (const row of rows)
    if (row.kind_of_link === "external" && !wanted.has(row.destination_key))
      wanted.set(row.destination_key, row.ends);
  const urls = new Map<string, ShortUrl>();
  const made: string[] = [];
  const entries = [...wanted];
  for (let from = 0; from < entries.length; from += AT_ONCE) {
    const part = entries.slice(from, from + AT_ONCE);
    const { lines } = await shortenMany(desk, actor ?? BY_DRY_RUN, site, {
      text: part.map(([, destination]) => destination).join("\n"),
      host: site.shortHost,
      dryRun: actor === undefined,
    });
    for (const { line, route, address, state, message } of lines) {
      const [key] = part[line - 1]!;
      if (state === "refused" || address === null) urls.set(key, { refused: message });
      else urls.set(key, route?.url ?? publicAddress(site.shortHost, address, desk.deliveryPort));
      if (state === "new" && route) made.push(route.id);
    }
  }
  return { urls, made };
}

/**
 * Takes short links away again that were made for a change of many which is undone. One that somebody changed, followed
 * or used in a text since stays; told are those with the reason.
 */
export async function takeBack(
  desk: WithStore & WithDeliveryPort,
  actor: Actor,
  site: OpenSite,
  made: readonly string[],
): Promise<string[]> {
  if (made.length === 0) return [];
  const rows = await lockMadeRoutes(desk.store, { site: site.id, ids: made });
  const ids = rows.filter(({ reason }) => reason === null).map(({ id }) => id);
  if (ids.length > 0) {
    const bulk = { ids, action: { do: "delete" as const }, dryRun: false };
    await changeMany(desk, actor, site, bulk, UNWATCHED);
  }
  return rows.flatMap(({ address, reason }) => (reason === null ? [] : [`${address} ${reason}`]));
}
