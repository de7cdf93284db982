const DAY = new Intl.DateTimeFormat("en-GB", { day: "numeric", month: "short", year: "numeric" });
const MINUTE = new Intl.DateTimeFormat("en-GB", { hour: "2-digit", minute: "2-digit" });
const RELATIVE = new Intl.RelativeTimeFormat("en", { numeric: "auto" });

/** A moment in words: the minute of today, days ago within a week, else the date. */
export function when(iso: string, now = Date.now()): string {
  const at = new Date(iso);
  const days = Math.round((startOfDay(at.getTime()) - startOfDay(now)) / 86_400_000);
  if (days === 0) return MINUTE.format(at);
  return days > -7 && days < 0 ? RELATIVE.format(days, "day") : DAY.format(at);
}

function startOfDay(at: number): number {
  return new Date(at).setHours(0, 0, 0, 0);
}
