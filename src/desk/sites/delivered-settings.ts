import parseRobots from "robots-parser";
import type { Advice } from "../../core/routes/route.ts";
import type { DeliveredSiteSettings } from "../../core/sites/delivered-site.ts";
import { followOwn } from "../../core/routes/chain/follow.ts";
import { findFile } from "../../store/files/files.ts";
import type { WithDeliveryPort, WithStore } from "../ground/parts.ts";
import { invalid } from "../ground/problem.ts";
import { snapshotSite } from "../links/site-snapshot.ts";
import type { OpenSite } from "./open-site.ts";

/**
 * What is to be said of what a site is to be to readers and machines. Throws, at its field, where its icon is no picture
 * of the site, or the root of its short hosts would lead nowhere.
 */
export async function adviseDelivered(
  desk: WithStore & WithDeliveryPort,
  site: OpenSite,
  { icon, shortRoot, robots }: DeliveredSiteSettings,
): Promise<Advice[]> {
  const refuse = (field: string, message: string): never => {
    throw invalid([{ path: `delivered.${field}`, message }]);
  };
  if (icon !== undefined) {
    const file = await findFile(desk.store, { id: icon, siteId: site.id });
    if (!file?.mediaType.startsWith("image/"))
      refuse("icon", "The icon is a picture among the site's files.");
  }
  if (shortRoot !== undefined) {
    const snapshot = await snapshotSite(desk, site, [shortRoot]);
    const { hops, endless } = followOwn(shortRoot, snapshot.ownSite(Date.now()));
    if (endless || hops[0]?.answer.by === "miss")
      refuse(
        "shortRoot",
        endless || hops[0]!.answer.status !== 404
          ? `${shortRoot} leads back to where readers come from; choose another address.`
          : `Nothing on this site answers ${shortRoot}; choose another address, or make it first.`,
      );
  }
  return robots === undefined ? [] : robotsAdvice(robots, `https://${site.primary}`);
}

// What a robots.txt keeps from search engines that few mean to keep from them.
function robotsAdvice(robots: string, origin: string): Advice[] {
  const parsed = parseRobots(`${origin}/robots.txt`, robots);
  if (parsed.isAllowed(`${origin}/`, "*") !== false) return [];
  const message = "robots.txt keeps search engines from the front page; none of them will find this site.";
  return [{ code: "warning", severity: "warning", field: "delivered.robots", message }];
}
