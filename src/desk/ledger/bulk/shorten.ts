import { publicAddress } from "../../../core/address/public-address.ts";
import type { ChangedRow } from "../../../store/ledger-reading.ts";
import type { Actor, Desk } from "../../desk.ts";
import { shortenMany } from "../../routes/shorten-many.ts";
import type { OpenSite } from "../../sites.ts";

/** The address of a short link, or why there cannot be one. */
export type ShortUrl = string | { refused: string };

const AT_ONCE = 1_000;
const BY_DRY_RUN: Actor = { name: "preview", role: "reader" };

/** By destination: the short link that it has or would get. With an actor those that are missing are made. */
export async function shortUrls(
  desk: Desk,
  site: OpenSite,
  rows: readonly ChangedRow[],
  actor?: Actor,
): Promise<Map<string, ShortUrl>> {
  const wanted = new Map<string, string>();
  for (const row of rows)
    if (row.kind_of_link === "external" && !wanted.has(row.destination_key))
      wanted.set(row.destination_key, row.ends);
  const urls = new Map<string, ShortUrl>();
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
    }
  }
  return urls;
}
