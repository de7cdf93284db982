import { isDay } from "./iso-day.ts";
import { written } from "./written.ts";

const PARTS = { day: "2-digit", month: "2-digit", year: "numeric", timeZone: "UTC" } as const;
type Part = "day" | "month" | "year";

const made = new Map<string, Intl.DateTimeFormat>();

// Whatever calendar and figures a language is used with: fields hold days of the common calendar. Making one takes a while.
function figuresOf(language: string): Intl.DateTimeFormat {
  const figures = made.get(language) ?? new Intl.DateTimeFormat(`${language}-u-ca-gregory-nu-latn`, PARTS);
  made.set(language, figures);
  return figures;
}

/** The parts of a day as a language writes it in figures, with what stands between them. */
function partsOf(language: string, day = "2026-11-23"): Intl.DateTimeFormatPart[] {
  return figuresOf(language)
    .formatToParts(new Date(day))
    .map(({ type, value }) => ({ type, value: value.replace(/[\u200e\u200f]/g, "") }));
}

/** A day such as 2026-11-23 as the language writes it in figures, such as 23/11/2026; what is no day stays as it is. */
export function writeDay(day: string, language: string): string {
  if (!isDay(day)) return day;
  return written(`figures ${language} ${day}`, () =>
    partsOf(language, day)
      .map(({ value }) => value)
      .join(""),
  );
}

/** How days are typed in that language, such as dd/mm/yyyy. */
export function dayPattern(language: string): string {
  const letters: Partial<Record<string, string>> = { day: "dd", month: "mm", year: "yyyy" };
  return written(`pattern ${language}`, () =>
    partsOf(language)
      .map(({ type, value }) => letters[type] ?? value)
      .join(""),
  );
}

/**
 * The day that was typed in the language's order, whatever stands between its figures, or as ISO 8601 writes it; undefined
 * when that is no day. The year has four figures: 1/2/26 could be read three ways.
 */
export function readDay(text: string, language: string): string | undefined {
  const typed = text.trim();
  if (isDay(typed)) return typed;
  const figures = typed.match(/\d+/g) ?? [];
  const order = partsOf(language).flatMap(({ type }) => (isPart(type) ? [type] : []));
  if (figures.length !== 3 || /[^\d\s./\-年月日]/.test(typed)) return undefined;
  const of = Object.fromEntries(order.map((part, at) => [part, figures[at]!])) as Record<Part, string>;
  const day = `${of.year}-${of.month.padStart(2, "0")}-${of.day.padStart(2, "0")}`;
  return isDay(day) ? day : undefined;
}

/** The day that a week begins with in that language's country, as numbers of days go: 0 is Sunday. Monday where that is not known. */
export function firstDayOfWeek(language: string): 0 | 1 | 2 | 3 | 4 | 5 | 6 {
  const locale = new Intl.Locale(language) as Intl.Locale & {
    getWeekInfo?: () => { firstDay: number };
    weekInfo?: { firstDay: number };
  };
  const { firstDay = 1 } = locale.getWeekInfo?.() ?? locale.weekInfo ?? {};
  return (firstDay % 7) as 0 | 1 | 2 | 3 | 4 | 5 | 6;
}

function isPart(type: string): type is Part {
  return type === "day" || type === "month" || type === "year";
}
