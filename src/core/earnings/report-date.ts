/** In which order a report writes day, month and year. */
export const DATE_ORDERS = ["ymd", "dmy", "mdy"] as const;
export type DateOrder = (typeof DATE_ORDERS)[number];

const FORM =
  /^(\d{1,4})[-/. ](\d{1,2}|[A-Za-z]{3,9})[-/. ](\d{1,4})(?:[T ,]+(\d{1,2}):(\d{2})(?::(\d{2})(?:\.\d{1,9})?)?\s{0,3}(AM|PM)?\s{0,3}(Z|UTC|GMT|[+-]\d{2}:?\d{2})?)?$/i;
const MONTHS = ["jan", "feb", "mar", "apr", "may", "jun", "jul", "aug", "sep", "oct", "nov", "dec"];

// The usual form, which the engine reads faster; the day is told apart where a month may be too short for it.
const USUAL = /^\d{4}-\d\d-(?:0[1-9]|1\d|2[0-8])T(?:[01]\d|2[0-3]):\d\d:\d\d(?:\.\d{1,3})?Z$/;

/** Reads a report's date, in UTC where no offset is given; undefined when it is none in that order. */
export function readReportDate(text: string, order: DateOrder): number | undefined {
  if (order === "ymd" && USUAL.test(text)) {
    const at = Date.parse(text);
    return Number.isNaN(at) ? undefined : at;
  }
  const found = FORM.exec(text.trim());
  if (!found) return undefined;
  const [, first, second, third, hour = "0", minute = "0", seconds = "0", half, offset] = found;
  const year = yearOf((order === "ymd" ? first : third)!);
  const month = monthOf((order === "mdy" ? first : second)!);
  const day = Number(order === "ymd" ? third : order === "dmy" ? first : second);
  const hours = half ? (Number(hour) % 12) + (half.toUpperCase() === "PM" ? 12 : 0) : Number(hour);
  if (year === undefined || month === undefined || hours > 23 || Number(minute) > 59 || Number(seconds) > 59)
    return undefined;
  const at = Date.UTC(year, month - 1, day, hours, Number(minute), Number(seconds));
  // The 31st of February is no day, whatever Date makes of it.
  if (day < 1 || (day > 28 && new Date(at).getUTCDate() !== day)) return undefined;
  return at - offsetOf(offset);
}

function yearOf(text: string): number | undefined {
  if (/^\d{4}$/.test(text)) return Number(text);
  return /^\d{2}$/.test(text) ? 2000 + Number(text) : undefined;
}

function monthOf(text: string): number | undefined {
  const month = Number(text);
  if (month >= 1 && month <= 12) return month;
  const named = MONTHS.indexOf(text.slice(0, 3).toLowerCase());
  return named === -1 ? undefined : named + 1;
}

function offsetOf(text: string | undefined): number {
  const found = text && /^([+-])(\d{2}):?(\d{2})$/.exec(text);
  if (!found) return 0;
  const minutes = Number(found[2]) * 60 + Number(found[3]);
  return (found[1] === "-" ? -minutes : minutes) * 60_000;
}

/** The orders in which all of these dates can be read: more than one when the days are all small. */
export function possibleOrders(texts: readonly string[]): DateOrder[] {
  const dates = texts.filter((text) => text.trim() !== "");
  if (dates.length === 0) return [];
  return DATE_ORDERS.filter((order) => dates.every((text) => readReportDate(text, order) !== undefined));
}
