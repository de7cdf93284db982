import { frameData, type FrameData } from "../frame/frame.ts";
import { isDay } from "./iso-day.ts";

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
const DAY_MS = 86_400_000;
const UNITS = ["B", "kB", "MB", "GB"] as const;

/** Makes what shows dates, numbers and money in a language and a time zone. */
export function formatFor({ language, timeZone }: Locale): Format {
  const zone = timeZone === undefined ? {} : { timeZone };
  const numbers = new Intl.NumberFormat(language);
  const rounded = new Intl.NumberFormat(language, { maximumFractionDigits: 1 });
  const shares = new Intl.NumberFormat(language, { minimumFractionDigits: 1, maximumFractionDigits: 1 });
  const minute = new Intl.DateTimeFormat(language, { hour: "2-digit", minute: "2-digit", ...zone });
  const days = new Intl.DateTimeFormat(language, { ...DAY, ...zone });
  // A date without a time has no zone to be moved by.
  const wholeDays = new Intl.DateTimeFormat(language, { ...DAY, timeZone: "UTC" });
  const short = new Intl.DateTimeFormat(language, { day: "numeric", month: "short", ...zone });
  const wholeShort = new Intl.DateTimeFormat(language, { day: "numeric", month: "short", timeZone: "UTC" });
  const moments = new Intl.DateTimeFormat(language, { dateStyle: "long", timeStyle: "short", ...zone });
  const ago = new Intl.RelativeTimeFormat(language, { numeric: "auto" });
  const calendar = new Intl.DateTimeFormat("en-CA", { ...zone });
  const dayNumber = (at: number): number => Date.parse(calendar.format(at)) / DAY_MS;
  const isWhole = (date: string | Date): boolean => typeof date === "string" && isDay(date);
  return {
    count: (value) => numbers.format(value),
    percent: (share) => `${shares.format(share * 100)} %`,
    money: (amount, currency) =>
      new Intl.NumberFormat(language, {
        style: "currency",
        currency,
        currencyDisplay: "narrowSymbol",
      }).format(Number(amount)),
    when(iso, now = Date.now()) {
      const at = Date.parse(iso);
      const from = dayNumber(at) - dayNumber(now);
      if (from === 0) return minute.format(at);
      return from > -7 && from < 0 ? ago.format(from, "day") : days.format(at);
    },
    day: (date) => (isWhole(date) ? wholeDays : days).format(new Date(date)),
    shortDay: (date) => (isWhole(date) ? wholeShort : short).format(new Date(date)),
    moment: (iso) => moments.format(new Date(iso)),
    bytes(size) {
      const step = size < 1 ? 0 : Math.min(UNITS.length - 1, Math.floor(Math.log10(size) / 3));
      return `${rounded.format(size / 1000 ** step)} ${UNITS[step]}`;
    },
  };
}

const made = new Map<string, Format>();

// Making what shows dates takes a while; a screen moves to another site seldom.
function here(): Format {
  const locale = localeOf(frameData());
  const key = `${locale.language} ${locale.timeZone}`;
  const kept = made.get(key) ?? formatFor(locale);
  made.set(key, kept);
  return kept;
}

/** What the workspace's screens show things by: their site's language and time zone. */
export const count: Format["count"] = (value) => here().count(value);
export const percent: Format["percent"] = (share) => here().percent(share);
export const money: Format["money"] = (amount, currency) => here().money(amount, currency);
export const when: Format["when"] = (iso, now) => here().when(iso, now);
export const day: Format["day"] = (date) => here().day(date);
export const shortDay: Format["shortDay"] = (date) => here().shortDay(date);
export const moment: Format["moment"] = (iso) => here().moment(iso);
export const bytes: Format["bytes"] = (size) => here().bytes(size);

/** The locale that the workspace's frame says; British English and the browser's zone where it says none. */
export function localeOf(data: Pick<FrameData, "siteLanguage" | "siteTimeZone">): Locale {
  return { language: data.siteLanguage || "en-GB", timeZone: data.siteTimeZone || undefined };
}
