export const PROGRAM_STATES = ["considering", "applied", "approved", "paused", "closed"] as const;

export type ProgramState = (typeof PROGRAM_STATES)[number];

/** States in which links to a program's domains count as its links: it was joined. */
export const JOINED: readonly ProgramState[] = ["approved", "paused", "closed"];

export const COMMISSION_KINDS = ["percent", "flat"] as const;

export const COMMISSION_FOR = ["sale", "lead", "click"] as const;
