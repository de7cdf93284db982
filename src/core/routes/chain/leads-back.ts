import { ownPlace } from "../../address/classify.ts";
import { pathKey } from "../../address/path-key.ts";

/** True when a destination with captures may lead to a place of the site itself: one that cannot leads nobody back. */
export function mayLeadInside(destination: string, hosts: readonly string[]): boolean {
  return ownPlace(destination.replace(/\$[1-9]/g, "x"), hosts) !== undefined;
}

/**
 * True when a destination, its captures filled in, is the very place that was asked for: a reader who is sent there
 * asks for the same again, whatever the query. `host` is null for a path that stands for the primary host.
 */
export function leadsBack(destination: string, host: string | null, key: string, primary: string): boolean {
  const asked = host ?? primary;
  if (destination.startsWith("/")) return asked === primary && pathKey(destination) === key;
  // Nearly every destination names another host: that is seen without taking it apart.
  return destination.includes(asked) && ownPlace(destination, [asked])?.key === key;
}
