import type { Actor } from "../../core/people/actor.ts";
import { allSites } from "../../store/sites/sites.ts";
import { renewSecondFactors } from "../people/second-factor-seals.ts";
import { openSite } from "../sites/open-site.ts";
import type { WithSeal, WithStore } from "../ground/parts.ts";
import { renewSeals } from "./credentials.ts";

/** Seals all that is sealed with the newest secret; answers how many, and what no secret that is known opens. */
export async function renewAllSeals(
  desk: WithStore & WithSeal,
  actor: Actor,
): Promise<{ renewed: number; unreadable: string[] }> {
  const parts = [await renewSecondFactors(desk, actor)];
  for (const { id } of await allSites(desk.store)) {
    const site = await openSite(desk, id);
    const { renewed, unreadable } = await renewSeals(desk, actor, site);
    parts.push({ renewed, unreadable: unreadable.map((program) => `${program} of ${site.name}`) });
  }
  return {
    renewed: parts.reduce((sum, { renewed }) => sum + renewed, 0),
    unreadable: parts.flatMap(({ unreadable }) => unreadable),
  };
}
