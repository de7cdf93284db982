import type { LinkAction } from "../../../core/objects/ledger.ts";
import { recogniser } from "../../../core/programs/recognise.ts";
import { becomes, type Becoming, type LinkPlace } from "../../../core/programs/reissue.ts";
import { readTemplate } from "../../../core/programs/template.ts";
import { ledgerIds } from "../../../store/ledger-reading.ts";
import type { Desk } from "../../desk.ts";
import { linkTerms } from "../../programs/build-link.ts";
import { openProgram } from "../../programs/programs.ts";
import type { OpenSite } from "../../sites.ts";

export type ProgramAction = Extract<LinkAction, { do: "program" }>;

/** What one address becomes, in whichever place it stands. */
export type AddressChange = (address: string, place: LinkPlace) => string | { refused: string } | undefined;

/** Makes ready for changing the links of a program. */
export async function programChange(
  desk: Desk,
  site: OpenSite,
  action: ProgramAction,
): Promise<{ change: AddressChange; hosts: string[] | undefined }> {
  const program = await openProgram(desk, site, action.program);
  const { name, trackingId, template, domains } = { ...program.terms, ...action.before };
  const read = readTemplate(template);
  const [domain] = domains.filter((one) => !one.startsWith("*."));
  const entrance = program.terms.siteAddress || (domain === undefined ? undefined : `https://${domain}/`);
  const known = { name, trackingId, domains, template: read.ok ? read.template : undefined, entrance };
  const find = recogniser([known]);
  const becoming = await becomingOf(desk, site, action);
  const around = known.template?.way === "around" ? [known.template.host.replace(/:\d+$/, "")] : [];
  return {
    change: (address, place) => becomes(address, find, becoming, place),
    hosts: domains.some((domain) => domain.startsWith("*.")) ? undefined : [...domains, ...around],
  };
}

async function becomingOf(desk: Desk, site: OpenSite, action: ProgramAction): Promise<Becoming> {
  if (action.become === "plain") return { do: "plain" };
  const target = await openProgram(desk, site, action.other ?? action.program);
  return action.become === "track"
    ? { do: "track", terms: linkTerms(target), subIdPattern: target.terms.subIdPattern }
    : { do: "reissue", terms: linkTerms(target) };
}

/** All links of the ledger that may lead to these hosts; of all outside links when they cannot be named one by one. */
export async function linksTo(
  desk: Desk,
  site: OpenSite,
  hosts: readonly string[] | undefined,
  edition: "written" | "readers",
  most: number,
): Promise<string[]> {
  if (!hosts) return ledgerIds(desk.store, site.id, { reach: "external", edition }, most);
  const found = await Promise.all(
    hosts.map((host) => ledgerIds(desk.store, site.id, { host, edition }, most)),
  );
  return [...new Set(found.flat())];
}
