import { strToU8, Zip, ZipDeflate } from "fflate";
import type { FileAnswer } from "../../../contract/ground/call.ts";
import type { Actor } from "../../../core/people/actor.ts";
import { earningsQuerySchema } from "../../../core/earnings/earning.ts";
import { firstCountedDay } from "../../../store/clicks/click-counts.ts";
import { filesOfSite, readContent } from "../../../store/files/files.ts";
import { blocksOfSite, wholePages } from "../../../store/pages/pages.ts";
import { programRows } from "../../../store/programs/programs.ts";
import { creativesOfPrograms } from "../../../store/creatives/creatives.ts";
import { exportClicks } from "../../clicks/clicks.ts";
import { exportEarnings } from "../../earnings/earnings.ts";
import { auditAlone } from "../../ground/audit.ts";
import type { WithDeliveryPort, WithStore } from "../../ground/parts.ts";
import { Problem } from "../../ground/problem.ts";
import { readNavigation } from "../../navigation/navigation.ts";
import { exportedName, pageFile } from "../../pages/transfer/export-pages.ts";
import { listNetworks } from "../../programs/networks.ts";
import { programView } from "../../programs/programs.ts";
import { exportQuery as routesQuery } from "../../../contract/routes/transfer.ts";
import { exportRoutes } from "../../routes/transfer/export-routes.ts";
import { currentRules } from "../../rules/rules.ts";
import { exportHistory } from "../history.ts";
import type { OpenSite } from "../open-site.ts";
import { siteView } from "../sites.ts";

type ExportingDesk = WithStore & WithDeliveryPort;
type Entry = readonly [name: string, content: string | Uint8Array];

// The archive's format has no room for more (APPNOTE.TXT 4.4.8, without its 64-bit extension).
const MAX_FILES_BYTES = 3_500_000_000;

/**
 * Everything that a site holds, in formats that others read, as a zip that is made while it is sent: settings, pages as they are
 * written and as readers get them, blocks, navigation, files, routes, rules, programs, clicks, earnings, history. Credentials are
 * not in it.
 */
export async function exportSite(
  desk: ExportingDesk,
  actor: Actor,
  site: OpenSite,
  now: number,
): Promise<FileAnswer> {
  const files = await filesOfSite(desk.store, { site: site.id });
  if (files.reduce((sum, { bytes }) => sum + Number(bytes), 0) > MAX_FILES_BYTES)
    throw new Problem(
      422,
      "Too large for an archive",
      "The files of this site are larger than a zip can be; keep the whole installation with “maprope backup”.",
    );
  await auditAlone(desk, actor, { siteId: site.id, action: EXPORTED, object: site.key });
  return { name: `${site.key}-whole.zip`, content: zipped(entries(desk, site, files, now)) };
}

/** By this a whole export is known in the history. */
export const EXPORTED = "site.export";

async function* entries(
  desk: ExportingDesk,
  site: OpenSite,
  files: Awaited<ReturnType<typeof filesOfSite>>,
  now: number,
): AsyncGenerator<Entry> {
  yield ["site.json", json(siteView(desk, site))];
  yield ["navigation.json", json(await readNavigation(desk, site))];
  yield ["rules.json", json(await currentRules(desk, site))];
  for (const row of await wholePages(desk.store, site.id)) {
    const name = `${exportedName(row.path)}.html`;
    yield [`pages/${name}`, await pageFile(desk, site, row, { format: "html", as: "stored" })];
    if (row.published)
      yield [`delivered/${name}`, await pageFile(desk, site, row, { format: "html", as: "delivered" })];
  }
  yield ["blocks.json", json(await blocksOfSite(desk.store, { site: site.id }))];
  for (const format of ["csv", "json"] as const)
    yield [`routes.${format}`, (await exportRoutes(desk, site, routesQuery.parse({ format }))).content];
  const programs = await programRows(desk.store, site.id);
  const ids = { programs: programs.map(({ id }) => id) };
  yield ["networks.json", json(await listNetworks(desk, site))];
  yield ["programs.json", json(programs.map(programView))];
  yield ["creatives.json", json(await creativesOfPrograms(desk.store, ids))];
  const first = (await firstCountedDay(desk.store, { site: site.id })) ?? site.createdAt;
  for (let year = first.getUTCFullYear(); year <= new Date(now).getUTCFullYear(); year += 1) {
    const span = { from: `${year}-01-01`, to: `${year}-12-31` };
    yield [`clicks/by-route-${year}.csv`, await exportClicks(desk, site, { by: "route", ...span }, now)];
    const earned = earningsQuerySchema.parse({ by: "month", ...span });
    yield [`earnings/by-month-${year}.csv`, await exportEarnings(desk, site, earned, now)];
  }
  for (const [from, to] of months(first, now))
    yield [`clicks/${from.slice(0, 7)}.csv`, await exportClicks(desk, site, { by: "click", from, to }, now)];
  yield ["history.csv", (await exportHistory(desk, site, {})).content];
  for (const { id, path } of files) {
    const content = await readContent(desk.store, id);
    if (content) yield [`files${path}`, content];
  }
}

/** The first and last day of each month from a moment until now. */
function months(since: Date, now: number): [from: string, to: string][] {
  const days: [string, string][] = [];
  const at = new Date(Date.UTC(since.getUTCFullYear(), since.getUTCMonth(), 1));
  while (at.getTime() <= now) {
    const end = new Date(Date.UTC(at.getUTCFullYear(), at.getUTCMonth() + 1, 0));
    days.push([at.toISOString().slice(0, 10), end.toISOString().slice(0, 10)]);
    at.setUTCMonth(at.getUTCMonth() + 1);
  }
  return days;
}

function json(value: unknown): string {
  return `${JSON.stringify(value, null, 2)}\n`;
}

// One entry at a time, when whoever takes it asks for more: the whole is never in memory.
function zipped(all: AsyncGenerator<Entry>): ReadableStream<Uint8Array> {
  let sink: ReadableStreamDefaultController<Uint8Array> | undefined;
  const zip = new Zip((error, chunk, isLast) => {
    if (error) return sink!.error(error);
    sink!.enqueue(chunk);
    if (isLast) sink!.close();
  });
  return new ReadableStream<Uint8Array>({
    async pull(controller) {
      sink = controller as typeof sink;
      const { value, done } = await all.next();
      if (done) return zip.end();
      const [name, content] = value;
      const file = new ZipDeflate(name, { level: 6 });
      zip.add(file);
      file.push(typeof content === "string" ? strToU8(content) : content, true);
    },
    async cancel() {
      await all.return(undefined);
    },
  });
}
