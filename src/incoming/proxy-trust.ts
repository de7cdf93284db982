import type { IncomingMessage } from "node:http";
import proxyaddr from "proxy-addr";

/** Which proxies before us are believed what they say of a request. */
export interface ProxyTrust {
  /**
   * The reader's address: the rightmost entry of `X-Forwarded-For` that was not written by one of our proxies, or the
   * other end of the connection. What a reader writes there themselves stands further left, and is never taken.
   */
  address(remote: string, forwardedFor: string): string;
  /** Whether who is at the other end of the connection is one of our proxies. */
  believes(remote: string): boolean;
  /** True when the reader came by https, as a believed proxy says with `X-Forwarded-Proto`. */
  isSecure(remote: string, forwardedProto: string): boolean;
}

/** Nobody is believed: the reader is the other end of the connection. */
export const NO_PROXY: ProxyTrust = {
  address: (remote) => remote,
  believes: () => false,
  isSecure: () => false,
};

const MAX_PROXIES = 10;

/**
 * Reads `MAPROPE_TRUST_PROXY`: how many proxies stand before us (1 to 10), or their addresses and networks
 * (`10.0.0.0/8, fd00::/8`, `loopback`), separated by commas or spaces. Throws an Error with one plain sentence.
 */
export function proxyTrust(setting: string | undefined): ProxyTrust {
  const text = (setting ?? "").trim();
  if (text === "" || text === "0") return NO_PROXY;
  const trusts = /^\d{1,2}$/.test(text) ? countOf(text) : networksOf(text);
  return {
    address(remote, forwardedFor) {
      if (forwardedFor === "") return remote;
      const asked = { socket: { remoteAddress: remote }, headers: { "x-forwarded-for": forwardedFor } };
      return proxyaddr(asked as unknown as IncomingMessage, trusts).slice(0, 64);
    },
    believes: (remote) => trusts(remote, 0),
    isSecure: (remote, forwardedProto) =>
      trusts(remote, 0) && /^https$/i.test(forwardedProto.split(",")[0]!.trim()),
  };
}

type Trusts = (address: string, hop: number) => boolean;

function countOf(text: string): Trusts {
  const count = Number(text);
  if (count > MAX_PROXIES)
    throw new Error(`MAPROPE_TRUST_PROXY is ${text}; at most ${MAX_PROXIES} proxies stand before a server.`);
  return (_address, hop) => hop < count;
}

function networksOf(text: string): Trusts {
  try {
    return proxyaddr.compile(text.split(/[\s,]+/).filter(Boolean));
  } catch {
    throw new Error(
      `MAPROPE_TRUST_PROXY is “${text}”; it is a number of proxies, or their addresses and networks such as 10.0.0.0/8.`,
    );
  }
}
