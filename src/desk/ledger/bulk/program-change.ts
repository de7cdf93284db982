import { withAddress } from "../../../core/ledger/change-link.ts";
import type { LinkAction } from "../../../core/ledger/ledger.ts";
import { recogniser } from "../../../core/programs/recognise.ts";
import { convertLink, type LinkConversion, type LinkPlace } from "../../../core/creatives/convert-link.ts";
import { readTemplate } from "../../../core/programs/template.ts";
import { ledgerIds, type ChangedRow } from "../../../store/ledger/ledger-reading.ts";
import { linkTerms } from "../../programs/build-link.ts";
import { openProgram } from "../../programs/programs.ts";
import type { OpenSite } from "../../sites/open-site.ts";
import type { RowChange } from "./planned.ts";
import type { WithStore } from "../../ground/parts.ts";
import { routesOfProgram } from "../../../store/programs/program-routes.ts";
import { linksThroughRoutes } from "../../../store/ledger/found.ts";

export type ProgramAction = Extract<LinkAction, { do: "program" }>;

/** What one address becomes, in whichever place it stands. */
export type AddressChange = (address: string, place: LinkPlace) => string | { refused: string } | undefined;

/** How the links of a program change. */
export interface ProgramChange {
  /** What becomes of a link in content. */
  link(row: ChangedRow, address: string): RowChange;
  /** What becomes of a route's destination. */
  change: AddressChange;
  /** Hosts that its links lead to; undefined when they cannot be named one by one. */
  hosts: string[] | undefined;
  /** Routes to it whose links change with them, because they are taken off. */
  routes: string[];
}

/** Makes ready for changing the links of a program. */
export async function programChange(
  desk: WithStore,
  site: OpenSite,
  action: ProgramAction,
): Promise<ProgramChange> {
  const program = await openProgram(desk, site, action.program);
  const { name, trackingId, template, domains } = { ...program.terms, ...action.before };
  const read = readTemplate(template);
  const [domain] = domains.filter((one) => !one.startsWith("*."));
  const entrance = program.terms.siteAddress || (domain === undefined ? undefined : `https://${domain}/`);
  const known = { name, trackingId, domains, template: read.ok ? read.template : undefined, entrance };
  const find = recogniser([known]);
  const conversion = await conversionOf(desk, site, action);
  const around = known.template?.style === "wrapper" ? [known.template.host.replace(/:\d+$/, "")] : [];
  const change: AddressChange = (address, place) => convertLink(address, find, conversion, place);
  const routes = action.become === "unlink" ? await trackedRoutes(desk, program.id) : [];
  const through = new Set(routes);
  const isTaken = (row: ChangedRow, address: string): boolean =>
    (row.route_id !== null && through.has(row.route_id)) || find(address)?.tracking === "ours";
  return {
    link: (row, address) => {
      if (action.become === "unlink") {
        const { href, override } = row;
        return isTaken(row, address) ? { href, override, inside: { do: "unlink" } } : undefined;
      }
      const to = change(address, { page: row.place, position: row.ordinal + 1 });
      if (typeof to !== "string") return to;
      const changed = withAddress({ href: row.href, address, override: row.override }, to);
      return typeof changed === "string" ? { refused: changed } : changed;
    },
    change,
    routes,
    hosts: domains.some((domain) => domain.startsWith("*.")) ? undefined : [...domains, ...around],
  };
}

async function trackedRoutes(desk: WithStore, programId: string): Promise<string[]> {
  const rows = await routesOfProgram(desk.store, { programId });
  return rows.map(({ id }) => id);
}

async function conversionOf(desk: WithStore, site: OpenSite, action: ProgramAction): Promise<LinkConversion> {
  // Nothing can stand in the place of a route: it leads on, without tracking.
  if (action.become === "plain" || action.become === "unlink") return { do: "plain" };
  const target = await openProgram(desk, site, action.other ?? action.program);
  return action.become === "track"
    ? { do: "track", terms: linkTerms(target), subIdPattern: target.terms.subIdPattern }
    : { do: "reissue", terms: linkTerms(target) };
}

/** All links of the ledger that may lead to these hosts, or through these routes; all outside links where hosts cannot be named. */
export async function linksTo(
  desk: WithStore,
  site: OpenSite,
  { hosts, routes }: Pick<ProgramChange, "hosts" | "routes">,
  edition: "written" | "readers",
  most: number,
): Promise<string[]> {
  const through = linksThroughRoutes(desk.store, {
    routes,
    other: edition === "written" ? "published" : "draft",
    most,
  });
  const asked = hosts ? hosts.map((host) => ({ host })) : [{ reach: "external" as const }];
  const found = await Promise.all([
    ...asked.map((filter) => ledgerIds(desk.store, site.id, { ...filter, edition }, most)),
    through.then((rows) => rows.map(({ id }) => id)),
  ]);
  return [...new Set(found.flat())];
}
