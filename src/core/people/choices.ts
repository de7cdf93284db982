export const ROLES = ["owner", "editor", "reader"] as const;

/** What a person or a token may do: an owner everything, an editor content and routes, a reader look. */
export type Role = (typeof ROLES)[number];

/** How long a session lasts at most, and how long without being used. */
export const SESSION_DAYS = 14;

export const SESSION_IDLE_DAYS = 4;
