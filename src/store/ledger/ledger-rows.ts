import type { LedgerPlace } from "../../core/ledger/ledger.ts";
import { LOCKS } from "../ground/locks.ts";
import type { Transaction } from "sequelize";
import { copyInto, copyRows } from "../ground/copy-text.ts";
import type { Store } from "../ground/store.ts";

/** A document that links stand in. */
export interface LedgerSourceRow {
  kind: LedgerPlace;
  /** 0: the navigation. */
  pageId: string;
  /** The document as it is written, as readers get it, or both alike. */
  edition: "both" | "draft" | "published";
  /** Readers get it. */
  live: boolean;
  /** By which a later form of the document is told from this one. */
  stamp: string;
  /** What else its entry depends on, in short: of a site that has changed there, it is out of date. */
  madeOf: string;
  path: string;
  title: string;
  category: string;
  /** On how many pages it stands, where it was read once for all of them. */
  onPages: number;
  words: number;
  /** Whether readers are told of paid links; null where they need not be. */
  disclosed: boolean | null;
  /** It tells them itself. */
  tells: boolean;
  findings: readonly string[];
}

/** One place where a link stands. */
export interface LedgerLinkRow extends LedgerTreatment {
  ordinal: number;
  words: string;
  anchor: "text" | "image";
  href: string;
  ends: string;
  host: string;
  via: string;
  kind: string;
  reach: "external" | "internal" | "none";
  own_key: string | null;
  destination_key: string;
  route_id: string | null;
  leads_to: string | null;
  short_id: string | null;
  stored_rel: string | null;
  stored_target: string | null;
  override: string | null;
  creative_id: string | null;
  programs: readonly string[];
  networks: readonly string[];
  /** The label that its program's report will name this place by; null without our tracking. */
  sub_id: string | null;
  text_findings: readonly string[];
}

/** What the rules make of it: all that changes when only they do. */
export interface LedgerTreatment {
  /** Tokens, separated by spaces. */
  rel: string;
  target: string | null;
  treatment: string;
  rules: readonly string[];
  rule_findings: readonly string[];
  /** What rules ask of a link that readers get as it is written elsewhere; null for all others. */
  wanted_rel: string | null;
  wanted_target: string | null;
}

/**
 * Takes a site's ledger for the rest of the transaction. Whoever writes it checks under this lock that what was read
 * is still what stands there.
 */
export async function lockLedger(store: Store, siteId: string, transaction: Transaction): Promise<void> {
  await store.rows(
    "SELECT pg_advisory_xact_lock($lock::int, $site::int)",
    { lock: LOCKS.ledger, site: Number(siteId) },
    transaction,
  );
}

/** Tries to become the one that follows changes for all sites, for the rest of the transaction. */
export async function becomeFollower(store: Store, transaction: Transaction): Promise<boolean> {
  const [row] = await store.rows<{ mine: boolean }>(
    "SELECT pg_try_advisory_xact_lock($lock::bigint) AS mine",
    { lock: LOCKS.following },
    transaction,
  );
  return row!.mine;
}

/** Takes the documents of these pages out of the ledger, with all their links; answers where each stood. */
export async function removeSources(
  store: Store,
  siteId: string,
  pageIds: readonly string[],
  transaction: Transaction,
): Promise<SourcePlace[]> {
  return store.rows<SourcePlace>(
    `WITH gone AS (DELETE FROM ledger_sources WHERE site_id = $siteId::bigint AND page_id = ANY($pageIds::bigint[]) RETURNING page_id, edition, live, path)
     SELECT page_id::text AS "pageId", edition, live, path FROM gone`,
    { siteId, pageIds },
    transaction,
  );
}

/** Where a document stands for links that lead to its page. */
export type SourcePlace = Pick<LedgerSourceRow, "pageId" | "edition" | "live" | "path">;

const LINK_COLUMNS = [
  "ordinal",
  "words",
  "anchor",
  "href",
  "ends",
  "host",
  "via",
  "kind",
  "reach",
  "own_key",
  "destination_key",
  "route_id",
  "leads_to",
  "short_id",
  "stored_rel",
  "stored_target",
  "override",
  "creative_id",
  "rel",
  "target",
  "treatment",
  "rules",
  "programs",
  "networks",
  "sub_id",
  "text_findings",
  "rule_findings",
  "wanted_rel",
  "wanted_target",
] as const satisfies readonly (keyof LedgerLinkRow)[];
const INTO_LINKS = `ledger_links (site_id, source_id, edition, live, source_kind, place, category, search, ${LINK_COLUMNS.join(", ")})`;

/** Writes documents with their links; those of the same pages are taken out before. */
export async function writeSources(
  store: Store,
  siteId: string,
  sources: readonly { source: LedgerSourceRow; links: readonly LedgerLinkRow[] }[],
  transaction: Transaction,
): Promise<void> {
  if (sources.length === 0) return;
  const ids = await store.rows<{ id: string }>(
    `INSERT INTO ledger_sources (site_id, kind, page_id, edition, live, stamp, made_of, path, title, category, on_pages, words, disclosed, tells, findings)
     SELECT $siteId::bigint, kind, "pageId", edition, live, stamp, "madeOf", path, title, category, "onPages", words, disclosed, tells, findings
     FROM jsonb_to_recordset($rows::jsonb) AS r (kind text, "pageId" bigint, edition text, live boolean, stamp text, "madeOf" text, path text,
       title text, category text, "onPages" integer, words integer, disclosed boolean, tells boolean, findings text[])
     RETURNING id::text`,
    { siteId, rows: JSON.stringify(sources.map(({ source }) => source)) },
    transaction,
  );
  const rows = sources.flatMap(({ source, links }, index) =>
    links.map((link) => [
      siteId,
      ids[index]!.id,
      source.edition,
      source.live,
      source.kind,
      source.path,
      source.category,
      searchOf(source, link),
      ...LINK_COLUMNS.map((column) => link[column]),
    ]),
  );
  if (rows.length > 0) await copyInto(transaction, INTO_LINKS, rows);
}

function searchOf(source: LedgerSourceRow, link: LedgerLinkRow): string {
  return [link.words, link.href, link.ends === link.href ? "" : link.ends, source.path, source.title]
    .join("\n")
    .toLowerCase();
}

/** Writes what other rules make of links. */
export async function writeTreatments(
  store: Store,
  rows: readonly ({ id: string } & LedgerTreatment)[],
  transaction?: Transaction,
): Promise<void> {
  if (rows.length === 0) return;
  await store.rows(
    `UPDATE ledger_links l SET rel = r.rel, target = r.target, treatment = r.treatment, rules = r.rules, rule_findings = r.rule_findings,
       wanted_rel = r.wanted_rel, wanted_target = r.wanted_target
     FROM jsonb_to_recordset($rows::jsonb) AS r (id bigint, rel text, target text, treatment text, rules text[], rule_findings text[], wanted_rel text,
       wanted_target text)
     WHERE l.id = r.id`,
    { rows: JSON.stringify(rows) },
    transaction,
  );
}

/** A link with all that rules ask of it. */
export interface RuledRow extends LedgerTreatment {
  id: string;
  source: string;
  place: string;
  category: string;
  words: string;
  href: string;
  anchor: "text" | "image";
  reach: "external" | "internal" | "none";
  host: string;
  via: string;
  kind: string;
  programs: string[];
  networks: string[];
  stored_rel: string | null;
  stored_target: string | null;
  override: string | null;
}

// Lists as one text: no name of ours holds this character.
const list = (column: string): string => `nullif(array_to_string(${column}, E'\\x1f'), '')`;
const RULED = `id, source_id, place, category, words, href, anchor, reach, host, via, kind, ${list("programs")}, ${list("networks")}, stored_rel, stored_target, override,
  rel, target, treatment, ${list("rules")}, ${list("rule_findings")}, wanted_rel, wanted_target`;
const NONE: string[] = [];
const PORTION = 4_000;

/**
 * Walks through a site's links in portions, document by document. `readers`: as readers get them where they get them,
 * else as they are written; without it every edition.
 */
export async function* ruledRows(store: Store, siteId: string, readers: boolean): AsyncGenerator<RuledRow[]> {
  const transaction = await store.sequelize.transaction();
  try {
    const sql = `SELECT ${RULED} FROM ledger_links WHERE site_id = ${BigInt(siteId)} ${readers ? "AND edition <> 'draft'" : ""} ORDER BY source_id, ordinal`;
    let portion: RuledRow[] = [];
    for await (const rows of copyRows(transaction, sql)) {
      for (const row of rows) portion.push(ruledRow(row));
      if (portion.length < PORTION) continue;
      yield portion;
      portion = [];
    }
    if (portion.length > 0) yield portion;
  } finally {
    // Nothing was written.
    await transaction.rollback();
  }
}

function ruledRow(row: readonly (string | null)[]): RuledRow {
  return {
    id: row[0]!,
    source: row[1]!,
    place: row[2]!,
    category: row[3]!,
    words: row[4]!,
    href: row[5]!,
    anchor: row[6] as RuledRow["anchor"],
    reach: row[7] as RuledRow["reach"],
    host: row[8]!,
    via: row[9]!,
    kind: row[10]!,
    programs: listOf(row[11]),
    networks: listOf(row[12]),
    stored_rel: row[13]!,
    stored_target: row[14]!,
    override: row[15]!,
    rel: row[16]!,
    target: row[17]!,
    treatment: row[18]!,
    rules: listOf(row[19]),
    rule_findings: listOf(row[20]),
    wanted_rel: row[21]!,
    wanted_target: row[22]!,
  };
}

function listOf(text: string | null | undefined): string[] {
  return text ? text.split("\x1f") : NONE;
}

/** How many links the ledger has of a site, over all editions. */
export async function countLedger(store: Store, siteId: string): Promise<number> {
  const [row] = await store.rows<{ links: number }>(
    "SELECT count(*)::int AS links FROM ledger_links WHERE site_id = $siteId::bigint",
    { siteId },
  );
  return row!.links;
}

/** Up to where a site's ledger is current. */
export interface LedgerState {
  seq: string;
  rulesVersion: number;
}

/** Where a site's ledger stands; undefined when it was never made. */
export async function ledgerState(store: Store, siteId: string): Promise<LedgerState | undefined> {
  const [row] = await store.rows<LedgerState>(
    `SELECT seq::text, rules_version AS "rulesVersion" FROM ledger_states WHERE site_id = $siteId::bigint`,
    { siteId },
  );
  return row;
}

/** Notes up to where a site's ledger is current, and how today's outside links are treated. */
export async function saveLedgerState(store: Store, siteId: string, state: LedgerState): Promise<void> {
  await store.rows(
    `INSERT INTO ledger_states (site_id, seq, rules_version) VALUES ($siteId::bigint, $seq::bigint, $rulesVersion)
     ON CONFLICT (site_id) DO UPDATE SET seq = excluded.seq, rules_version = excluded.rules_version, kept_at = now()`,
    { siteId, ...state },
  );
  await store.transaction(async (transaction) => {
    await store.rows(
      "DELETE FROM ledger_days WHERE site_id = $siteId::bigint AND day = (now() AT TIME ZONE 'UTC')::date",
      { siteId },
      transaction,
    );
    await store.rows(
      `INSERT INTO ledger_days (site_id, day, treatment, links)
       SELECT site_id, (now() AT TIME ZONE 'UTC')::date, treatment, count(*) FROM ledger_links
       WHERE site_id = $siteId::bigint AND edition <> 'draft' AND live AND reach = 'external' GROUP BY site_id, treatment
       ON CONFLICT DO NOTHING`,
      { siteId },
      transaction,
    );
  });
}
