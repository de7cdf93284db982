import { caseFoldedKey } from "../../address/path-key.ts";

/** One address that a route answers; `host` null means every host of the site. */
export interface RouteAddress {
  host: string | null;
  key: string;
  /** Short links are found whatever the letter case; their key is stored caseInsensitive. */
  caseInsensitive: boolean;
}

interface HostTable<T> {
  exact: Map<string, T>;
  caseInsensitive: Map<string, T>;
}

/**
 * The compiled table of exact routes of one site. Two maps a host, since redirects keep old paths as they
 * were and short links forgive letter case; a request costs one to four map look-ups, whatever the size.
 */
export class RouteTable<T> {
  private readonly hosts = new Map<string, HostTable<T>>();
  private readonly everywhere: HostTable<T> = { exact: new Map(), caseInsensitive: new Map() };
  private count = 0;

  /** Number of addresses in the table. */
  get size(): number {
    return this.count;
  }

  /** Puts an address in place of whatever answered it before. */
  set(address: RouteAddress, entry: T): void {
    const map = this.mapOf(address);
    if (!map.has(address.key)) this.count += 1;
    map.set(address.key, entry);
  }

  /** Takes an address out, if `entry` still is what answers it. */
  delete(address: RouteAddress, entry: T): void {
    const map = this.mapOf(address);
    if (map.get(address.key) !== entry) return;
    map.delete(address.key);
    this.count -= 1;
  }

  /** What answers the path key on this host: the host's own routes before those of every host, exact case first. */
  find(host: string, key: string): T | undefined {
    const own = this.hosts.get(host);
    const hit = (own && look(own.exact, key)) ?? look(this.everywhere.exact, key);
    if (hit !== undefined) return hit;
    const caseInsensitive = caseFoldedKey(key);
    return (
      (own && look(own.caseInsensitive, caseInsensitive)) ??
      look(this.everywhere.caseInsensitive, caseInsensitive)
    );
  }

  /** The caseInsensitive path keys that this host answers, which are its short links, at most `most` of them. */
  *shortKeys(host: string, most: number): Generator<[key: string, entry: T]> {
    let left = most;
    for (const map of [this.hosts.get(host)?.caseInsensitive, this.everywhere.caseInsensitive]) {
      for (const one of map ?? []) {
        if (left-- <= 0) return;
        yield one;
      }
    }
  }

  private mapOf({ host, caseInsensitive }: RouteAddress): Map<string, T> {
    let table = host === null ? this.everywhere : this.hosts.get(host);
    if (!table) this.hosts.set(host!, (table = { exact: new Map(), caseInsensitive: new Map() }));
    return caseInsensitive ? table.caseInsensitive : table.exact;
  }
}

// Most sites leave some of the four maps empty; asking them costs a hash of the key all the same.
function look<T>(map: Map<string, T>, key: string): T | undefined {
  return map.size === 0 ? undefined : map.get(key);
}
