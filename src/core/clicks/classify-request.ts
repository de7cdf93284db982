import type { ClickClass, Device } from "./record.ts";

/** The parts of a request that tell who is behind it. */
export interface RequestTraits {
  method: string;
  /** `Sec-Purpose`, `Purpose`, `X-Purpose` or `X-Moz`, whichever came. */
  purpose: string | undefined;
  isBot: boolean;
}

/** Says who is behind a request: HEAD, prefetches and known bots are not persons who click. */
export function clickClass({ method, purpose, isBot }: RequestTraits): ClickClass {
  if (method === "HEAD") return "head";
  if (purpose !== undefined && /prefetch|prerender|preview/i.test(purpose)) return "prefetch";
  return isBot ? "bot" : "person";
}

/** A coarse class of device from the user agent; all that is kept of it. */
export function deviceOf(userAgent: string): Device {
  if (/iPad|Tablet|PlayBook|Silk|Android(?!.*Mobile)/i.test(userAgent)) return "tablet";
  if (/Mobi|iPhone|iPod|Phone/i.test(userAgent)) return "phone";
  return /Windows NT|Macintosh|X11|CrOS|Linux x86/i.test(userAgent) ? "desktop" : "other";
}
