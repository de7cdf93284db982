import { Socket } from "node:net";
import pg from "pg";

/** Where a database is found: what `DATABASE_URL` says, and behind a space what `DATABASE_DIRECT_URL` does. */
interface Addresses {
  /** For everything that is done within a statement or a transaction. */
  usual: string;
  /** For what needs a session of its own, such as listening. */
  direct: string;
  /** The usual one is a pooler's: a session is not one's own there (transaction pooling). */
  isPooled: boolean;
}

/** Reads where a database is found. */
export function addressesOf(databaseUrl: string): Addresses {
  const [usual = "", direct = usual] = databaseUrl.split(" ");
  return { usual, direct, isPooled: direct !== usual };
}

/** Puts both addresses in one. */
export function databaseUrlOf(usual: string, direct: string | undefined): string {
  return direct === undefined || direct === usual ? usual : `${usual} ${direct}`;
}

/** A host of an address, and its port. */
export interface DatabaseHost {
  host: string;
  port: number;
}

/** The parts of an address, which may name several hosts (libpq, section 34.1.1.3); undefined when it is none. */
export function readAddress(
  address: string,
): { before: string; hosts: DatabaseHost[]; behind: string; database: string } | undefined {
  const found = /^(postgres(?:ql)?:\/\/(?:[^@/\s]*@)?)([^/?@\s]+)(\/[^?\s]+)(\?\S*)?$/i.exec(address);
  if (!found) return undefined;
  const [, before = "", names = "", path = "", query = ""] = found;
  const hosts = names.split(",").map((name) => {
    const [, host = name, port = "5432"] = /^(\[[\da-f:]+\]|[^:[\]]+)(?::(\d{1,5}))?$/i.exec(name) ?? [];
    return { host, port: Number(port) };
  });
  if (!hosts.every(({ host, port }) => URL.canParse(`http://${host}:${port}/`) && port > 0)) return undefined;
  try {
    return { before, hosts, behind: path + query, database: decodeURIComponent(path.slice(1)) };
  } catch {
    return undefined;
  }
}

/** Whether another database may take the place of the one that takes writes. */
export function hasStandby(databaseUrl: string): boolean {
  return (readAddress(addressesOf(databaseUrl).direct)?.hosts.length ?? 1) > 1;
}

/** What a client of PostgreSQL is told to connect with. */
export interface Connecting {
  connectionString: string;
  /** Makes the socket that it connects by. */
  stream?: () => Socket;
}

/**
 * How to connect to an address. Where it names several hosts, each connection goes to the one that takes writes at that
 * moment: when the primary is gone and a standby was promoted, the next connection finds it.
 */
export function connectingTo(address: string): Connecting {
  const read = readAddress(address);
  if (!read || read.hosts.length < 2) return { connectionString: address };
  const at = ({ host, port }: DatabaseHost): string => `${read.before}${host}:${port}${read.behind}`;
  return {
    connectionString: at(read.hosts[0]!),
    stream: () => foundSocket(() => primaryOf(address, read.hosts, at)),
  };
}

// A socket that finds out where to connect only when it is to: whoever connects it names the first host.
function foundSocket(find: () => Promise<DatabaseHost>): Socket {
  const socket = new Socket();
  const connect = socket.connect.bind(socket) as (port: number, host: string) => Socket;
  socket.connect = () => {
    find().then(
      ({ host, port }) => {
        if (!socket.destroyed) connect(port, host.replace(/^\[|\]$/g, ""));
      },
      (error: Error) => socket.destroy(error),
    );
    return socket;
  };
  return socket;
}

const ASKED_MS = 2_000;
const KNOWN_MS = 1_000;
interface Known {
  at: number;
  primary: Promise<DatabaseHost>;
}
const known = new Map<string, Known>();

// Connections are made in numbers when many are lost at once: they ask once.
function primaryOf(
  address: string,
  hosts: readonly DatabaseHost[],
  at: (host: DatabaseHost) => string,
): Promise<DatabaseHost> {
  const before = known.get(address);
  if (before && performance.now() - before.at < KNOWN_MS) return before.primary;
  const primary = findPrimary(hosts, at);
  const now = { at: performance.now(), primary };
  known.set(address, now);
  // What was not found is looked for anew by whoever asks next.
  primary.catch(() => known.get(address) === now && known.delete(address));
  return primary;
}

async function findPrimary(
  hosts: readonly DatabaseHost[],
  at: (host: DatabaseHost) => string,
): Promise<DatabaseHost> {
  const answers = await Promise.allSettled(hosts.map((host) => takesWrites(at(host))));
  const first = answers.findIndex((answer) => answer.status === "fulfilled" && answer.value);
  if (first !== -1) return hosts[first]!;
  const refused = answers.find((answer) => answer.status === "rejected");
  throw refused ? (refused.reason as Error) : new Error("none of the databases takes writes at the moment");
}

async function takesWrites(address: string): Promise<boolean> {
  const client = new pg.Client({
    connectionString: address,
    connectionTimeoutMillis: ASKED_MS,
    query_timeout: ASKED_MS,
  });
  client.on("error", () => undefined); // it goes with the question, which fails itself
  try {
    await client.connect();
    const { rows } = await client.query<{ standby: boolean }>("SELECT pg_is_in_recovery() AS standby");
    return rows[0]!.standby === false;
  } finally {
    await client.end().catch(() => undefined);
  }
}
