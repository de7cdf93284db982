import { isPagePlace, type LedgerPlace } from "../../core/ledger/ledger.ts";
import { ruleFindings, type RuledLink } from "../../core/pages/check/rule-findings.ts";
import { asItStands, treated } from "../../core/ledger/occurrence.ts";
import { isAsWritten } from "./as-written.ts";
import type { Rule } from "../../core/rules/rule.ts";
import { writtenOn } from "../../core/rules/resolve/link-attributes.ts";
import type { LinkFacts } from "../../core/rules/resolve/facts.ts";
import { needsReferrer } from "../../core/rules/partners.ts";
import { resolve } from "../../core/rules/resolve/resolve.ts";
import {
  ruledRows,
  writeTreatments,
  type LedgerTreatment,
  type RuledRow,
} from "../../store/ledger/ledger-rows.ts";
import type { OpenSite } from "../sites/open-site.ts";
import type { WithStore } from "../ground/parts.ts";
import { type SourceAround, sourcesAround, markUndisclosed } from "../../store/ledger/sources.ts";

/**
 * Asks new rules about every link of the ledger and writes what has changed. No page is read: what rules look at
 * stands in the ledger itself.
 */
export async function reapplyRules(
  core: WithStore,
  site: OpenSite,
  rules: readonly Rule[],
  step: (done: number) => Promise<void>,
): Promise<void> {
  const sources = new Map(
    (await sourcesAround(core.store, { site: site.id })).map((source) => [source.id, source]),
  );
  let done = 0;
  for await (const documents of wholeDocuments(core, site)) {
    const changed: ({ id: string } & LedgerTreatment)[] = [];
    for (const rows of documents) {
      const source = sources.get(rows[0]!.source);
      if (!source) continue;
      const { links, undisclosed } = reapplyToDocument(rows, source, site, rules);
      changed.push(...links.filter((link, index) => !sameTreatment(link, rows[index]!)));
      if (undisclosed !== source.findings.includes("undisclosed"))
        await noteDisclosure(core, source.id, undisclosed);
      done += rows.length;
    }
    await writeTreatments(core.store, changed);
    await step(done);
  }
}

/** What a set of rules makes of the links of one document. */
function reapplyToDocument(
  rows: readonly RuledRow[],
  source: SourceAround,
  site: OpenSite,
  rules: readonly Rule[],
): { links: ({ id: string } & LedgerTreatment)[]; undisclosed: boolean } {
  const ruled: RuledLink[] = [];
  const place = source.kind as LedgerPlace;
  const isThere = isAsWritten(site, place, rows[0]!.place);
  const inForce = isThere ? [] : rules;
  const links = rows.map((row, index) => {
    const facts = factsOf(row);
    const written = writtenOn({ rel: row.stored_rel, target: row.stored_target, override: row.override });
    const wanted = treated(resolve(rules, facts, written));
    const {
      rel,
      target,
      treatment,
      rules: names,
    } = isThere ? asItStands(row.stored_rel, row.stored_target, wanted.rules) : wanted;
    const isBare = row.stored_rel === null && row.stored_target === null && row.override === null;
    ruled.push({
      index,
      reach: row.reach,
      words: row.words,
      rel,
      target,
      ruledTarget: isBare ? target : resolve(inForce, facts, writtenOn({})).target,
      programs: row.programs,
      needsReferrer: needsReferrer(site.partners, row.programs),
    });
    return {
      id: row.id,
      rel: rel.join(" "),
      target,
      treatment,
      rules: names,
      rule_findings: [] as string[],
      wanted_rel: isThere ? wanted.rel.join(" ") : null,
      wanted_target: isThere ? wanted.target : null,
    };
  });
  const isPage = isPagePlace(place);
  const findings = ruleFindings(
    ruled,
    { words: source.words, disclosed: source.disclosed ?? undefined },
    isPage ? site : { paidLimit: Infinity, paidLimitLong: Infinity, longWords: site.longWords },
  );
  for (const { link, code } of findings) if (link !== null) links[link]!.rule_findings.push(code);
  return { links, undisclosed: findings.some(({ code }) => code === "undisclosed") };
}

/** A ledger row as rules look at it. */
export function factsOf(row: RuledRow): LinkFacts {
  return {
    reach: row.reach,
    domain: row.via || row.host || undefined,
    end: row.via === "" ? undefined : row.host,
    short: row.kind === "route",
    page: row.place === "" ? undefined : row.place,
    category: row.category === "" ? undefined : row.category,
    anchor: row.anchor,
    programs: row.programs,
    networks: row.networks,
  };
}

function sameTreatment(a: LedgerTreatment, b: LedgerTreatment): boolean {
  return (
    a.rel === b.rel &&
    a.target === b.target &&
    a.wanted_rel === b.wanted_rel &&
    a.wanted_target === b.wanted_target &&
    a.rules.join("\n") === b.rules.join("\n") &&
    [...a.rule_findings].sort().join() === [...b.rule_findings].sort().join()
  );
}

async function noteDisclosure(core: WithStore, id: string, undisclosed: boolean): Promise<void> {
  await markUndisclosed(core.store, { id, undisclosed });
}

// Portions of the ledger cut at the borders of documents: what is said of paid links looks at a whole document.
async function* wholeDocuments(core: WithStore, site: OpenSite): AsyncGenerator<RuledRow[][]> {
  let open: RuledRow[] = [];
  for await (const rows of ruledRows(core.store, site.id, false)) {
    const documents: RuledRow[][] = [];
    for (const row of rows) {
      if (open.length > 0 && open[0]!.source !== row.source) {
        documents.push(open);
        open = [];
      }
      open.push(row);
    }
    if (documents.length > 0) yield documents;
  }
  if (open.length > 0) yield [open];
}
