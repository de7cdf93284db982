import type { FrontState } from "../../core/origin/origin.ts";
import { areasIn, cutFrame, selectorFault, type Area } from "../../core/origin/frame/frame.ts";
import { lookedAt } from "../../core/origin/frame/looked-at.ts";
import { textOf } from "../../core/origin/text-of.ts";
import type { Actor } from "../../core/people/actor.ts";
import type { SiteOrigin } from "../../core/sites/site-origin.ts";
import { noteChange } from "../../store/ground/changes.ts";
import { setFrame } from "../../store/origin/origins.ts";
import { audited } from "../ground/audit.ts";
import type { WithOutgoing, WithStore } from "../ground/parts.ts";
import { invalid } from "../ground/problem.ts";
import type { OpenSite } from "../sites/open-site.ts";
import { readFront } from "./front.ts";
import { originRow } from "./origins.ts";

const PAGE_BYTES = 2 * 1024 * 1024;

/** Sets which page of the origin serves pages of ours as a frame, and where their content stands in it; null: none. */
export async function changeFrame(
  desk: WithStore & WithOutgoing,
  actor: Actor,
  site: OpenSite,
  frame: SiteOrigin["frame"],
): Promise<FrontState> {
  const { frame: before } = await originRow(desk, site);
  if (frame) {
    const fault = selectorFault(frame.selector);
    if (fault !== undefined) throw invalid([{ path: "frame.selector", message: fault }]);
    const cut = cutFrame(await pageThere(desk, site, frame.path, "frame.path"), frame.selector);
    if (!cut.ok) throw invalid([{ path: "frame.selector", message: `${frame.path} ${cut.reason}.` }]);
  }
  const entry = {
    siteId: site.id,
    action: "origin.frame",
    object: site.id,
    detail: { before, after: frame },
  };
  await audited(desk, actor, entry, async (transaction) => {
    await setFrame(desk.store, { site: site.id, frame }, transaction);
    await noteChange(desk.store, transaction, { siteId: site.id, kind: "site" });
  });
  return readFront(desk, site);
}

/** The parts of a page of the origin that may be its content area. */
export async function lookForAreas(
  desk: WithStore & WithOutgoing,
  site: OpenSite,
  path: string,
): Promise<{ areas: Area[] }> {
  return { areas: areasIn(await pageThere(desk, site, path, "path")) };
}

/** A page of the origin as the team looks at it to point at its content area: its own look, and nothing that runs. */
export async function pageToPointAt(
  desk: WithStore & WithOutgoing,
  site: OpenSite,
  path: string,
): Promise<string> {
  const html = await pageThere(desk, site, path, "path");
  const { address } = await originRow(desk, site);
  return lookedAt(html, new URL(path, address).href);
}

async function pageThere(
  desk: WithStore & WithOutgoing,
  site: OpenSite,
  path: string,
  at: string,
): Promise<string> {
  const { address } = await originRow(desk, site);
  const to = new URL(path, address).href;
  const answer = await desk.outgoing.fetch(to, { mostBytes: PAGE_BYTES, headers: { host: site.primary } });
  const refused = (message: string) => invalid([{ path: at, message }]);
  if (!answer.ok) throw refused(`${new URL(to).host} ${answer.reason}.`);
  const type = answer.headers["content-type"] ?? "";
  if (answer.status !== 200) throw refused(`${path} answers ${answer.status} there.`);
  if (!/html/i.test(type)) throw refused(`${path} is no HTML page there.`);
  return textOf(answer.bytes, type);
}
