import type { ReadingState } from "../../../core/origin/origin.ts";
import { placeOnOrigin } from "../../../core/origin/place.ts";
import { waitBefore } from "../../../core/origin/revisit.ts";
import { retryAfterMs, robotsTag } from "../../../core/origin/told.ts";
import type { Fetched } from "../../../outgoing/fetching.ts";
import { READING_AGENT } from "../../../outgoing/outgoing.ts";
import type { TakenReading, WaitingReading } from "../../../store/origin/readings.ts";
import { Problem } from "../../ground/problem.ts";
import type { WithTexts } from "../../pages/texts/read-text.ts";
import type { PageText } from "./page-text.ts";

/** What an answer comes to: what is noted of the page, where it leads on, and how long its server asks us to wait. */
export interface TakenPage {
  noted: TakenReading;
  /** Absolute addresses of the links that may be followed. */
  links: string[];
  pauseMs: number | undefined;
  /** The server could not be reached, or is in trouble: no word on this page. */
  isTrouble: boolean;
}

const DAY = 86_400_000;
/** How often a page is asked for before it is taken for failing. */
const MOST_TRIES = 3;

/** Takes an answer for what it says: changed or not, moved, gone, another's, for no machine, made by scripts. */
export async function takePage(
  desk: WithTexts,
  asked: { reading: WaitingReading; address: string; origin: string; hosts: readonly string[] },
  answer: Fetched,
): Promise<TakenPage> {
  const { reading, address } = asked;
  const none: TakenPage = {
    noted: noted(reading, "failing", {}),
    links: [],
    pauseMs: undefined,
    isTrouble: false,
  };
  if (!answer.ok) return { ...none, noted: again(reading, null, answer.reason), isTrouble: true };
  const { status, headers } = answer;
  if (status === 429 || status >= 500)
    return {
      ...none,
      noted: again(reading, status, `answers ${status}`),
      pauseMs: retryAfterMs(headers["retry-after"], Date.now()),
      isTrouble: true,
    };
  if (status === 304 && reading.hasBlocks) {
    const waitedMs = waitBefore({ waited: waitOf(reading), hasChanged: false });
    return {
      ...none,
      noted: noted(reading, "read", {
        status: 200,
        waitedMs,
        etag: reading.etag,
        lastModified: reading.lastModified,
      }),
    };
  }
  if (status >= 300 && status < 400) return { ...none, ...moved(asked, status, headers.location) };
  if (status === 404 || status === 410)
    return {
      ...none,
      noted: noted(reading, "gone", { status, note: `answers ${status}`, waitedMs: 30 * DAY }),
    };
  if (status !== 200)
    return {
      ...none,
      noted: noted(reading, "failing", { status, note: `answers ${status}`, waitedMs: 7 * DAY }),
    };
  const type = headers["content-type"] ?? "";
  if (!/^\s*(?:text\/html|application\/xhtml\+xml)/i.test(type))
    return {
      ...none,
      noted: noted(reading, "other", {
        status,
        note: type.split(";")[0]!.slice(0, 80) || "of no kind that is named",
      }),
    };
  try {
    const page = await desk.texts.read({ do: "page", bytes: answer.bytes, type, address });
    return { ...none, ...read(asked, page, headers) };
  } catch (error) {
    if (!(error instanceof Problem)) throw error;
    return {
      ...none,
      noted: noted(reading, "failing", { status, note: "could not be read in time", waitedMs: 7 * DAY }),
    };
  }
}

function read(
  { reading, address, origin, hosts }: Parameters<typeof takePage>[1],
  page: PageText,
  headers: Readonly<Record<string, string>>,
): Pick<TakenPage, "noted" | "links"> {
  const tag = robotsTag(headers["x-robots-tag"] ?? "", READING_AGENT);
  const isFollowed = !page.nofollow && !tag.nofollow;
  const links = isFollowed ? page.links.filter((link) => !link.nofollow).map((link) => link.address) : [];
  const elsewhere = page.refresh ?? page.canonical;
  const place = elsewhere === null ? undefined : placeOnOrigin(elsewhere, origin, hosts);
  if (elsewhere !== null && place?.path !== placeOnOrigin(address, origin, hosts)?.path) {
    const note = page.refresh === null ? "names another address as its own" : "sends its readers on at once";
    const state = page.refresh === null ? "elsewhere" : "moved";
    return {
      noted: noted(reading, state, {
        status: 200,
        note,
        leadsTo: place?.path ?? elsewhere,
        waitedMs: 30 * DAY,
      }),
      links: [elsewhere, ...links],
    };
  }
  if (page.noindex || tag.noindex)
    return {
      noted: noted(reading, "hidden", { status: 200, note: "asks not to be indexed", waitedMs: 30 * DAY }),
      links,
    };
  const hasChanged = reading.digest !== null && reading.digest !== page.digest;
  return {
    noted: noted(reading, page.isMadeByScripts ? "scripts" : "read", {
      status: 200,
      note: page.isCut ? "is longer than what is kept of a page" : "",
      etag: headers.etag ?? null,
      lastModified: headers["last-modified"] ?? null,
      waitedMs: waitBefore({ waited: reading.digest === null ? null : waitOf(reading), hasChanged }),
      hasChanged: hasChanged || reading.digest === null,
      content: {
        title: page.title || address,
        description: page.description,
        language: page.language,
        words: page.words,
        blocks: JSON.stringify(page.blocks),
        keys: page.blocks.map(({ area, key }) => `${area}:${key}`).join(" "),
        digest: page.digest,
      },
    }),
    links,
  };
}

function moved(
  { reading, address, origin, hosts }: Parameters<typeof takePage>[1],
  status: number,
  location: string | undefined,
): Pick<TakenPage, "noted" | "links"> {
  if (location === undefined || !URL.canParse(location, address))
    return {
      noted: noted(reading, "failing", {
        status,
        note: `answers ${status} without saying where to`,
        waitedMs: 7 * DAY,
      }),
      links: [],
    };
  const { href } = new URL(location, address);
  const place = placeOnOrigin(href, origin, hosts);
  return {
    noted: noted(reading, "moved", {
      status,
      note: `redirects (${status})`,
      leadsTo: place?.path ?? href,
      waitedMs: 30 * DAY,
    }),
    links: [href],
  };
}

// A page that could not be had is asked for again a little later, behind all others; after the last try a day later.
function again(reading: WaitingReading, status: number | null, note: string): TakenReading {
  const tries = reading.tries + 1;
  return tries < MOST_TRIES
    ? noted(reading, "waiting", {
        status,
        note,
        tries,
        waitedMs: waitOf(reading),
        etag: reading.etag,
        lastModified: reading.lastModified,
      })
    : noted(reading, "failing", { status, note, tries, waitedMs: DAY });
}

function waitOf({ waitedMs }: WaitingReading): number | null {
  return waitedMs === null ? null : Number(waitedMs);
}

/** What is noted of a page, with what is known besides its state. */
export function noted(
  { id }: WaitingReading,
  state: ReadingState,
  more: Partial<TakenReading>,
): TakenReading {
  return {
    status: null,
    note: "",
    leadsTo: null,
    content: null,
    etag: null,
    lastModified: null,
    tries: 0,
    waitedMs: null,
    hasChanged: false,
    ...more,
    id,
    state,
  };
}
