/** The rel tokens that rules manage, in the order in which they are delivered. */
export const MANAGED_TOKENS = ["nofollow", "sponsored", "ugc", "noopener", "noreferrer", "external"] as const;

export type ManagedToken = (typeof MANAGED_TOKENS)[number];
