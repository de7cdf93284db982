import { rootless } from "../address/host.ts";
import { pathKey } from "../address/path-key.ts";

/** A page of an origin: how it is asked for there, and under what it is found again. */
export interface OriginPlace {
  /** Path and query, as they are sent. */
  path: string;
  /** The path's key, with the query where there is one. */
  key: string;
  /** The first step of a path of several; empty for what stands at the root. */
  part: string;
}

/**
 * The place that an absolute address has on an origin; undefined where it is another's: of another host than these (www.
 * in front of one is the same), outside of the path under which the site stands, or no web address. Fragments are cut off.
 */
export function placeOnOrigin(
  address: string,
  origin: string,
  hosts: readonly string[],
): OriginPlace | undefined {
  if (!/^https?:/i.test(address) || !URL.canParse(address)) return undefined;
  const url = new URL(address);
  const home = new URL(origin);
  const own = [home.hostname, ...hosts].map(plain);
  if (!own.includes(plain(url.hostname))) return undefined;
  const root = home.pathname.slice(0, home.pathname.lastIndexOf("/") + 1);
  const path = `${url.pathname}${url.search}`;
  if (!path.startsWith(root) || path.length > 2_048) return undefined;
  const steps = url.pathname.slice(root.length).split("/").filter(Boolean);
  return {
    path,
    key: `${pathKey(url.pathname)}${url.search}`,
    part: steps.length > 1 || (steps.length === 1 && url.pathname.endsWith("/")) ? steps[0]! : "",
  };
}

/** The address under which the origin is asked for a path. */
export function addressOnOrigin(path: string, origin: string): string {
  return new URL(path, origin).href;
}

function plain(host: string): string {
  return rootless(host)
    .toLowerCase()
    .replace(/^www\./, "");
}
