import type { Site } from "../../core/sites/site.ts";

/** What the frame of every screen needs of a site; all else of it stands in no screen that does not ask. */
export type FrameSite = Pick<Site, "id" | "key" | "name" | "hosts" | "shortPrefix" | "defaults">;

export function frameSite({ id, key, name, hosts, shortPrefix, defaults }: Site): FrameSite {
  return { id, key, name, hosts, shortPrefix, defaults };
}
