import { NOBODY_OUTSIDE } from "../tests/support/desk.ts";
import { catchUpTask } from "../src/desk/ledger/follow-ledger.ts";
import { tryRulesTask } from "../src/desk/rules/try-rules.ts";
import { textsHere, type WithTexts } from "../src/desk/pages/texts/read-text.ts";
import { sealWith } from "../src/desk/ground/seal.ts";
import { mkdtempSync, rmSync } from "node:fs";
import { monitorEventLoopDelay } from "node:perf_hooks";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { Tokenizer } from "htmlparser2";
import { startPostgres } from "../scripts/postgres.mjs";
import { rewriteDocument } from "../src/core/links/rewrite/rewrite-document.ts";
import type { LinkFacts } from "../src/core/rules/resolve/facts.ts";
import { resolve } from "../src/core/rules/resolve/resolve.ts";
import type { Desk } from "../src/desk/desk.ts";
import { UNWATCHED } from "../src/threads/progress.ts";
import { createJobs } from "../src/desk/jobs/jobs.ts";
import { catchUpLedger, rebuildLedger } from "../src/desk/ledger/follow-ledger.ts";
import { indexPages } from "../src/desk/ledger/index-pages.ts";
import { linkFacets, listLinks, groupLinks } from "../src/desk/ledger/list-links.ts";
import { savePage } from "../src/desk/pages/pages.ts";
import { replaceRules } from "../src/desk/rules/rules.ts";
import { createSite } from "../src/desk/sites/sites.ts";
import { startDeskThread } from "../src/desk/start-desk-thread.ts";
import { runTask } from "../src/desk/tasks.ts";
import { FOREIGN, HOSTS, LINKS_A_PAGE, PAGES, pageHtml, someRules, wholeDocument } from "./samples.ts";
import { ensureDatabase } from "../src/store/ground/ensure-database.ts";
import { migrate } from "../src/store/ground/migrate.ts";
import { openStore } from "../src/store/ground/store.ts";
import { openSite, type OpenSite } from "../src/desk/sites/open-site.ts";
import type { WithStore, WithDeliveryPort, WithReport } from "../src/desk/ground/parts.ts";
import { linksQuery } from "../src/contract/ledger.ts";
import { median } from "./median.ts";

const ACTOR = { name: "Bench", role: "owner" } as const;
const ROUNDS = 5;
const SAVES = 25;

/** Rewriting against the bare tokenizer; one resolve; a try, the ledger's lists and a save at 200,000 links. */
export async function rules(): Promise<void> {
  const part = process.argv[3];
  if (!part || part === "rewrite") rewriting();
  if (!part || part === "resolve") resolving();
  if (!part || part === "ledger") await ledgering();
}

function rewriting(): void {
  const documents = Array.from({ length: 600 }, (_, page) => wholeDocument(page));
  const bytes = documents.reduce((sum, html) => sum + Buffer.byteLength(html), 0);
  const set = someRules(20);
  const tokenizing: number[] = [];
  const rewritten: number[] = [];
  let events = 0;
  for (let round = 0; round < ROUNDS + 1; round += 1) {
    const bare = timed(() => {
      for (const html of documents) {
        const tokenizer = new Tokenizer(
          { xmlMode: false, decodeEntities: false },
          countingCallbacks(() => (events += 1)),
        );
        tokenizer.write(html);
        tokenizer.end();
      }
    });
    const ours = timed(() => {
      for (const html of documents) rewriteDocument(html, set, FOREIGN, { page: "/section-3/page-3" });
    });
    if (round === 0) continue;
    tokenizing.push(bytes / 1e6 / (bare / 1000));
    rewritten.push(bytes / 1e6 / (ours / 1000));
  }
  const [a, b] = [median(rewritten), median(tokenizing)];
  console.log(
    `rewriting ${documents.length} documents (${(bytes / 1e6).toFixed(1)} MB, 45 links each) by 20 rules: ${a.toFixed(1)} MB/s against ${b.toFixed(1)} MB/s of the bare tokenizer, ${(a / b).toFixed(2)} (target: at least 1.50); ${events} events`,
  );
}

function countingCallbacks(count: () => void) {
  return {
    onattribdata: count,
    onattribend: count,
    onattribentity: count,
    onattribname: count,
    oncdata: count,
    onclosetag: count,
    oncomment: count,
    ondeclaration: count,
    onend: count,
    onopentagend: count,
    onopentagname: count,
    onprocessinginstruction: count,
    onselfclosingtag: count,
    ontext: count,
    ontextentity: count,
  };
}

function resolving(): void {
  for (const size of [20, 1_000]) {
    const set = someRules(size);
    const facts = Array.from({ length: 20_000 }, (_, at): LinkFacts => {
      const page = Math.floor(at / LINKS_A_PAGE) * 7;
      return {
        reach: at % 5 === 4 ? "internal" : "external",
        domain: at % 5 === 4 ? undefined : `www.shop-${(at * 17) % HOSTS}.example`,
        end: undefined,
        short: false,
        page: `/section-${page % 50}/page-${page}`,
        category: `section ${page % 50}`,
        anchor: at % 9 ? "text" : "image",
        programs: [],
        networks: [],
      };
    });
    const written = { rel: [], target: null, override: {} };
    let decided = 0;
    const round = (): number =>
      timed(() => facts.forEach((link) => (decided += resolve(set, link, written).trace.length)));
    round();
    const means = Array.from({ length: ROUNDS }, () => (round() * 1000) / facts.length);
    console.log(
      `one resolve at ${size} rules: ${median(means).toFixed(2)} µs in the mean (target at 1,000: at most 5); ${(decided / (ROUNDS + 1) / facts.length).toFixed(1)} decisions a link`,
    );
  }
}

async function ledgering(): Promise<void> {
  const folder = mkdtempSync(join(tmpdir(), "maprope-bench-"));
  const postgres = await startPostgres(folder);
  const url = postgres.url("bench");
  await ensureDatabase(postgres.url("postgres"), "bench");
  const store = openStore(url);
  await migrate(store);
  const desk: Desk = {
    store,
    deliveryPort: 4601,
    report: (message, error) => console.error(message, error),
    outgoing: NOBODY_OUTSIDE,
    jobs: createJobs(store),
    texts: textsHere,
    seal: sealWith(["nothing is sealed here"]),
    thread: {
      run: ({ name }, siteId, input, progress) =>
        runTask(desk, { task: name, siteId, input }, progress) as never,
      end: async () => {},
    },
    workspaceHosts: [],
    health: async () => ({}),
    preview: () => undefined,
    proof: () => "",
    mailer: undefined,
    workspaceUrl: "",
  };
  try {
    const { id } = await createSite(desk, ACTOR, {
      key: "bench",
      name: "Bench",
      hosts: [{ name: "bench.example", role: "primary" }],
    });
    const site = await openSite(desk, id);
    await fillPages(desk, site);
    await replaceRules(desk, ACTOR, site, 0, someRules(5));
    const rebuilt = await timedAsync(() => rebuildLedger(desk, site, UNWATCHED));
    await store.rows("VACUUM ANALYZE ledger_links");
    const [{ links } = { links: 0 }] = await store.rows<{ links: number }>(
      "SELECT count(*)::int AS links FROM ledger_links",
    );
    console.log(
      `the ledger of ${PAGES.toLocaleString("en")} pages with ${links.toLocaleString("en")} links read anew in ${seconds(rebuilt)}`,
    );
    await trying(url, site);
    await lists(desk, site);
    await saving(desk, site);
    const other = await timedAsync(async () => {
      await replaceRules(desk, ACTOR, site, 1, someRules(20));
      await catchUpLedger(desk, site, UNWATCHED);
    });
    console.log(`other rules in force, all links treated anew: ${seconds(other)}`);
  } finally {
    await store.close();
    postgres.stop("immediate");
    rmSync(folder, { recursive: true, force: true });
    postgres.discard();
  }
}

async function fillPages(desk: WithStore, site: OpenSite): Promise<void> {
  for (let from = 0; from < PAGES; from += 500) {
    const pages = Array.from({ length: 500 }, (_, at) => {
      const page = from + at;
      const path = `/section-${page % 50}/page-${page}`;
      return {
        path,
        title: `Page ${page}`,
        category: `section ${page % 50}`,
        html: pageHtml(page, LINKS_A_PAGE),
      };
    });
    await desk.store.rows(
      `INSERT INTO pages (site_id, kind, path, key, title, description, category, in_navigation, body, html, links, link_keys, bound, version, updated_by,
         published, published_key, published_version, published_at, created_at, updated_at)
       SELECT $site::bigint, 'page', path, path, title, '', category, false, '{"type":"doc","content":[]}', html, '[]', '{}', '{}', 1, 'Bench',
         jsonb_build_object('path', path, 'title', title, 'description', '', 'category', category, 'inNavigation', false, 'html', html, 'bound', '{}'::jsonb),
         path, 1, now(), now(), now()
       FROM jsonb_to_recordset($pages::jsonb) AS r (path text, title text, category text, html text)`,
      { site: site.id, pages: JSON.stringify(pages) },
    );
  }
}

// As the workspace does it: on the desk's thread, while this one, which answers requests, is watched.
async function trying(url: string, site: OpenSite): Promise<void> {
  const thread = startDeskThread({ databaseUrl: url, deliveryPort: 4601 }, (message, error) =>
    console.error(message, error),
  );
  try {
    await thread.run(catchUpTask, site.id, null, UNWATCHED);
    const tried: number[] = [];
    const delays = monitorEventLoopDelay({ resolution: 1 });
    let changed = 0;
    for (let round = 0; round < 3; round += 1) {
      delays.enable();
      tried.push(
        await timedAsync(async () => {
          const result = await thread.run(tryRulesTask, site.id, { rules: someRules(20) }, UNWATCHED);
          changed = result.changed;
        }),
      );
      delays.disable();
    }
    console.log(
      `trying 20 rules on ${PAGES.toLocaleString("en")} pages: ${tried.map(seconds).join(", ")}, ${changed.toLocaleString("en")} links would change (target: at most 5 s); the event loop of whoever asks was held at most ${(delays.max / 1e6).toFixed(1)} ms (target: 50)`,
    );
  } finally {
    await thread.end();
  }
}

async function lists(desk: WithStore & WithDeliveryPort, site: OpenSite): Promise<void> {
  const list = (query: object) => listLinks(desk, site, linksQuery.parse({ limit: 200, ...query }));
  const asked: [name: string, ask: () => Promise<unknown>][] = [
    ["first rows", () => list({})],
    ["first rows by host", () => list({ sort: "host" })],
    ["first rows by findings, most first", () => list({ sort: "-findings" })],
    ["first rows of a host", () => list({ host: "www.shop-17.example" })],
    ["first rows searched", () => list({ q: "number 19999" })],
    ["facets", () => linkFacets(desk, site, {})],
    ["facets of a treatment", () => linkFacets(desk, site, { treatment: "sponsored" })],
    ["facets searched", () => linkFacets(desk, site, { q: "lamp number 1999" })],
    ["by host", () => groupLinks(desk, site, { ...linksQuery.parse({ limit: 200 }), by: "host" })],
    ["by page", () => groupLinks(desk, site, { ...linksQuery.parse({ limit: 200 }), by: "page" })],
  ];
  const rows: { question: string; ms: number }[] = [];
  for (const [question, ask] of asked) {
    await ask();
    const times: number[] = [];
    for (let round = 0; round < ROUNDS; round += 1)
      times.push(await timedAsync(async () => void (await ask())));
    rows.push({ question, ms: Math.round(median(times)) });
  }
  console.log("The ledger's lists (target: under 300 ms each):");
  console.table(rows);
}

async function saving(
  desk: WithStore & WithDeliveryPort & WithReport & WithTexts,
  site: OpenSite,
): Promise<void> {
  const html = pageHtml(1, 500);
  const [{ id } = { id: "" }] = await desk.store.rows<{ id: string }>(
    "SELECT min(id)::text AS id FROM pages",
  );
  let version = 1;
  const saves: number[] = [];
  const keeps: number[] = [];
  for (let round = 0; round < SAVES; round += 1) {
    saves.push(
      await timedAsync(
        async () => void (await savePage(desk, ACTOR, site, id, { html: `${html}<p>${round}</p>`, version })),
      ),
    );
    version += 1;
    keeps.push(await timedAsync(async () => void (await indexPages(desk, site, [id]))));
  }
  console.log(
    `saving a page with 500 links, median of ${SAVES}: ${median(saves).toFixed(0)} ms in all, the ledger's part ${median(keeps).toFixed(0)} ms (target: under 100)`,
  );
}

function timed(work: () => void): number {
  const began = performance.now();
  work();
  return performance.now() - began;
}

async function timedAsync(work: () => Promise<void>): Promise<number> {
  const began = performance.now();
  await work();
  return performance.now() - began;
}

function seconds(ms: number): string {
  return `${(ms / 1000).toFixed(1)} s`;
}
