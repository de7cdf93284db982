import { Problem } from "../ground/problem.ts";
import { networkNamed } from "../programs/networks.ts";
import type { OpenSite } from "../sites/open-site.ts";
import type { WithStore, WithOutgoing } from "../ground/parts.ts";
import { MAX_REPORT } from "../../contract/earnings.ts";

/** Asks a network for its report. */
export async function fetchReport(
  desk: WithStore & WithOutgoing,
  site: OpenSite,
  name: string,
): Promise<Uint8Array> {
  const network = await networkNamed(desk, site, name);
  if (!network || network.report === "")
    throw new Problem(422, "No report is known", `Write down where ${name}’s report is, or take a file.`);
  const read = await desk.outgoing.read(network.report, MAX_REPORT);
  if (!read.ok)
    throw new Problem(
      422,
      "The report cannot be read",
      `${name}’s report ${read.reason}. Nothing was changed.`,
    );
  return read.bytes;
}
