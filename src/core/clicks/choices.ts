/** What clicks can be counted by. */
export const CLICK_GROUPINGS = ["day", "route", "referrer", "page", "program", "device", "hour"] as const;

export type ClickGrouping = (typeof CLICK_GROUPINGS)[number];
