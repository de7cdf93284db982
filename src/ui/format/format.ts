import { frameData, type FrameData } from "../frame/frame.ts";
import { isDay } from "./iso-day.ts";
import { written } from "./written.ts";

/** In which language and time zone the workspace shows what has one: both are the site's. */
export interface Locale {
  language: string;
  /** An IANA time zone; undefined: the browser's. */
  timeZone: string | undefined;
}

/** What shows dates, numbers and money. */
export interface Format {
  /** A number of things. */
  count(value: number): string;
  /** A share of one, as “3.1 %”. */
  percent(share: number): string;
  /** An amount with its currency, as people read it. */
  money(amount: string, currency: string): string;
  /** A moment in words: the minute of today, days ago within a week, else the date. */
  when(iso: string, now?: number): string;
  /** A day, with its year; of a moment, or as YYYY-MM-DD, which is the same day everywhere. */
  day(date: string | Date): string;
  /** A day of this year or the next. */
  shortDay(date: string | Date): string;
  /** A moment to the minute. */
  moment(iso: string): string;
  /** A size of a file. */
  bytes(size: number): string;
}

const DAY = { day: "numeric", month: "short", year: "numeric" } as const;
const HOUR_MS = 3_600_000;
const DAY_MS = 24 * HOUR_MS;
const UNITS = ["B", "kB", "MB", "GB"] as const;

/** Makes what shows dates, numbers and money in a language and a time zone. */
export function formatFor({ language, timeZone }: Locale): Format {
  const zone = timeZone === undefined ? {} : { timeZone };
  const writer = (options: Intl.NumberFormatOptions) => once(() => new Intl.NumberFormat(language, options));
  const clock = (options: Intl.DateTimeFormatOptions) =>
    once(() => new Intl.DateTimeFormat(language, options));
  const numbers = writer({});
  const rounded = writer({ maximumFractionDigits: 1 });
  const shares = writer({ minimumFractionDigits: 1, maximumFractionDigits: 1 });
  const minute = clock({ hour: "2-digit", minute: "2-digit", ...zone });
  const days = clock({ ...DAY, ...zone });
  // A date without a time has no zone to be moved by.
  const wholeDays = clock({ ...DAY, timeZone: "UTC" });
  const short = clock({ day: "numeric", month: "short", ...zone });
  const wholeShort = clock({ day: "numeric", month: "short", timeZone: "UTC" });
  const moments = clock({ dateStyle: "long", timeStyle: "short", ...zone });
  const ago = once(() => new Intl.RelativeTimeFormat(language, { numeric: "auto" }));
  const calendar = once(() => new Intl.DateTimeFormat("en-CA", { ...zone }));
  const dayNumber = (at: number): number => Date.parse(calendar().format(at)) / DAY_MS;
  const isWhole = (date: string | Date): boolean => typeof date === "string" && isDay(date);
  return {
    count: (value) => numbers().format(value),
    percent: (share) => `${shares().format(share * 100)} %`,
    money: (amount, currency) =>
      new Intl.NumberFormat(language, {
        style: "currency",
        currency,
        currencyDisplay: "narrowSymbol",
      }).format(Number(amount)),
    when(iso, now = Date.now()) {
      const at = Date.parse(iso);
      const from = dayNumber(at) - dayNumber(now);
      if (from === 0) return minute().format(at);
      return from > -7 && from < 0 ? ago().format(from, "day") : days().format(at);
    },
    day: (date) => (isWhole(date) ? wholeDays : days)().format(new Date(date)),
    shortDay: (date) => (isWhole(date) ? wholeShort : short)().format(new Date(date)),
    moment: (iso) => moments().format(new Date(iso)),
    bytes(size) {
      const step = size < 1 ? 0 : Math.min(UNITS.length - 1, Math.floor(Math.log10(size) / 3));
      return `${rounded().format(size / 1000 ** step)} ${UNITS[step]}`;
    },
  };
}

// A browser takes long over making one of these, and a screen needs few of them.
function once<T>(make: () => T): () => T {
  let made: T | undefined;
  return () => (made ??= make());
}

const made = new Map<string, Format>();

function here(): Format {
  const locale = localeOf(frameData());
  const key = `${locale.language} ${locale.timeZone}`;
  const kept = made.get(key) ?? formatFor(locale);
  made.set(key, kept);
  return kept;
}

/** What the workspace's screens show things by: their site's language and time zone. */
export const count: Format["count"] = (value) => written(`count ${value}`, () => here().count(value));
export const percent: Format["percent"] = (share) => written(`percent ${share}`, () => here().percent(share));
export const money: Format["money"] = (amount, currency) =>
  written(`money ${amount} ${currency}`, () => here().money(amount, currency));
export const when: Format["when"] = (iso, now = Date.now()) =>
  // What is today at one hour is not at another.
  written(`when ${iso} ${Math.floor(now / HOUR_MS)}`, () => here().when(iso, now));
export const day: Format["day"] = (date) => written(`day ${keyOf(date)}`, () => here().day(date));
export const shortDay: Format["shortDay"] = (date) =>
  written(`short ${keyOf(date)}`, () => here().shortDay(date));
export const moment: Format["moment"] = (iso) => written(`moment ${iso}`, () => here().moment(iso));
export const bytes: Format["bytes"] = (size) => written(`bytes ${size}`, () => here().bytes(size));

function keyOf(date: string | Date): string {
  return typeof date === "string" ? date : date.toISOString();
}

/** The locale that the workspace's frame says; British English and the browser's zone where it says none. */
export function localeOf(data: Pick<FrameData, "siteLanguage" | "siteTimeZone">): Locale {
  return { language: data.siteLanguage || "en-GB", timeZone: data.siteTimeZone || undefined };
}
