import { TZDate } from "@date-fns/tz";
import { isDay } from "./iso-day.ts";

const CLOCK_TIME = /^(\d{4}-\d\d-\d\d)T([01]\d|2[0-3]):([0-5]\d)(?::([0-5]\d))?$/;

const zoneHere = (): string => Intl.DateTimeFormat().resolvedOptions().timeZone;

/**
 * What the clocks of a time zone show at an instant, such as 2026-11-23T14:30, with seconds where they are not 0; empty
 * where there is no instant. Without a zone, the clocks of this machine.
 */
export function clockTimeOf(iso: string | null | undefined, timeZone: string | undefined): string {
  if (!iso) return "";
  const shown = new TZDate(iso, timeZone ?? zoneHere()).toISOString().slice(0, 19);
  return shown.endsWith(":00") ? shown.slice(0, -3) : shown;
}

/** The instant, in UTC, at which the clocks of a time zone show that; what is no time of a clock is answered as it was typed. */
export function instantOf(clockTime: string, timeZone: string | undefined): string {
  const [, day, hour, minute, second = "0"] = CLOCK_TIME.exec(clockTime) ?? [];
  if (day === undefined || !isDay(day)) return clockTime;
  const [year, month, date] = day.split("-").map(Number) as [number, number, number];
  const at = new TZDate(
    year,
    month - 1,
    date,
    Number(hour),
    Number(minute),
    Number(second),
    timeZone ?? zoneHere(),
  );
  return new Date(at.getTime()).toISOString();
}

/** Whether that is a day and a time, as a field of them has it. */
export function isClockTime(text: string): boolean {
  return isDay(CLOCK_TIME.exec(text)?.[1] ?? "");
}
