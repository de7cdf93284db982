import { existsSync, readFileSync } from "node:fs";
import { isAbsolute, resolve } from "node:path";
import { followEdge } from "../../delivery/routes/edge/follow-edge.ts";
import { writeEdge, type EdgeFolder, type WrittenEdge } from "../../delivery/routes/edge/edge-folder.ts";
import { edgeRows, forgetEdge, noteEdge } from "../../store/routes/edges.ts";
import { reachable } from "../starting.ts";
import { argumentsOf, WrongUsage, type Operating } from "./operate.ts";
import { untilTold } from "./until-told.ts";

const USAGE =
  "say “edge nginx FOLDER --name NAME --upstream URL [--listen VALUE …] [--include FILE …] [--log FILE] [--pid FILE] [--nginx PROGRAM] [--once]”, “edge list” or “edge forget NAME”.";
const OPTIONS = {
  name: { type: "string" },
  upstream: { type: "string" },
  listen: { type: "string", multiple: true },
  include: { type: "string", multiple: true },
  log: { type: "string" },
  pid: { type: "string" },
  nginx: { type: "string" },
  once: { type: "boolean" },
} as const;
const LOOK_MS = 500;
const HEARTBEAT_MS = 10_000;

/** What an edge may be called: it stands in names of folders. */
export const EDGE_NAME = /^[a-z0-9][a-z0-9.-]{0,62}$/;

/** Writes the configuration of an edge and keeps it up to date, lists edges, or forgets one. */
export async function edgeCommand(args: readonly string[], operating: Operating): Promise<void> {
  const { what, which, values } = argumentsOf(args, OPTIONS, USAGE);
  if (what === "list" && which === undefined) return list(operating);
  if (which === undefined) throw new WrongUsage(USAGE);
  if (what === "forget") {
    if (!(await forgetEdge(operating.store, { name: which }))) throw new Error(`No edge is called ${which}.`);
    return;
  }
  const { name, upstream, log, pid = "/run/nginx.pid", nginx = "nginx", once = false } = values;
  if (what !== "nginx" || name === undefined || upstream === undefined) throw new WrongUsage(USAGE);
  if (!EDGE_NAME.test(name))
    throw new WrongUsage("an edge's name has small letters, digits, dots and hyphens.");
  if (!/^https?:\/\/[^\s/;"'{}]+\/?$/.test(upstream) || !URL.canParse(upstream))
    throw new WrongUsage("--upstream is where the rest is passed to, such as http://10.0.0.5:4601.");
  const folder = resolve(which);
  const settings: EdgeFolder = {
    folder,
    nginx,
    upstream,
    listen: values.listen ?? ["80"],
    includes: (values.include ?? []).map((file) => resolve(file)),
    log: resolve(log ?? `${folder}/clicks.log`),
  };
  for (const value of [...settings.listen, ...settings.includes, settings.log, folder])
    if (/[;{}"'\s\\$]/.test(value.replace(/^[\w.:[\]*]+(?: [a-z0-9_]+(?:=\w+)?)*$/, "")))
      throw new WrongUsage(`“${value}” cannot stand in nginx's configuration.`);
  await keepWritten(operating, { name, pid: isAbsolute(pid) ? pid : resolve(pid), once }, settings);
}

async function keepWritten(
  { store, config, say }: Operating,
  { name, pid, once }: { name: string; pid: string; once: boolean },
  settings: EdgeFolder,
): Promise<void> {
  await reachable(store);
  const told = untilTold();
  const edge = await followEdge(store, config.sitePort);
  let written: WrittenEdge | undefined;
  let isDue = true;
  let fault = "";
  let notedAt = 0;
  while (!told.isTold) {
    try {
      if (await edge.catchUp()) isDue = true;
      if (isDue) {
        const { change } = edge;
        written = await writeEdge(edge.table, settings, written);
        const { counts } = written;
        isDue = false;
        fault = "";
        const passed = signalled(pid);
        say(`${totalOf(counts)} routes are answered by ${name}; ${passed}.`);
        await noteEdge(store, { name, written: { change, counts }, fault, now: Date.now() });
        notedAt = Date.now();
      }
    } catch (error) {
      const { message } = error as Error;
      if (once) throw error;
      if (message !== fault) say(`What is in force stays: ${message}`);
      fault = message;
    }
    if (once) return;
    if (Date.now() - notedAt >= HEARTBEAT_MS)
      await noteEdge(store, { name, fault, now: Date.now() }).then(
        () => (notedAt = Date.now()),
        () => undefined, // the database is away: what is in force goes on, and it is asked again in a moment
      );
    await told.rest(LOOK_MS);
  }
}

function totalOf(counts: WrittenEdge["counts"]): number {
  return Object.values(counts).reduce((sum, { routes }) => sum + routes, 0);
}

function signalled(pidFile: string): string {
  if (!existsSync(pidFile)) return `nginx is not running by ${pidFile}, and reads it when it starts`;
  process.kill(Number(readFileSync(pidFile, "utf8")), "SIGHUP");
  return "nginx was told to read it";
}

async function list({ store, say }: Operating): Promise<void> {
  await reachable(store);
  const edges = await edgeRows(store);
  if (edges.length === 0) say("No edge is known.");
  for (const { name, writtenAt, seenAt, counts, fault, collected, collectedAt } of edges)
    say(
      [
        name,
        `${totalOf(counts)} routes, written ${writtenAt?.toISOString() ?? "never"}`,
        `seen ${seenAt?.toISOString() ?? "never"}`,
        `${collected} clicks collected, last ${collectedAt?.toISOString() ?? "never"}`,
        ...(fault === "" ? [] : [fault]),
      ].join("  "),
    );
}
