import { isPagePlace, type LedgerReport } from "../../core/ledger/ledger.ts";
import { treatmentDays } from "../../store/ledger/ledger-days.ts";
import { documentsWith, groupLedger, readLedger } from "../../store/ledger/ledger-reading.ts";
import type { OpenSite } from "../sites/open-site.ts";
import type { WithStore } from "../ground/parts.ts";

const MAX_GROUPS = 500;
const FOR_READERS = { edition: "readers", reach: "external" } as const;
const NOT_LET_OUT = { edition: "readers", finding: "not-let-out" } as const;

/** What can be shown to whoever asks how outside links are marked: by treatment, host, page and day. */
export async function reportLinks(desk: WithStore, site: OpenSite, now: number): Promise<LedgerReport> {
  const [hosts, pages, days, links, pictures] = await Promise.all([
    groupLedger(desk.store, site.id, FOR_READERS, "host", { limit: MAX_GROUPS, offset: 0 }),
    groupLedger(desk.store, site.id, FOR_READERS, "page", { limit: MAX_GROUPS, offset: 0 }),
    treatmentDays(desk.store, site.id),
    readLedger(desk.store, site.id, NOT_LET_OUT, { limit: MAX_GROUPS, offset: 0 }),
    documentsWith(desk.store, site.id, "not-let-out", MAX_GROUPS),
  ]);
  const sum = (of: "sponsored" | "ugc" | "nofollow" | "plain" | "newTab"): number =>
    hosts.rows.reduce((total, row) => total + row[of], 0);
  return {
    madeAt: new Date(now).toISOString(),
    total: { sponsored: sum("sponsored"), ugc: sum("ugc"), nofollow: sum("nofollow"), plain: sum("plain") },
    newTab: sum("newTab"),
    hosts: hosts.rows,
    hostsInAll: hosts.total,
    pages: pages.rows,
    pagesInAll: pages.total,
    days,
    notLetOut: [
      ...links.rows.map(({ page, place, title, words, href }) => ({
        page: isPagePlace(place) ? page : "",
        title,
        words,
        address: href,
      })),
      ...pictures.map(({ page, title }) => ({ page, title, words: "a picture", address: null })),
    ],
  };
}
