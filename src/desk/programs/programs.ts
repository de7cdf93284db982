import { isDeepStrictEqual } from "node:util";
import {
  programInputSchema,
  type Network,
  type Program,
  type ProgramChange,
  type ProgramInput,
} from "../../core/programs/program.ts";
import type { ProgramState } from "../../core/programs/choices.ts";
import { readTemplate } from "../../core/programs/template.ts";
import { domainNames } from "../../core/rules/resolve/match.ts";
import type { Rule } from "../../core/rules/rule.ts";
import { noteChange } from "../../store/ground/changes.ts";
import {
  insertProgram,
  programRows,
  setProgramDeleted,
  updateProgram,
  type ProgramRow,
} from "../../store/programs/programs.ts";
import { claimReported, releaseReported } from "../../store/earnings/report-names.ts";
import { violatedIndex } from "../../store/ground/store.ts";
import { fieldErrors, invalid, notFound, stale } from "../ground/problem.ts";
import { currentRules, replaceRules } from "../rules/rules.ts";
import { networkNamed } from "./networks.ts";
import type { OpenSite } from "../sites/open-site.ts";
import { beforeAndAfter } from "../ground/before-after.ts";
import { audit } from "../ground/audit.ts";
import type { WithStore } from "../ground/parts.ts";
import type { Actor } from "../../core/people/actor.ts";
import { isRowId } from "../../store/ground/row-ids.ts";

/** Finds a program of the site. */
export async function openProgram(desk: WithStore, site: OpenSite, id: string): Promise<ProgramRow> {
  const [row] = isRowId(id) ? await programRows(desk.store, site.id, id) : [];
  if (!row) throw notFound("This program");
  return row;
}

/** Adds a program. */
export async function createProgram(
  desk: WithStore,
  actor: Actor,
  site: OpenSite,
  input: ProgramInput,
  now: number,
): Promise<Program> {
  await checkTemplate(desk, site, input);
  await checkReportNames(desk, site, input, undefined);
  const stateDates = { [input.state]: dayOf(now) };
  const id = await named(input.name, () =>
    desk.store.transaction(async (transaction) => {
      const made = await insertProgram(desk.store, transaction, {
        siteId: site.id,
        terms: input,
        stateDates,
      });
      await claimReported(desk.store, transaction, {
        siteId: site.id,
        programId: made,
        words: calledIn(input),
      });
      await audit(
        desk,
        actor,
        { siteId: site.id, action: "program.create", object: input.name, detail: { id: made } },
        transaction,
      );
      await noteChange(desk.store, transaction, { siteId: site.id, kind: "site" });
      return made;
    }),
  );
  return programView(await openProgram(desk, site, id));
}

/** Changes the fields that are given, over the version that was read. */
export async function changeProgram(
  desk: WithStore,
  actor: Actor,
  site: OpenSite,
  id: string,
  { version, ...change }: ProgramChange,
  now: number,
): Promise<Program> {
  const row = await openProgram(desk, site, id);
  if (row.version !== version) throw stale(programView(row));
  const whole = programInputSchema.safeParse({ ...row.terms, ...change });
  if (!whole.success) throw invalid(fieldErrors(whole.error));
  const terms = whole.data;
  // What becomes of its links is asked anew each time that it closes.
  if (terms.state !== row.terms.state) terms.linksLeft = false;
  if (isDeepStrictEqual(terms, row.terms)) return programView(row);
  await checkTemplate(desk, site, terms);
  await checkReportNames(desk, site, terms, row.id);
  const [before, after] = [calledIn(row.terms), calledIn(terms)];
  const called = { siteId: site.id, programId: row.id };
  const stateDates =
    terms.state === row.terms.state ? row.stateDates : { ...row.stateDates, [terms.state]: dayOf(now) };
  await named(terms.name, () =>
    desk.store.transaction(async (transaction) => {
      if (!(await updateProgram(desk.store, transaction, { id: row.id, version, terms, stateDates })))
        throw stale(programView(await openProgram(desk, site, id)));
      const given = after.filter((word) => !before.includes(word));
      // What came in under an earlier name of the program itself stays its own.
      const taken = before.filter((word) => !after.includes(word) && word !== row.terms.name.toLowerCase());
      await claimReported(desk.store, transaction, { ...called, words: given });
      await releaseReported(desk.store, transaction, { ...called, words: taken });
      await audit(
        desk,
        actor,
        {
          siteId: site.id,
          action: "program.change",
          object: terms.name,
          detail: { id: row.id, ...beforeAndAfter({ ...row.terms }, { ...terms }) },
        },
        transaction,
      );
      await noteChange(desk.store, transaction, { siteId: site.id, kind: "site" });
    }),
  );
  if (terms.name !== row.terms.name) await renameInRules(desk, actor, site, row.terms.name, terms.name);
  return programView(await openProgram(desk, site, id));
}

// Rules name programs in words that people read; those that named it go on meaning it.
async function renameInRules(
  desk: WithStore,
  actor: Actor,
  site: OpenSite,
  from: string,
  to: string,
): Promise<void> {
  const { version, rules } = await currentRules(desk, site);
  const renamed = (names: string[] | undefined): string[] | undefined =>
    names?.map((name) => (name === from ? to : name));
  const next = rules.map((rule) => ({
    ...rule,
    match: { ...rule.match, ...(rule.match.programs ? { programs: renamed(rule.match.programs) } : {}) },
    ...(rule.except
      ? {
          except: {
            ...rule.except,
            ...(rule.except.programs ? { programs: renamed(rule.except.programs) } : {}),
          },
        }
      : {}),
  }));
  if (!isDeepStrictEqual(next, rules)) await replaceRules(desk, actor, site, version, next as Rule[]);
}

/** Takes a program away; it can be brought back. */
export async function deleteProgram(
  desk: WithStore,
  actor: Actor,
  site: OpenSite,
  id: string,
): Promise<void> {
  const row = await openProgram(desk, site, id);
  await setDeleted(desk, actor, site, row.id, true);
}

/** Brings a program back that was taken away. */
export async function restoreProgram(
  desk: WithStore,
  actor: Actor,
  site: OpenSite,
  id: string,
): Promise<Program> {
  if (!isRowId(id) || !(await named("it", () => setDeleted(desk, actor, site, id, false))))
    throw notFound("This program");
  return programView(await openProgram(desk, site, id));
}

function setDeleted(
  desk: WithStore,
  actor: Actor,
  site: OpenSite,
  id: string,
  deleted: boolean,
): Promise<boolean> {
  return desk.store.transaction(async (transaction) => {
    const name = await setProgramDeleted(desk.store, transaction, { siteId: site.id, id, deleted });
    if (name === undefined) return false;
    const action = deleted ? "program.delete" : "program.restore";
    await audit(desk, actor, { siteId: site.id, action, object: name, detail: { id } }, transaction);
    await noteChange(desk.store, transaction, { siteId: site.id, kind: "site" });
    return true;
  });
}

/** A program as the API answers it; what is sealed is only said to be there. */
export function programView(row: ProgramRow): Program {
  const { id, terms, stateDates, hasCredentials, version, createdAt, updatedAt } = row;
  return {
    ...terms,
    id,
    stateDates: stateDates as Partial<Record<ProgramState, string>>,
    hasCredentials,
    version,
    createdAt: createdAt.toISOString(),
    updatedAt: updatedAt.toISOString(),
  };
}

// Tracked links go to the program's own domains or to a host of its network: anywhere else would be a slip, or a theft.
async function checkTemplate(desk: WithStore, site: OpenSite, terms: ProgramInput): Promise<void> {
  const read = readTemplate(terms.template);
  if (!read.ok || read.template.style !== "wrapper") return;
  const host = read.template.host.replace(/:\d+$/, "");
  const network: Network | undefined = terms.network
    ? await networkNamed(desk, site, terms.network)
    : undefined;
  const own = domainNames(host).some((name) => terms.domains.includes(name));
  if (own || network?.hosts.includes(host)) return;
  const where = network ? `${terms.name}’s domains and ${network.name}’s hosts` : `${terms.name}’s domains`;
  throw invalid([
    {
      path: "template",
      message: `${host} is none of ${where}: name it there first if tracked links really go to it.`,
    },
  ]);
}

// What reports call a program, in lower case.
function calledIn({ name, reportNames }: Pick<ProgramInput, "name" | "reportNames">): string[] {
  return [...new Set([name, ...reportNames].map((word) => word.toLowerCase()))];
}

// A word of a report means one program.
async function checkReportNames(
  desk: WithStore,
  site: OpenSite,
  { reportNames }: ProgramInput,
  id: string | undefined,
): Promise<void> {
  if (reportNames.length === 0) return;
  for (const other of await programRows(desk.store, site.id)) {
    const taken =
      other.id === id
        ? undefined
        : reportNames.find((word) => calledIn(other.terms).includes(word.toLowerCase()));
    if (taken !== undefined)
      throw invalid([
        { path: "reportNames", message: `In reports “${taken}” is ${other.terms.name} already.` },
      ]);
  }
}

async function named<T>(name: string, write: () => Promise<T>): Promise<T> {
  try {
    return await write();
  } catch (error) {
    if (violatedIndex(error) === "programs_name")
      throw invalid([{ path: "name", message: `There is a program “${name}” already.` }]);
    throw error;
  }
}

function dayOf(now: number): string {
  return new Date(now).toISOString().slice(0, 10);
}
