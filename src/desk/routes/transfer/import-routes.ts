import { inFigures } from "../../../core/text/in-figures.ts";
import type { WithThread } from "../../jobs/desk-thread.ts";
import type { JobKind } from "../../jobs/job-kind.ts";
import { settle } from "../../jobs/settle.ts";
import type { Task } from "../../jobs/task.ts";
import { isDeepStrictEqual } from "node:util";
import { foreignPages } from "../../pages/content-pages.ts";
import type { Transaction } from "sequelize";
import {
  readRoutesCsv,
  readRoutesJson,
  type RouteRowsRead,
} from "../../../core/routes/formats/route-table.ts";
import { routeInputSchema } from "../../../core/routes/route.ts";
import { captureCount } from "../../../core/routes/match/address-form.ts";
import { captureFault } from "../../../core/routes/match/captures.ts";
import { patternGroups } from "../../../core/routes/match/pattern.ts";
import { noteRoutes } from "../../../store/ground/changes.ts";
import { ChangedMeanwhile, insertRoutes, updateRoutes } from "../../../store/routes/route-writing.ts";
import { violatedIndex } from "../../../store/ground/store.ts";
import { decodedText } from "../../files/decoded-text.ts";
import type { Progress } from "../../../threads/progress.ts";
import { fieldErrors, Problem } from "../../ground/problem.ts";
import { loopingLines, type Planned } from "./import-loops.ts";
import { completion, withOwnHost, type RouteValues } from "../route-values.ts";
import { keysOf, patternsLeft, TOO_MANY_PATTERNS } from "../routes.ts";
import type { OpenSite } from "../../sites/open-site.ts";
import { audit } from "../../ground/audit.ts";
import type { WithStore } from "../../ground/parts.ts";
import type { ImportQuery, RoutesImported } from "../../../contract/routes/transfer.ts";
import { claimsAt } from "../../../store/routes/addresses.ts";
import { publishedTitlesAt } from "../../../store/pages/places.ts";
import type { Actor } from "../../../core/people/actor.ts";
import { routesById } from "../../../store/routes/routes.ts";

/** Routes as a file holds them. */
export interface RouteFile {
  bytes: Uint8Array;
  json: boolean;
}

const AT_ONCE = 1_000;
/** A file of more bad lines than this is another kind of file. */
const MAX_NAMED = 20_000;

/**
 * Imports routes from CSV or JSON in one transaction. A line whose address is a route's already changes that one.
 * Every line that cannot be taken is named with its reason and the rest goes in; or nothing, when `atomic`.
 */
export async function importRoutes(
  core: WithStore,
  actor: Actor,
  site: OpenSite,
  file: RouteFile,
  query: ImportQuery,
  progress: Progress,
): Promise<RoutesImported> {
  const notes: string[] = [];
  const text = decodedText(file.bytes, notes);
  const read = file.json ? readRoutesJson(text) : readRoutesCsv(text);
  if (read.fault) throw new Problem(422, "This file cannot be read", read.fault);
  if (read.unknown.length > 0)
    notes.push(`Columns that mean nothing here were left out: ${read.unknown.join(", ")}.`);
  const refused: RoutesImported["refused"] = [];
  const planned = await plan(core, site, read, refused, progress);
  const total = read.rows.length * 2;
  const { unchanged, changing } = await compare(core, planned, progress, read.rows.length, total);
  const looping = await loopingLines(core, site, changing);
  for (const line of looping)
    refused.push({ line, message: "This would go round in a circle with other routes." });
  const taken = changing.filter(({ line }) => !looping.has(line));
  refused.sort((a, b) => a.line - b.line);
  const answer: RoutesImported = {
    created: taken.filter(({ existing }) => !existing).length,
    updated: taken.filter(({ existing }) => existing).length,
    unchanged,
    refused,
    notes,
  };
  if (refused.length > MAX_NAMED) {
    notes.push(
      `${inFigures(refused.length)} lines cannot be taken; the first ${inFigures(MAX_NAMED)} are named.`,
    );
    answer.refused = refused.slice(0, MAX_NAMED);
  }
  if (query.dryRun === "1") return answer;
  if (query.atomic === "1" && refused.length > 0) {
    throw new Problem(
      422,
      "Nothing was imported",
      `${refused.length} lines cannot be taken, and all or nothing was asked for.`,
      {
        errors: refused.slice(0, 100).map(({ line, message }) => ({ path: `line ${line}`, message })),
        more: { refused: answer.refused },
      },
    );
  }
  const entry = {
    siteId: site.id,
    action: "routes.import",
    object: query.name ?? "a file",
    detail: { created: answer.created, updated: answer.updated, refused: refused.length },
  };
  const noted = async (transaction: Transaction): Promise<void> => {
    await audit(core, actor, entry, transaction);
    await settle(core, progress, answer, transaction);
  };
  await write(core, site, taken, progress, read.rows.length, noted);
  return answer;
}

async function plan(
  core: WithStore,
  site: OpenSite,
  read: RouteRowsRead,
  refused: RoutesImported["refused"],
  progress: Progress,
): Promise<Planned[]> {
  const planned: Planned[] = [];
  const claimed = new Map<string, number>();
  let patterns = await patternsLeft(core, site);
  for (const [index, { line, fields }] of read.rows.entries()) {
    if (index % AT_ONCE === 0) await progress.step(index, read.rows.length * 2);
    const checked = checkedRow(site, fields);
    if ("message" in checked) {
      refused.push({ line, message: checked.message });
      continue;
    }
    const { values } = checked;
    const keys = keysOf(values);
    const twice = keys
      .map((key) => claimed.get(`${values.host ?? "*"} ${key}`))
      .find((other) => other !== undefined);
    if (twice !== undefined || new Set(keys).size < keys.length) {
      refused.push({
        line,
        message:
          twice === undefined
            ? `${values.address} stands in this line twice.`
            : `${values.address} stands in line ${twice} already.`,
      });
      continue;
    }
    if (values.match === "pattern" && (patterns -= 1) < 0) {
      refused.push({ line, message: TOO_MANY_PATTERNS });
      continue;
    }
    for (const key of keys) claimed.set(`${values.host ?? "*"} ${key}`, line);
    planned.push({ line, values, keys });
  }
  const foreign = await foreignPages(
    core,
    site,
    planned.flatMap(({ values }) => values.contentPages),
  );
  const own = planned.filter(({ line, values }) => {
    const stranger = values.contentPages.find((id) => foreign.has(id));
    if (stranger !== undefined) refused.push({ line, message: `There is no page ${stranger} on this site.` });
    return stranger === undefined;
  });
  return claims(core, site, own, refused);
}

function checkedRow(
  site: OpenSite,
  fields: Record<string, unknown>,
): { values: RouteValues } | { message: string } {
  const parsed = routeInputSchema.safeParse(withOwnHost(site, fields));
  if (!parsed.success)
    return {
      message: fieldErrors(parsed.error)
        .map(({ message }) => message)
        .join(" "),
    };
  const { values, errors } = completion(site, parsed.data);
  const messages = errors.map(({ message }) => message);
  if (messages.length === 0 && values.destination !== null) {
    const fault = captureFault(values.destination, captureCount(values.address, values.match, patternGroups));
    if (fault) messages.push(fault);
  }
  return messages.length > 0 ? { message: messages.join(" ") } : { values };
}

// Whose the addresses are already: the same route's, another's, or a page's.
async function claims(
  core: WithStore,
  site: OpenSite,
  planned: readonly Planned[],
  refused: RoutesImported["refused"],
): Promise<Planned[]> {
  const good: Planned[] = [];
  for (let at = 0; at < planned.length; at += 5 * AT_ONCE) {
    const portion = planned.slice(at, at + 5 * AT_ONCE);
    const keys = [...new Set(portion.flatMap((one) => one.keys))];
    const [rows, pages] = await Promise.all([
      claimsAt(core.store, { site: site.id, keys }),
      publishedTitlesAt(core.store, { site: site.id, keys }),
    ]);
    const there = new Map(rows.map((row) => [`${row.host} ${row.key}`, row]));
    const titles = new Map(pages.map(({ key, title }) => [key, title]));
    for (const one of portion) {
      const { values, line } = one;
      const [own, ...others] = one.keys.map((key) => there.get(`${values.host ?? "*"} ${key}`));
      const taken = others.find((other) => other && other.id !== own?.id);
      const serves = site.hosts.some(
        ({ name, role }) => role !== "short" && (values.host === null || values.host === name),
      );
      const page =
        values.replacesPage || !serves ? undefined : one.keys.map((key) => titles.get(key)).find(Boolean);
      if (taken) refused.push({ line, message: `One of its other spellings belongs to another route.` });
      else if (page) refused.push({ line, message: `The page “${page}” is published at ${values.address}.` });
      else good.push(own ? { ...one, existing: { id: own.id, version: own.version } } : one);
    }
  }
  return good;
}

async function compare(
  core: WithStore,
  planned: readonly Planned[],
  progress: Progress,
  done: number,
  total: number,
): Promise<{ unchanged: number; changing: Planned[] }> {
  const changing: Planned[] = [];
  let unchanged = 0;
  for (let at = 0; at < planned.length; at += AT_ONCE) {
    const portion = planned.slice(at, at + AT_ONCE);
    const ids = portion.flatMap(({ existing }) => existing?.id ?? []);
    const rows = await routesById(core.store, ids);
    const byId = new Map(rows.map((row) => [row.id, row]));
    for (const one of portion) {
      const row = one.existing && byId.get(one.existing.id);
      const same =
        row !== undefined &&
        Object.entries(one.values).every(([name, value]) => alike(value, row[name as keyof RouteValues]));
      if (same) unchanged += 1;
      else changing.push(one);
    }
    await progress.step(done, total);
  }
  return { unchanged, changing };
}

// As JSON has it, in whichever order the database keeps an object's fields.
function alike(a: unknown, b: unknown): boolean {
  return isDeepStrictEqual(asJson(a), asJson(b));
}

function asJson(value: unknown): unknown {
  return JSON.parse(JSON.stringify(value ?? null)) as unknown;
}

async function write(
  core: WithStore,
  site: OpenSite,
  taken: readonly Planned[],
  progress: Progress,
  done: number,
  noted: (transaction: Transaction) => Promise<void>,
): Promise<void> {
  const { store } = core;
  try {
    await store.transaction(async (transaction) => {
      const ids: string[] = [];
      for (let at = 0; at < taken.length; at += AT_ONCE) {
        const portion = taken.slice(at, at + AT_ONCE);
        ids.push(...(await writePortion(core, site, portion, transaction)));
        await progress.step(
          done + Math.round((done * Math.min(taken.length, at + AT_ONCE)) / taken.length),
          done * 2,
        );
      }
      await noteRoutes(store, transaction, site.id, ids);
      await noted(transaction);
    });
  } catch (error) {
    if (error instanceof ChangedMeanwhile)
      throw new Problem(
        409,
        "Nothing was imported",
        `Somebody changed ${error.message} meanwhile. Import again.`,
      );
    if (violatedIndex(error) !== "route_addresses_pkey") throw error;
    throw new Problem(
      409,
      "Nothing was imported",
      "Somebody took one of these addresses meanwhile. Import again.",
    );
  }
}

async function writePortion(
  core: WithStore,
  site: OpenSite,
  portion: readonly Planned[],
  transaction: Transaction,
): Promise<string[]> {
  const fresh = portion.filter(({ existing }) => !existing);
  const changed = portion.flatMap(({ existing, values, keys }) =>
    existing ? [{ ...existing, values, keys }] : [],
  );
  const made = await insertRoutes(core.store, site.id, fresh, transaction);
  await updateRoutes(core.store, site.id, changed, transaction);
  return [...made, ...changed.map(({ id }) => id)];
}

/** Imports routes, however many. */
export const importRoutesTask: Task<
  WithStore,
  { actor: Actor; file: RouteFile; query: ImportQuery },
  RoutesImported
> = {
  name: "routes.import",
  run: (desk, site, { actor, file, query }, progress) =>
    importRoutes(desk, actor, site, file, query, progress),
};

/** Imports routes while whoever brought them looks elsewhere. */
export const importRoutesJob: JobKind<WithThread, { json: boolean; query: ImportQuery }, RoutesImported> = {
  name: "routes.import",
  run: async (desk, { actor, site, input: { json, query }, file }, progress) =>
    desk.thread.run(
      importRoutesTask,
      site.id,
      { actor, file: { bytes: await file(), json }, query },
      progress,
    ),
  oneOf: (siteId, { query }) => `routes ${query.dryRun === "1" ? "tried" : "imported"} ${siteId}`,
};
