import ipaddr from "ipaddr.js";

// What the special-purpose registries (RFC 6890 and its updates) list as not globally reachable and the library's own
// ranges leave out. Of IPv6, only global unicast (2000::/3, RFC 4291 section 2.4) may be asked at all: everything that
// carries an IPv4 address (mapped, compatible, translated) lies outside of it, or in 6to4 and Teredo, which follow.
const GLOBAL_UNICAST = ipaddr.IPv6.parseCIDR("2000::/3");
const REFUSED: readonly [ipaddr.IPv4 | ipaddr.IPv6, number][] = [
  "192.0.0.0/24",
  "192.0.2.0/24",
  "192.31.196.0/24",
  "192.52.193.0/24",
  "192.88.99.0/24",
  "192.175.48.0/24",
  "198.18.0.0/15",
  "198.51.100.0/24",
  "203.0.113.0/24",
  "240.0.0.0/4",
  "2001::/23",
  "2001:db8::/32",
  "2002::/16",
  "2620:4f:8000::/48",
  "3fff::/20",
].map((network) => ipaddr.parseCIDR(network));

/**
 * True for addresses that a request from here may go to: public ones alone, however they are written; none of
 * loopback, private, link-local, translated, documentation and reserved ranges.
 */
export function isPublicAddress(address: string): boolean {
  if (!ipaddr.isValid(address) || address.includes("%")) return false;
  const parsed = ipaddr.parse(address);
  // `127.1` and `0x7f.1` are addresses to a resolver: only the usual form is one here.
  if (parsed.kind() === "ipv4" && !ipaddr.IPv4.isValidFourPartDecimal(address)) return false;
  if (parsed.range() !== "unicast") return false;
  if (parsed instanceof ipaddr.IPv6 && !parsed.match(GLOBAL_UNICAST)) return false;
  return !REFUSED.some(
    ([network, bits]) => parsed.kind() === network.kind() && parsed.match(network as never, bits),
  );
}
