import { readFileSync } from "node:fs";
import { blockInputSchema, pageInputSchema, type Page } from "../src/core/pages/page.ts";
import { routeInputSchema } from "../src/core/routes/route.ts";
import { createBlock } from "../src/desk/blocks/blocks.ts";
import { changeFile, uploadFile } from "../src/desk/files/files.ts";
import { replaceNavigation } from "../src/desk/navigation/navigation.ts";
import { createPage, publishPage, savePage } from "../src/desk/pages/pages.ts";
import { createRoute } from "../src/desk/routes/routes.ts";
import { keepTreatmentDays } from "../src/store/ledger/ledger-days.ts";
import { DEMO_DISCLOSURE, DEMO_RULES, demoTreatments } from "./rules.ts";
import { replaceRules } from "../src/desk/rules/rules.ts";
import { UNWATCHED } from "../src/threads/progress.ts";
import { catchUpLedger } from "../src/desk/ledger/follow-ledger.ts";
import { importReport } from "../src/desk/earnings/import-report.ts";
import { keepColumns, keepNetwork } from "../src/desk/programs/networks.ts";
import { keepCreative, placeCreative } from "../src/desk/creatives/creatives.ts";
import type { Creative } from "../src/core/creatives/creative.ts";
import { createProgram } from "../src/desk/programs/programs.ts";
import { DEMO_COLUMNS, demoCreatives, demoNetworks, demoPrograms, demoReports } from "./programs.ts";
import { changeSite, createSite } from "../src/desk/sites/sites.ts";
import { copyBatch } from "../src/store/clicks/click-spool.ts";
import { demoRecords } from "./clicks.ts";
import { demoBlocks, DEMO_PICTURES, demoNavigation, demoPages } from "./pages.ts";
import { demoRedirects, demoShortLinks } from "./routes.ts";
import { openSite } from "../src/desk/sites/open-site.ts";
import { outside } from "./page.ts";
import { loadSaltmarsh, SALTMARSH_KEY } from "./saltmarsh/load.ts";
import { DEMO_MAILS, letDemoPeopleIn, takeDemoPeople } from "./people.ts";
import type { StartingDesk } from "../src/desk/desk.ts";
import type { Actor } from "../src/core/people/actor.ts";
import { allSites, removeSite } from "../src/store/sites/sites.ts";
import { allPeople } from "../src/store/people/people.ts";

const ACTOR: Actor = { name: "Mara Quill", role: "owner" };
const RECORDS_AT_ONCE = 5_000;
/** How long ago the programs came into the state that they are in. */
const JOINED_BEFORE_MS = 150 * 86_400_000;
/** The page that carries a program’s banner. */
const BANNER_ON = "/resources";

const DEMO_KEY = "low-lantern";
const DEMO_KEYS = [DEMO_KEY, SALTMARSH_KEY];

/**
 * Loads the magazine "Low Lantern" into an empty database: one with a site or a person of anybody's in it is left as it
 * is. Answers whether the demo is there, with its people.
 */
export async function loadDemo(desk: StartingDesk, simPort: number, now: number): Promise<boolean> {
  const [sites, people] = await Promise.all([allSites(desk.store), allPeople(desk.store)]);
  const isDemoThere = sites.some(({ key }) => key === DEMO_KEY);
  const hasOthers =
    sites.some(({ key }) => !DEMO_KEYS.includes(key)) ||
    people.some(({ email }) => !DEMO_MAILS.includes(email));
  if (isDemoThere && !hasOthers) {
    await letDemoPeopleIn(desk);
    return true;
  }
  if (sites.length > 0 || people.length > 0)
    return isDemoThere && people.some(({ email }) => DEMO_MAILS.includes(email));
  console.log("Loading the demo, “Low Lantern”…");
  try {
    await fill(desk, simPort, now);
    await loadSaltmarsh(desk, ACTOR, simPort, now);
  } catch (error) {
    // Half a demo would look like somebody's own data at the next start. Nothing but the demo's own is taken away.
    for (const key of DEMO_KEYS) await removeSite(desk.store, key);
    await takeDemoPeople(desk);
    throw error;
  }
  return true;
}

async function fill(desk: StartingDesk, simPort: number, now: number): Promise<void> {
  await letDemoPeopleIn(desk);
  const { id } = await createSite(desk, ACTOR, {
    key: "low-lantern",
    name: "Low Lantern",
    hosts: [
      { name: "lowlantern.localhost", role: "primary" },
      { name: "lntn.localhost", role: "short" },
    ],
  });
  await changeSite(desk, ACTOR, await openSite(desk, id), {
    tagline: "Watching the night from a back garden",
    variables: { account: "LL-2291" },
    disclosure: DEMO_DISCLOSURE,
    version: 1,
  });
  for (const network of demoNetworks(simPort))
    await keepNetwork(desk, ACTOR, await openSite(desk, id), network);
  const creatives: Creative[] = [];
  for (const program of demoPrograms(simPort, now)) {
    const made = await createProgram(desk, ACTOR, await openSite(desk, id), program, now - JOINED_BEFORE_MS);
    if (made.name !== "Harbour Optics") continue;
    for (const creative of demoCreatives(simPort))
      creatives.push(await keepCreative(desk, ACTOR, await openSite(desk, id), made.id, creative));
  }
  const site = await openSite(desk, id);
  await replaceRules(desk, ACTOR, site, 0, DEMO_RULES.slice(0, 2));
  await replaceRules(desk, ACTOR, site, 1, DEMO_RULES);
  await keepTreatmentDays(desk.store, site.id, demoTreatments(now));

  const out = outside(simPort);
  for (const [name, alt] of DEMO_PICTURES) {
    const file = await uploadFile(
      desk,
      ACTOR,
      site,
      name,
      readFileSync(new URL(`./pictures/${name}`, import.meta.url)),
    );
    await changeFile(desk, ACTOR, site, file.id, { alt });
  }
  // Pages link to one another: what a link is bound to is known once all of them are there.
  const pages = new Map<string, Page>();
  const short = `lntn.localhost:${desk.deliveryPort}`;
  const written = demoPages(out, short);
  for (const page of written)
    pages.set(
      page.path,
      await createPage(desk, ACTOR, site, pageInputSchema.parse({ ...page, publish: false })),
    );
  for (const page of written) {
    const { id: pageId, version } = pages.get(page.path)!;
    const put =
      page.path === BANNER_ON
        ? await placeCreative(desk, ACTOR, site, creatives[0]!.id, { page: pageId })
        : undefined;
    const saved = await savePage(desk, ACTOR, site, pageId, { html: page.html + (put?.html ?? ""), version });
    if (page.publish) await publishPage(desk, ACTOR, site, pageId, saved.version);
  }
  for (const block of demoBlocks(out)) await createBlock(desk, ACTOR, site, blockInputSchema.parse(block));
  await replaceNavigation(
    desk,
    ACTOR,
    site,
    0,
    demoNavigation((path) => pages.get(path)!.id, short),
  );
  const routes: Parameters<typeof demoRecords>[0][number][] = [];
  for (const route of [...demoRedirects(), ...demoShortLinks(out, now)]) {
    const { popularity, ...input } = route;
    routes.push({
      id: (await createRoute(desk, ACTOR, site, routeInputSchema.parse(input))).id,
      route: { ...route, popularity },
    });
  }
  const records = demoRecords(routes, site.id, now);
  for (let from = 0; from < records.length; from += RECORDS_AT_ONCE) {
    const to = Math.min(records.length, from + RECORDS_AT_ONCE);
    await copyBatch(desk.store, { segment: "demo", from, to, records: records.slice(from, to) });
  }
  // Reports name links by their labels: which those are stands in the ledger.
  await catchUpLedger(desk, site, UNWATCHED);
  const destinations = new Map(routes.map(({ id, route }) => [id, route.destination ?? ""]));
  const clicked = new Map<string, { label: string; day: string; clicks: number }>();
  for (const record of records) {
    if (record.kind !== "click" || record.class !== "person") continue;
    const { at, route } = record;
    const label = /[?&](?:sub|label)=([^&#]+)/.exec(destinations.get(route) ?? "")?.[1];
    if (label === undefined) continue;
    const day = new Date(at).toISOString().slice(0, 10);
    const clicks = 1 + (clicked.get(`${day} ${label}`)?.clicks ?? 0);
    clicked.set(`${day} ${label}`, { label, day, clicks });
  }
  for (const [network, csv] of demoReports(now, clicked)) {
    await keepColumns(desk, site, network, DEMO_COLUMNS);
    await importReport(
      desk,
      site,
      { network, bytes: Buffer.from(csv), columns: DEMO_COLUMNS, dryRun: false, by: ACTOR.name },
      UNWATCHED,
    );
  }
}
