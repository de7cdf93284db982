import { BlockList, isIP } from "node:net";

// Ranges that belong to machines and networks of our own, or to nobody (RFC 6890 and its registries).
const REFUSED: readonly (readonly [string, number])[] = [
  ["0.0.0.0", 8], ["10.0.0.0", 8], ["100.64.0.0", 10], ["127.0.0.0", 8], ["169.254.0.0", 16], ["172.16.0.0", 12],
  ["192.0.0.0", 24], ["192.0.2.0", 24], ["192.88.99.0", 24], ["192.168.0.0", 16], ["198.18.0.0", 15],
  ["198.51.100.0", 24], ["203.0.113.0", 24], ["224.0.0.0", 4], ["240.0.0.0", 4],
  ["::", 128], ["::1", 128], ["64:ff9b::", 96], ["100::", 64], ["2001:db8::", 32], ["fc00::", 7], ["fe80::", 10], ["ff00::", 8],
]; // prettier-ignore

const refused = new BlockList();
for (const [network, prefix] of REFUSED)
  refused.addSubnet(network, prefix, network.includes(":") ? "ipv6" : "ipv4");

/**
 * True for addresses that a request from here may go to: none of loopback, private, link-local and reserved ones,
 * also when they are written as IPv6 (`::ffff:127.0.0.1`).
 */
export function isPublicAddress(address: string): boolean {
  const mapped = /^::ffff:(\d+\.\d+\.\d+\.\d+)$/i.exec(address)?.[1];
  const plain = mapped ?? address;
  const version = isIP(plain);
  if (version === 0) return false;
  // Other spellings of mapped addresses are refused with the range itself.
  if (version === 6 && /^::ffff:/i.test(plain)) return false;
  return !refused.check(plain, version === 6 ? "ipv6" : "ipv4");
}
