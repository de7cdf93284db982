import ipaddr from "ipaddr.js";

/** Whether an address is in one of some networks. */
export type InNetworks = (address: string) => boolean;

/**
 * Reads networks and single addresses, separated by commas or spaces (`10.0.0.0/8 127.0.0.1 fd00::/8`). Throws an Error that
 * names what is none.
 */
export function readNetworks(text: string): InNetworks {
  const networks = text
    .split(/[\s,]+/)
    .filter(Boolean)
    .map((one) => {
      if (ipaddr.isValidCIDR(one)) return ipaddr.parseCIDR(one);
      if (!ipaddr.isValid(one)) throw new Error(`“${one}” is no address or network, such as 10.0.0.0/8.`);
      const address = ipaddr.parse(one);
      return [address, address.kind() === "ipv4" ? 32 : 128] as const;
    });
  return (address) => {
    if (!ipaddr.isValid(address)) return false;
    const parsed = ipaddr.process(address);
    return networks.some(
      ([network, bits]) => parsed.kind() === network.kind() && parsed.match(network as never, bits),
    );
  };
}
