const HOUR = 3_600_000;
const DAY = 24 * HOUR;
/** Nothing is asked for again sooner by itself, and nothing is left alone longer. */
const SHORTEST = 6 * HOUR;
const LONGEST = 60 * DAY;
const USUAL = 7 * DAY;

/** What is known of a page's readings. */
export interface ReadBefore {
  readAt: number;
  /** Milliseconds that were waited before this reading; null for the first. */
  waited: number | null;
  hasChanged: boolean;
  /** The last change that the site's own sitemap names, in milliseconds; null where it names none. */
  named: number | null;
}

/**
 * How long to wait before a page is read again, in milliseconds: half as long as before where it had changed, half as long
 * again where it had not, within six hours and sixty days.
 */
export function waitBefore({ waited, hasChanged }: Pick<ReadBefore, "waited" | "hasChanged">): number {
  if (waited === null) return USUAL;
  return Math.min(LONGEST, Math.max(SHORTEST, waited * (hasChanged ? 0.5 : 1.5)));
}

/** When it is time to read a page again: at once where its sitemap names a later change. */
export function nextReading(before: ReadBefore): number {
  if (before.named !== null && before.named > before.readAt) return before.readAt;
  return before.readAt + waitBefore(before);
}
