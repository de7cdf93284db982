import { spelledPath } from "../../core/sites/spelling.ts";
import { publicAddress } from "../../core/address/public-address.ts";
import type { Candidate } from "../../core/misses/closest.ts";
import type { OpenSite } from "../sites/open-site.ts";
import type { WithStore, WithDeliveryPort } from "../ground/parts.ts";
import { knownPlaces } from "../../store/misses/known.ts";

/** What somebody may have meant, for each host: its own short links, and pages where the host serves pages. */
export async function knownAddresses(
  desk: WithStore & WithDeliveryPort,
  site: OpenSite,
): Promise<Map<string, Candidate[]>> {
  const rows = await knownPlaces(desk.store, { site: site.id });
  const { slashes } = site.delivered;
  const onHost = ({ name, role }: OpenSite["hosts"][number]): Candidate[] =>
    rows
      .filter((row) => (row.page ? role !== "short" : row.host === null || row.host === name))
      .map(({ page, address, title }) => ({ address: page ? spelledPath(address, slashes) : address, title }))
      .map(({ address, title }) => ({
        address,
        title,
        // A path leads to the primary host; another host's route is named in full.
        ...(name === site.primary ? {} : { destination: publicAddress(name, address, desk.deliveryPort) }),
      }));
  return new Map(site.hosts.map((host) => [host.name, onHost(host)]));
}
