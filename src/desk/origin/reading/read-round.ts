import { setTimeout as rest } from "node:timers/promises";
import { isToBeRead, settingsOfReading, type ReadingSettings } from "../../../core/origin/origin.ts";
import { addressOnOrigin, placeOnOrigin } from "../../../core/origin/place.ts";
import { TrapWatch } from "../../../core/origin/traps.ts";
import { keepReadPages } from "../../../store/origin/read-pages.ts";
import { noteRound, originOf, type OriginRow } from "../../../store/origin/origins.ts";
import {
  addFound,
  nextWaiting,
  noteReadings,
  readingProgress,
  type FoundAddress,
  type TakenReading,
} from "../../../store/origin/readings.ts";
import type { Progress } from "../../../threads/progress.ts";
import type { WithOutgoing, WithStore } from "../../ground/parts.ts";
import { Problem } from "../../ground/problem.ts";
import type { WithThread } from "../../jobs/desk-thread.ts";
import type { WithTexts } from "../../pages/texts/read-text.ts";
import type { OpenSite } from "../../sites/open-site.ts";
import { findRepeatsTask } from "./repeats.ts";
import { robotsOf, type Robots } from "./robots.ts";
import { noted, takePage } from "./take-page.ts";

/** A page that is larger is not taken. */
const PAGE_BYTES = 8 * 1024 * 1024;
/** Pages between two writings. */
const AT_ONCE = 20;
/** So many pages in a row that could not be had end a round: the origin is in trouble, and is left alone. */
const MOST_TROUBLE = 6;
/** No server is waited for any longer than this within a round, whatever it asks for. */
const LONGEST_PAUSE = 120_000;

export type Reading = WithStore & WithOutgoing & WithTexts & WithThread;

/** What a round of reading came to. */
export interface RoundResult {
  read: number;
  waiting: number;
  /** Why it ended before all was read; empty where it did not. */
  ended: string;
}

/**
 * Reads the pages that wait, one request at a time with a pause between them, as the origin's robots file asks. What was
 * read is kept and in the ledger every few pages, so that one that is broken off goes on where it was.
 */
export async function readRound(
  desk: Reading,
  site: OpenSite,
  origin: OriginRow,
  progress: Progress,
): Promise<RoundResult> {
  const settings = settingsOfReading(origin);
  const robots = await robotsOf(desk, origin.address, progress.signal);
  if (robots.says === "unreadable")
    throw new Problem(
      409,
      "Its robots file cannot be read",
      `${origin.address} ${robots.fault}: until its robots.txt can be read, nothing else is.`,
    );
  const round = new Round(desk, site, origin, settings, robots, progress);
  const ended = await round.run();
  await noteRound(desk.store, { site: site.id, traps: round.traps.noticed() });
  const { done, waiting } = await readingProgress(desk.store, { site: site.id });
  return { read: done, waiting, ended };
}

class Round {
  readonly traps = new TrapWatch();
  private readonly desk: Reading;
  private readonly site: OpenSite;
  private readonly origin: OriginRow;
  private readonly settings: ReadingSettings;
  private readonly robots: Robots;
  private readonly progress: Progress;
  private readonly pauseMs: number;
  private taken = 0;
  private trouble = 0;
  private nextRepeats = 25;
  /** Addresses that were met in this round: each is judged once. */
  private readonly met = new Set<string>();
  private room = 0;

  constructor(
    desk: Reading,
    site: OpenSite,
    origin: OriginRow,
    settings: ReadingSettings,
    robots: Robots,
    progress: Progress,
  ) {
    this.desk = desk;
    this.site = site;
    this.origin = origin;
    this.settings = settings;
    this.robots = robots;
    this.progress = progress;
    this.pauseMs = Math.min(LONGEST_PAUSE, Math.max(settings.pauseMs, (robots.delaySeconds ?? 0) * 1_000));
  }

  /** Why it ended before all was read; empty where it did not. */
  async run(): Promise<string> {
    const before = await readingProgress(this.desk.store, { site: this.site.id });
    this.room = this.settings.mostPages - before.done - before.waiting;
    for (;;) {
      const waiting = await nextWaiting(this.desk.store, { site: this.site.id, most: AT_ONCE });
      if (waiting.length === 0) break;
      if (!(await this.isStillHere())) return "Another address was named meanwhile.";
      const ended = await this.some(waiting);
      const { done, waiting: left } = await readingProgress(this.desk.store, { site: this.site.id });
      await this.progress.step(done, done + left);
      if (ended !== "") return ended;
      if (this.taken >= this.nextRepeats) {
        await this.findRepeats();
        this.nextRepeats = this.taken * 4;
      }
    }
    await this.findRepeats();
    return "";
  }

  private async isStillHere(): Promise<boolean> {
    const [now] = await originOf(this.desk.store, { site: this.site.id });
    return now?.address === this.origin.address;
  }

  private findRepeats(): Promise<void> {
    const { signal } = this.progress;
    return this.desk.thread.run(findRepeatsTask, this.site.id, null, { signal, step: async () => {} });
  }

  private async some(waiting: Awaited<ReturnType<typeof nextWaiting>>): Promise<string> {
    const { desk, site, origin } = this;
    const rows: TakenReading[] = [];
    const found = new Map<string, FoundAddress>();
    let ended = "";
    for (const reading of waiting) {
      const address = addressOnOrigin(reading.path, origin.address);
      if (!this.robots.allows(address)) {
        rows.push(noted(reading, "forbidden", { note: "the robots file asks not to read it" }));
        continue;
      }
      if (this.taken > 0 && this.pauseMs > 0)
        await rest(this.pauseMs, undefined, { signal: this.progress.signal }).catch(() => undefined);
      if (this.progress.signal.aborted) break;
      const answer = await desk.outgoing.fetch(address, {
        mostBytes: PAGE_BYTES,
        headers: conditions(reading),
        signal: this.progress.signal,
      });
      if (this.progress.signal.aborted) break;
      this.taken += 1;
      const page = await takePage(
        desk,
        { reading, address, origin: origin.address, hosts: site.hostNames },
        answer,
      );
      rows.push(page.noted);
      for (const link of page.links) this.find(link, reading.depth, found);
      this.trouble = page.isTrouble ? this.trouble + 1 : 0;
      if (this.trouble >= MOST_TROUBLE) {
        ended = `${new URL(origin.address).host} ${page.noted.note}; reading goes on when it is asked for again.`;
        break;
      }
      if (page.pauseMs !== undefined)
        await rest(Math.min(LONGEST_PAUSE, page.pauseMs), undefined, { signal: this.progress.signal }).catch(
          () => undefined,
        );
    }
    await noteReadings(desk.store, rows);
    this.room -= await addFound(desk.store, {
      site: site.id,
      origin: origin.address,
      rows: [...found.values()],
    });
    await keepReadPages(desk.store, { site: site.id, ids: rows.map(({ id }) => id) });
    return ended;
  }

  private find(address: string, depth: number, found: Map<string, FoundAddress>): void {
    const { origin, site, settings } = this;
    const place = placeOnOrigin(address, origin.address, site.hostNames);
    if (!place || this.met.has(place.path)) return;
    this.met.add(place.path);
    const admitted = this.traps.admit(address);
    if (admitted === undefined) return;
    const kept = placeOnOrigin(admitted, origin.address, site.hostNames) ?? place;
    const isChosen = found.size < this.room && isToBeRead(kept, settings);
    found.set(kept.path, {
      ...kept,
      named: false,
      namedChange: null,
      depth: Math.max(0, depth) + 1,
      state: isChosen ? "waiting" : "found",
    });
  }
}

// What has not changed is not sent again (RFC 9110 section 13.1).
function conditions({
  etag,
  lastModified,
  hasBlocks,
}: {
  etag: string | null;
  lastModified: string | null;
  hasBlocks: boolean;
}): Record<string, string> {
  if (!hasBlocks) return {};
  return {
    ...(etag !== null && { "if-none-match": etag }),
    ...(lastModified !== null && { "if-modified-since": lastModified }),
  };
}
