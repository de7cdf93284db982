import { execFile } from "node:child_process";
import { createWriteStream, type WriteStream } from "node:fs";
import { link, mkdir, readdir, readlink, rename, rm, symlink, writeFile } from "node:fs/promises";
import { join } from "node:path";
import { finished } from "node:stream/promises";
import { promisify } from "node:util";
import type { EdgeCounts, EdgeTable } from "../../../core/routes/edge/edge-table.ts";
import { nginxEdge, nginxLine, type EdgeOptions } from "../../../core/routes/edge/nginx-edge.ts";
import { NGINX_MAPS } from "../../../core/routes/edge/nginx-maps.ts";

const run = promisify(execFile);
const PIECE = 256 * 1024;
const KEPT = 2;
const CHECK_MS = 120_000;

/** Where an edge's configuration is written, and how it is checked. */
export interface EdgeFolder extends Omit<EdgeOptions, "folder"> {
  folder: string;
  /** The program by which it is checked. */
  nginx: string;
}

/** A configuration as it was written. */
export interface WrittenEdge {
  counts: Record<string, EdgeCounts>;
  /** Its folder, the table that it was written of, and how many entries stand in each map. */
  version: string;
  table: EdgeTable;
  entries: ReadonlyMap<string, number>;
  /** The longest of their keys, in signs. */
  longest: number;
  /** Those that stand as they were written and checked before. */
  kept: ReadonlySet<string>;
}

/**
 * Writes a configuration beside the one in force, has nginx check it and lets it take the other's place at once (`current`);
 * the one before is kept. Of what was written of the same table before, only maps in which something is another are written anew
 * and read by that check.
 * Throws with what nginx says where it does not take it: then all stays as it is.
 */
export async function writeEdge(
  table: EdgeTable,
  { folder, nginx, ...options }: EdgeFolder,
  last?: WrittenEdge,
): Promise<WrittenEdge> {
  const versions = join(folder, "versions");
  await mkdir(versions, { recursive: true });
  const name = String(1 + Math.max(0, ...(await readdir(versions)).map(Number).filter(Number.isInteger)));
  const version = join(versions, name);
  const changed = table.takeChanged();
  try {
    await mkdir(version);
    const written = await writeMaps(table, version, last?.table === table ? { last, changed } : undefined);
    const size = { most: Math.max(...written.entries.values()), longest: written.longest };
    const text = (listen: readonly string[], maps: string): string =>
      nginxEdge(table.all(), { ...options, listen, folder: maps }, size);
    await writeFile(join(version, "maprope.conf"), text(options.listen, version));
    // Whoever writes need not be allowed to listen where nginx does.
    const check = await mapsToCheck(version, written.kept);
    await writeFile(join(check, "server.conf"), text([`unix:${join(check, "sock")}`], check));
    await writeFile(
      join(check, "nginx.conf"),
      `pid ${join(check, "pid")};\nerror_log stderr warn;\nevents {}\nhttp { include ${join(check, "server.conf")}; }\n`,
    );
    await checked(nginx, check);
    await symlink(join("versions", name), join(folder, "next"));
    await rename(join(folder, "next"), join(folder, "current"));
    await clear(folder, versions);
    return written;
  } catch (error) {
    table.putBack(changed);
    await rm(version, { recursive: true, force: true });
    await rm(join(folder, "next"), { force: true });
    throw error;
  }
}

// What was checked before is not read again: it stands there as a map with nothing in it.
async function mapsToCheck(version: string, kept: ReadonlySet<string>): Promise<string> {
  const check = join(version, "check");
  await mkdir(check);
  for (const name of NGINX_MAPS)
    if (kept.has(name)) await writeFile(join(check, `${name}.map`), "");
    else await symlink(join("..", `${name}.map`), join(check, `${name}.map`));
  return check;
}

async function writeMaps(
  table: EdgeTable,
  version: string,
  before: { last: WrittenEdge; changed: ReadonlySet<string> } | undefined,
): Promise<WrittenEdge> {
  const kept = new Set<string>();
  for (const name of before ? NGINX_MAPS : [])
    if (!before!.changed.has(name) && (await isLinked(before!.last.version, version, name))) kept.add(name);
  const anew = new Set(NGINX_MAPS.filter((name) => !kept.has(name)));
  const maps = new Map([...anew].map((name) => [name, openMap(join(version, `${name}.map`))]));
  const entries = new Map(
    NGINX_MAPS.map((name) => [name, kept.has(name) ? before!.last.entries.get(name)! : 0]),
  );
  let longest = before?.last.longest ?? 0;
  const counts = table.write((site, entry) => {
    entries.set(entry.map, entries.get(entry.map)! + 1);
    longest = Math.max(longest, (entry.host ?? site.id).length + entry.key.length);
    maps.get(entry.map)!.add(nginxLine(site, entry));
  }, anew);
  await Promise.all([...maps.values()].map((map) => map.end()));
  return { counts: Object.fromEntries(counts), version, table, entries, longest, kept };
}

// Where a file cannot stand under two names, or the one before was taken away, it is written anew.
async function isLinked(from: string, to: string, name: string): Promise<boolean> {
  return link(join(from, `${name}.map`), join(to, `${name}.map`)).then(
    () => true,
    () => false,
  );
}

function openMap(path: string) {
  const stream: WriteStream = createWriteStream(path);
  // A disk that is full says so at the end.
  const ended = finished(stream);
  ended.catch(() => undefined);
  let text = "";
  return {
    add(line: string): void {
      text += line;
      if (text.length < PIECE) return;
      stream.write(text);
      text = "";
    },
    async end(): Promise<void> {
      stream.end(text);
      await ended;
    },
  };
}

async function checked(nginx: string, folder: string): Promise<void> {
  try {
    await run(nginx, ["-t", "-q", "-p", folder, "-c", join(folder, "nginx.conf")], { timeout: CHECK_MS });
  } catch (error) {
    const { stderr = "", code } = error as { stderr?: string; code?: string };
    if (code === "ENOENT")
      throw new Error(`The program ${nginx} is missing; install nginx.`, { cause: error });
    const said = stderr.split("\n").find((line) => /\[emerg\]|\[crit\]|\[alert\]/.test(line)) ?? stderr;
    throw new Error(`nginx does not take the new configuration: ${said.trim().slice(0, 500)}`, {
      cause: error,
    });
  }
}

async function clear(folder: string, versions: string): Promise<void> {
  const current = Number((await readlink(join(folder, "current"))).replace(/^versions\//, ""));
  for (const name of await readdir(versions))
    if (Number(name) <= current - KEPT) await rm(join(versions, name), { recursive: true, force: true });
}
