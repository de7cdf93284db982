import { spawnSync } from "node:child_process";
import { mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { startPostgres } from "../scripts/postgres.mjs";
import { seeded } from "../demo/seeded.ts";
import { reportColumnsSchema } from "../src/core/earnings/earning.ts";
import { programInputSchema } from "../src/core/programs/program.ts";
import { buildLink } from "../src/core/programs/build-link.ts";
import { recogniser } from "../src/core/programs/recognise.ts";
import { readTemplate } from "../src/core/programs/template.ts";
import type { WithDeliveryPort, WithStore } from "../src/desk/ground/parts.ts";
import { readEarnings } from "../src/desk/earnings/earnings.ts";
import { importReport } from "../src/desk/earnings/import-report.ts";
import { UNWATCHED } from "../src/threads/progress.ts";
import { listPrograms } from "../src/desk/programs/list-programs.ts";
import { ensureDatabase } from "../src/store/ground/ensure-database.ts";
import { migrate } from "../src/store/ground/migrate.ts";
import { openStore, type Store } from "../src/store/ground/store.ts";
import { openSite } from "../src/desk/sites/open-site.ts";

const LINKS = 200_000;
const PROGRAMS = 2_000;
const ROWS = 1_000_000;
const CLICKS = 10_000_000;
const CONVERSIONS = 100_000;
const DAY = 86_400_000;

/** Recognising links, importing a report beside COPY of the same file, and the views over ten million clicks. */
export async function programs(): Promise<void> {
  recognising();
  const folder = mkdtempSync(join(tmpdir(), "maprope-bench-"));
  const postgres = await startPostgres(folder);
  try {
    await ensureDatabase(postgres.url("postgres"), "bench");
    const store = openStore(postgres.url("bench"));
    await migrate(store);
    await siteWithPrograms(store);
    await importing(folder, postgres.url("bench"), store);
    await views(store);
    await store.close();
  } finally {
    postgres.stop("immediate");
    rmSync(folder, { recursive: true, force: true });
    postgres.discard();
  }
}

function known(at: number) {
  const text =
    at % 2 === 0
      ? `https://go${at % 7}.network.example/c/{id}/shop${at}?to={destination}&sub={sub}`
      : `{destination}?partner={id}&label={sub}`;
  const read = readTemplate(text);
  if (!read.ok) throw new Error(read.reason);
  return {
    name: `Program ${at}`,
    trackingId: `A-${at}`,
    domains: [`shop${at}.example`, `*.shop${at}.example`],
    template: read.template,
    subIdLimit: 50,
  };
}

function recognising(): void {
  const all = Array.from({ length: PROGRAMS }, (_, at) => known(at));
  const random = seeded(7);
  const links = Array.from({ length: LINKS }, (_, at) => {
    const program = all[Math.floor(random() * PROGRAMS)]!;
    const destination = `https://www.shop${program.name.slice(8)}.example/item/${at}?colour=${at % 9}`;
    const kind = random();
    if (kind < 0.3) return `https://elsewhere${at % 5000}.example/page/${at}`;
    if (kind < 0.5) return destination;
    const built = buildLink(program, destination, `page-${at % 500}`);
    if (!built.ok) throw new Error(built.reason);
    return built.address;
  });
  const times: number[] = [];
  let found = 0;
  for (let round = 0; round < 5; round += 1) {
    const began = performance.now();
    const find = recogniser(all);
    found = links.reduce((sum, link) => sum + (find(link) ? 1 : 0), 0);
    times.push(performance.now() - began);
  }
  const median = times.sort((a, b) => a - b)[2]!;
  console.log(
    `Recognising ${LINKS.toLocaleString("en")} links against ${PROGRAMS.toLocaleString("en")} programs, made ready each time: ${median.toFixed(0)} ms (${found.toLocaleString("en")} found; median of five)`,
  );
}

async function siteWithPrograms(store: Store): Promise<void> {
  await store.rows(
    "INSERT INTO sites (key, name, tagline, short_prefix, version, created_at, updated_at) VALUES ('bench', 'Bench', '', '/to/', 1, now(), now())",
  );
  await store.rows("INSERT INTO hosts (site_id, name, role) VALUES (1, 'bench.example', 'primary')");
  const terms = programInputSchema.parse({
    name: "x",
    network: "Net",
    state: "approved",
    domains: ["x.example"],
  });
  await store.rows(
    `INSERT INTO programs (site_id, terms) SELECT 1, $terms::jsonb || jsonb_build_object('name', 'Program ' || n) FROM generate_series(1, 200) n`,
    { terms: JSON.stringify(terms) },
  );
  await store.rows(
    `INSERT INTO issued_links (site_id, program_id, sub_id, destination, address, made_by)
     SELECT 1, 1 + n % 200, 'page-' || n, 'https://x.example/', 'https://x.example/?n=' || n, 'bench' FROM generate_series(1, 20000) n`,
  );
}

const HEAD = "order_id,date,program,sub_id,sale_amount,commission,currency,status";
const COLUMNS = reportColumnsSchema.parse({
  reference: "order_id",
  at: "date",
  program: "program",
  subId: "sub_id",
  amount: "sale_amount",
  commission: "commission",
  currency: "currency",
  state: "status",
  dates: "ymd",
  decimal: ".",
});

function reportRows(rows: number, from: number): string[] {
  const random = seeded(11);
  return Array.from({ length: rows }, (_, at) => {
    const cents = 500 + Math.floor(random() * 20_000);
    const when = new Date(from + Math.floor(random() * 90) * DAY).toISOString();
    return `R-${at},${when},Program ${1 + (at % 200)},page-${at % 25_000},${(cents / 100).toFixed(2)},${(cents / 1000).toFixed(2)},EUR,${random() < 0.1 ? "reversed" : "approved"}`;
  });
}

async function importing(folder: string, url: string, store: Store): Promise<void> {
  const rows = reportRows(ROWS, Date.now() - 90 * DAY);
  const csv = [HEAD, ...rows].join("\n");
  const file = join(folder, "report.csv");
  writeFileSync(file, csv);
  const core: WithStore & WithDeliveryPort = { store, deliveryPort: 4601 };
  const site = await openSite(core, "bench");
  const bytes = Buffer.from(csv);
  const ours = async (): Promise<number> => {
    const began = performance.now();
    const result = await importReport(
      core,
      site,
      { network: "Net", bytes, columns: COLUMNS, dryRun: false, by: "bench" },
      UNWATCHED,
    );
    if (result.created + result.unchanged !== ROWS) throw new Error(JSON.stringify(result));
    return (performance.now() - began) / 1000;
  };
  const copy = (): number => {
    const began = performance.now();
    const sql = `CREATE TABLE IF NOT EXISTS copied (order_id text, date timestamptz, program text, sub_id text, sale_amount numeric, commission numeric, currency text, status text); TRUNCATE copied;`;
    for (const command of [sql, `\\copy copied FROM '${file}' CSV HEADER`]) {
      const { status, stderr } = spawnSync("psql", [url, "-qc", command], { encoding: "utf8" });
      if (status !== 0) throw new Error(stderr);
    }
    return (performance.now() - began) / 1000;
  };
  const rounds: { copy: number; ours: number }[] = [];
  for (let round = 0; round < 3; round += 1) {
    await store.sequelize.query("TRUNCATE conversions");
    rounds.push({ copy: copy(), ours: await ours() });
  }
  const again = await ours();
  const median = (values: number[]): number => values.sort((a, b) => a - b)[1]!;
  const [theirs, mine] = [median(rounds.map((one) => one.copy)), median(rounds.map((one) => one.ours))];
  console.table([
    { what: "COPY of the same file by psql", "rows/s": Math.round(ROWS / theirs), of: 1 },
    { what: "import of the report", "rows/s": Math.round(ROWS / mine), of: (theirs / mine).toFixed(2) },
    { what: "the same report again", "rows/s": Math.round(ROWS / again), of: (theirs / again).toFixed(2) },
  ]);
  await store.sequelize.query("TRUNCATE conversions");
  const few = [HEAD, ...rows.slice(0, CONVERSIONS)].join("\n");
  await importReport(
    core,
    site,
    { network: "Net", bytes: Buffer.from(few), columns: COLUMNS, dryRun: false, by: "bench" },
    UNWATCHED,
  );
}

// Ten million clicks stand in their counts, which is what the views read; the clicks themselves are not needed for it.
async function views(store: Store): Promise<void> {
  await store.rows(
    `INSERT INTO routes (site_id, kind, host, match, address, destination, status, query, title, tags, enabled, counted, version, created_at, updated_at)
     SELECT 1, 'short', NULL, 'exact', '/r' || n, 'https://x.example/' || n, 302, 'drop', '', '{}', true, true, 1, now(), now() FROM generate_series(1, 2000) n`,
  );
  await store.rows(
    "INSERT INTO program_routes (route_id, site_id, program_id, tracking, sub_id) SELECT id, 1, 1 + id % 200, 'ours', 'page-' || id FROM routes",
  );
  const perDay = Math.round(CLICKS / 90 / 2000);
  await store.rows(
    `INSERT INTO click_counts (site_id, route_id, facet, day, key, class, clicks)
     SELECT 1, r.id, f.facet, current_date - d, f.key, 'person', $perDay / f.share FROM routes r, generate_series(0, 89) d,
       (VALUES ('all', '', 1), ('page', '/a', 2), ('page', '/b', 2), ('device', 'phone', 1), ('referrer', 'x', 1)) AS f (facet, key, share)`,
    { perDay },
  );
  await store.sequelize.query("ANALYZE");
  const core: WithStore & WithDeliveryPort = { store, deliveryPort: 4601 };
  const site = await openSite(core, "bench");
  const now = Date.now();
  const shown: Record<string, string>[] = [];
  for (const [view, ask] of [
    ["comparison of 200 programs", () => listPrograms(core, site, {}, now)],
    ["earnings by program", () => readEarnings(core, site, { by: "program" }, now)],
    ["earnings by page", () => readEarnings(core, site, { by: "page" }, now)],
    ["earnings by link", () => readEarnings(core, site, { by: "subId" }, now)],
    ["earnings by day", () => readEarnings(core, site, { by: "day" }, now)],
  ] as const) {
    const times: number[] = [];
    for (let round = 0; round < 5; round += 1) {
      const began = performance.now();
      await ask();
      times.push(performance.now() - began);
    }
    shown.push({ view, ms: times.sort((a, b) => a - b)[2]!.toFixed(0) });
  }
  console.log(
    `Views over ${CLICKS.toLocaleString("en")} clicks and ${CONVERSIONS.toLocaleString("en")} conversions (medians of five):`,
  );
  console.table(shown);
}
