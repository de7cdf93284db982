import { z } from "zod";
import { destinationKind, DESTINATION_KINDS } from "../core/address/classify.ts";
import { throughRoutes } from "../core/rules/link-facts.ts";
import type { Desk } from "./desk.ts";
import { lookUpPlaces } from "./places.ts";
import type { OpenSite } from "./sites.ts";

export const linkLooksSchema = z.object({
  items: z.array(
    z.object({
      address: z.string(),
      kind: z.enum(DESTINATION_KINDS),
      /** Where it ends when it goes through our own routes, else the address itself. */
      ends: z.string(),
    }),
  ),
});

/** Says of many addresses at once what they are for this site and where they end; the rope asks this. */
export async function lookAtLinks(
  desk: Desk,
  site: OpenSite,
  addresses: readonly string[],
): Promise<z.infer<typeof linkLooksSchema>> {
  const sight = (await lookUpPlaces(desk, site, addresses)).sight();
  return {
    items: [...new Set(addresses)].map((address) => ({
      address,
      kind: destinationKind(address, sight),
      ends: throughRoutes(address, sight),
    })),
  };
}
