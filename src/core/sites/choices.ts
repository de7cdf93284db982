export const HOST_ROLES = ["primary", "short", "other"] as const;

export const ALL_ROLES = [...HOST_ROLES, "former"] as const;

/**
 * What a host is for: the primary one and others answer pages and routes, a short one routes alone. A former one leads to
 * another, path by path, and comes of renaming alone.
 */
export type HostRole = (typeof ALL_ROLES)[number];

export const BIN_KINDS = ["page", "block", "route", "file", "program", "creative", "rule", "view"] as const;

/** How many days what was deleted stands in the bin. */
export const BIN_DAYS = 30;

export const SLASHES = ["written", "without", "with"] as const;
