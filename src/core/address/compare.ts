import { rootless } from "./host.ts";
import { pathKey } from "./path-key.ts";

/**
 * A key that is equal for two addresses that lead to the same place: RFC 3986 section 6.2.2 and 6.2.3
 * normalisation, fragment ignored, http and https taken as one. Query parameters are compared in their order.
 */
export function compareKey(address: string): string {
  if (!/^https?:/i.test(address) || !URL.canParse(address))
    return address.startsWith("/") ? pathKey(address) : address;
  const url = new URL(address);
  return `//${rootless(url.host)}${pathKey(url.pathname)}${url.search}`;
}
