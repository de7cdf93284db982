const ISO_DAY = /^\d{4}-\d\d-\d\d$/;

/** Whether that is a day of the calendar, written as ISO 8601 does: 2026-11-23. */
export function isDay(text: string): boolean {
  return (
    ISO_DAY.test(text) && !Number.isNaN(Date.parse(text)) && new Date(text).toISOString().startsWith(text)
  );
}
