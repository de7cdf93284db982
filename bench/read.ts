import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { startPostgres } from "../scripts/postgres.mjs";
import { repeatedParts, type KeyedPage } from "../src/core/origin/repeats.ts";
import { createFetching } from "../src/outgoing/fetching.ts";
import { nameOrigin, originRow } from "../src/desk/origin/origins.ts";
import { lookAtOrigin } from "../src/desk/origin/reading/look.ts";
import { readRound } from "../src/desk/origin/reading/read-round.ts";
import { openSite } from "../src/desk/sites/open-site.ts";
import { lineUp } from "../src/store/origin/readings.ts";
import { openStore } from "../src/store/ground/store.ts";
import { UNWATCHED } from "../src/threads/progress.ts";
import { benchDesk } from "./bench-desk.ts";
import { startProcess } from "./started.ts";

const PAGES = 10_000;
const ACTOR = { name: "Bench", role: "owner" } as const;

/** Reading 10,000 pages with no pause, until they are in the ledger; and finding what repeats on 1,000 pages. */
export async function read(): Promise<void> {
  repeats();
  const folder = mkdtempSync(join(tmpdir(), "maprope-bench-"));
  const postgres = await startPostgres(folder);
  const origin = await startProcess(["bench/read-origin.ts", String(PAGES)]);
  const { desk, site: made, close } = await benchDesk(postgres.url, "read");
  const fetching = createFetching(async () => "127.0.0.1", "MapRope/1 (bench)", 10_000);
  try {
    const reading = { ...desk, outgoing: { ...desk.outgoing, fetch: fetching.fetch } };
    const address = `http://bench.example:${origin.port}/`;
    await nameOrigin(desk, ACTOR, made, { address, settings: { pauseMs: 0, mostPages: PAGES + 100 } });
    const site = await openSite(desk, made.id);
    const began = performance.now();
    const found = await lookAtOrigin(reading, site, { address, pauseMs: 0 }, UNWATCHED);
    const looked = performance.now();
    await lineUp(desk.store, { site: site.id, parts: [], leaveOut: [], most: PAGES + 100 });
    const result = await readRound(reading, site, await originRow(desk, site), UNWATCHED);
    const done = performance.now();
    const store = openStore(postgres.url("read"), 1);
    const [row] = await store.rows<{ pages: number }>(
      "SELECT count(*)::int AS pages FROM pages WHERE kind = 'read'",
    );
    await store.close();
    console.log(
      `looked at: ${found.pages.toLocaleString("en")} pages found in ${((looked - began) / 1000).toFixed(1)} s; read: ${row!.pages.toLocaleString("en")} of ${result.read.toLocaleString("en")} in ${((done - looked) / 1000).toFixed(0)} s (target: ${PAGES.toLocaleString("en")} in at most 180 s)`,
    );
  } finally {
    await fetching.close();
    await close();
    origin.child.kill("SIGTERM");
    postgres.stop("immediate");
    rmSync(folder, { recursive: true, force: true });
    postgres.discard();
  }
}

function repeats(): void {
  const pages = Array.from({ length: 1_000 }, (_, at): KeyedPage => ({
    part: `part-${at % 8}`,
    blocks: [
      ...Array.from({ length: 40 }, (_entry, entry) => ({ area: "menu" as const, key: `menu-${entry}` })),
      ...Array.from({ length: 120 }, (_text, text) => ({ area: "text" as const, key: `text-${at}-${text}` })),
      ...Array.from({ length: 10 }, (_box, box) => ({ area: "side" as const, key: `box-${at % 8}-${box}` })),
      ...Array.from({ length: 30 }, (_foot, foot) => ({ area: "foot" as const, key: `foot-${foot}` })),
    ],
  }));
  const began = performance.now();
  const parts = repeatedParts(pages);
  console.log(
    `what repeats on 1,000 pages of 200 blocks: ${parts.length} parts in ${((performance.now() - began) / 1000).toFixed(2)} s (target: at most 5 s)`,
  );
}
