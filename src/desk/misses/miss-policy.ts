import type { Advice } from "../../core/routes/route.ts";
import type { MissPolicy } from "../../core/sites/site.ts";
import { followOwn } from "../../core/routes/chain/follow.ts";
import { invalid } from "../ground/problem.ts";
import { snapshotForAdvice, snapshotSite } from "../links/site-snapshot.ts";
import type { OpenSite } from "../sites/open-site.ts";
import type { WithStore, WithDeliveryPort } from "../ground/parts.ts";

/**
 * What is to be said of the address that misses are sent to, which is looked at as a route's destination is. Throws,
 * at its field, for one that nothing answers or that comes round: every miss would end in it.
 */
export async function adviseMisses(
  desk: WithStore & WithDeliveryPort,
  site: OpenSite,
  misses: MissPolicy,
): Promise<Advice[]> {
  const { answer, destination } = misses;
  if (answer !== "destination" || destination === undefined) return [];
  const refuse = (message: string): never => {
    throw invalid([{ path: "misses.destination", message }]);
  };
  const snapshot = await snapshotSite(desk, site, [destination]);
  const around = snapshot.surroundings(Date.now());
  const { hops, next, endless } = followOwn(destination, around);
  if (endless) refuse(`${destination} goes round and never arrives; readers would be lost. Choose another.`);
  const last = hops.at(-1)?.answer;
  if (next === null && last?.by === "miss")
    refuse(
      `Nothing on this site answers ${destination}; every miss would end in another. Choose another, or make it first.`,
    );
  const said = (message: string): Advice[] => [
    { code: "answers-badly", severity: "warning", field: "misses.destination", message },
  ];
  if (next === null && last?.by === "route")
    return said(`${destination} is answered as gone (410): readers who mistyped learn nothing from it.`);
  if (next === null) return [];
  await snapshotForAdvice(desk, site, snapshot, [], next);
  const badly = around.answersBadly?.(next);
  return badly ? said(`${next} ${badly}: readers who mistyped would end there.`) : [];
}
