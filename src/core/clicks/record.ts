/**
 * Who is behind a request: only persons are counted as clicks; the others are kept apart, not thrown away. `aside`
 * is whoever asked for an address that the route would have led back to: it stood aside, and something else answered.
 */
export const CLICK_CLASSES = ["person", "bot", "prefetch", "head", "aside"] as const;
export type ClickClass = (typeof CLICK_CLASSES)[number];

export const DEVICES = ["desktop", "phone", "tablet", "other"] as const;
export type Device = (typeof DEVICES)[number];

/** A request to a route, as it is kept: no address and no user agent, only what follows from them. */
export interface ClickRecord {
  kind: "click";
  /** Milliseconds since the epoch, UTC. */
  at: number;
  route: string;
  class: ClickClass;
  device: Device;
  /** Keyed hash, comparable within one UTC day only. */
  visitor: string;
  /** Host of the page that the reader came from; empty when unknown. */
  referrer: string;
  /** Path of our own page that the reader came from; empty when it was not ours. */
  page: string;
}

/** A request that nothing answered. */
export interface MissRecord {
  kind: "miss";
  at: number;
  site: string;
  host: string;
  /** The path key that was asked for. */
  key: string;
  class: ClickClass;
  referrer: string;
}

/** Records that the disk did not take before this one. */
export interface LostRecord {
  kind: "lost";
  at: number;
  records: number;
}

export type SpoolRecord = ClickRecord | MissRecord | LostRecord;

/** The day of a moment, as `YYYY-MM-DD` in UTC. */
export function utcDay(at: number): string {
  return new Date(at).toISOString().slice(0, 10);
}
