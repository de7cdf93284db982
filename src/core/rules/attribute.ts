import { MANAGED_TOKENS, type ManagedToken } from "./choices.ts";

/** Something a rule or an override can decide about a link. */
export type Attribute = ManagedToken | "target";
export const ATTRIBUTES: readonly Attribute[] = [...MANAGED_TOKENS, "target"];
