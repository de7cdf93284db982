import { publicAddress } from "../../core/address/public-address.ts";
import type { Candidate } from "../../core/misses/closest.ts";
import type { OpenSite } from "../sites/open-site.ts";
import type { WithStore, WithDeliveryPort } from "../ground/parts.ts";

const MAX_KNOWN = 20_000;

/** What somebody may have meant, for each host: its own short links, and pages where the host serves pages. */
export async function knownAddresses(
  desk: WithStore & WithDeliveryPort,
  site: OpenSite,
): Promise<Map<string, Candidate[]>> {
  const rows = await desk.store.rows<{ address: string; title: string; host: string | null; page: boolean }>(
    `SELECT published->>'path' AS address, published->>'title' AS title, NULL AS host, true AS page FROM pages
       WHERE site_id = $site::bigint AND kind = 'page' AND deleted_at IS NULL AND published_key IS NOT NULL
     UNION ALL (SELECT address, title, host, false FROM routes
       WHERE site_id = $site::bigint AND deleted_at IS NULL AND enabled AND kind = 'short' AND match = 'exact'
       ORDER BY id DESC LIMIT ${MAX_KNOWN})`,
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
