import { lookup as systemLookup } from "node:dns/promises";
import { buildConnector } from "undici";
import { isPublicAddress } from "./address-guard.ts";
import { Refusal } from "./refusal.ts";

/** Which address a host's name may be asked at; throws a Refusal where it may not be. */
export type Judge = (host: string, port: number) => Promise<string>;

export interface JudgeOptions {
  /** Addresses of a host name; the system's resolver unless given. */
  resolve?: (host: string) => Promise<string[]>;
  /** Whether an address may be asked; only public ones unless given. */
  allows?: (address: string, host: string, port: number) => boolean;
}

/** Makes the one judge of where requests from here may go: what it answers is what is to be asked, resolved once. */
export function createJudge({ resolve = resolved, allows = isPublicAddress }: JudgeOptions): Judge {
  return async (host, port) => {
    const addresses = /^[\d.]+$|:/.test(host) ? [host] : await resolve(host);
    const [allowed] = addresses.filter((address) => allows(address, host, port));
    if (addresses.length === 0) throw new Refusal("has no address");
    if (allowed === undefined)
      throw new Refusal("leads into a private network, which is not asked from here");
    return allowed;
  };
}

async function resolved(host: string): Promise<string[]> {
  return (await systemLookup(host, { all: true })).map(({ address }) => address);
}

/** Connects to the address that was judged for a name, and to no other: resolving it again could give another answer. */
export function judgedConnector(
  judge: Judge,
  options: buildConnector.BuildOptions,
): buildConnector.connector {
  const connector = buildConnector(options);
  return (to, callback) => {
    const host = to.hostname.replace(/^\[|\]$/g, "");
    judge(host, Number(to.port || (to.protocol === "https:" ? 443 : 80))).then(
      (address) => connector({ ...to, hostname: address, servername: to.servername ?? host }, callback),
      (error: Error) => callback(error, null),
    );
  };
}
