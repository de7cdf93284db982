/** What an entry of the navigation can be. */
export const NAVIGATION_KINDS = ["page", "address", "route", "file", "heading"] as const;
export type NavigationKind = (typeof NAVIGATION_KINDS)[number];

export const MAX_LEVELS = 3;
