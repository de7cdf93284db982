/** A program as reports may speak of it. */
export interface CreditedProgram {
  id: string;
  name: string;
  /** Empty for one that runs its own program. */
  network: string;
  /** What reports call it besides. */
  reportNames: readonly string[];
}

/** A sub-ID that was issued for a program, and the page that it stands on when that is known. */
export interface IssuedSubId {
  subId: string;
  programId: string;
  pageId: string | null;
}

/** Whose a row of a report is; both null when it is nobody's. */
export interface Credit {
  programId: string | null;
  pageId: string | null;
}

/** Nobody's: its sub-ID and the program that it names say different things, or several programs have its sub-ID. */
export const DOUBTFUL: Credit = { programId: null, pageId: null };
/** Nobody's: nothing of it is known. */
export const UNKNOWN: Credit = { programId: null, pageId: null };

/** True when a program's sales stand in this network's reports: it is of that network, or is the network itself. */
export function isReportedBy(network: string, program: Pick<CreditedProgram, "name" | "network">): boolean {
  return sameName(program.network === "" ? program.name : program.network, network);
}

/**
 * Makes ready for the rows of one network's report. A row belongs to the placement that its sub-ID was issued to, among
 * the network's own programs, else to the program that it names; a row that names one program while its sub-ID was
 * issued for another is credited to none. Programs of no network can be named by any report.
 */
export function crediter(
  network: string,
  programs: readonly CreditedProgram[],
  issued: readonly IssuedSubId[],
): (row: { subId: string; program: string }) => Credit {
  const byName = new Map<string, Credit>();
  const within = new Set<string>();
  const anywhere = new Set<string>();
  const there = programs.filter((program) => program.network === "" || isReportedBy(network, program));
  for (const program of there) (isReportedBy(network, program) ? within : anywhere).add(program.id);
  // A program's own name goes before what another one is called besides.
  for (const { id, reportNames } of there)
    for (const name of reportNames) byName.set(name.toLowerCase(), { programId: id, pageId: null });
  for (const { id, name } of there) byName.set(name.toLowerCase(), { programId: id, pageId: null });
  const places = new Map<string, Credit[]>();
  for (const { subId, programId, pageId } of issued) {
    if (subId === "" || !(within.has(programId) || anywhere.has(programId))) continue;
    const owners = places.get(subId);
    if (!owners) places.set(subId, [{ programId, pageId }]);
    else if (owners.every((one) => one.programId !== programId)) owners.push({ programId, pageId });
  }
  return ({ subId, program }) => {
    const named = byName.get(program.toLowerCase());
    const owners = places.get(subId);
    if (!owners) return named ?? UNKNOWN;
    if (named) return owners.find(({ programId }) => programId === named.programId) ?? DOUBTFUL;
    const own = owners.filter(({ programId }) => within.has(programId!));
    if (own.length === 0) return UNKNOWN;
    return own.length === 1 ? own[0]! : DOUBTFUL;
  };
}

function sameName(a: string, b: string): boolean {
  return a.trim().toLowerCase() === b.trim().toLowerCase();
}
