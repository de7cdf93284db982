import { MANAGED_TOKENS, type ManagedToken } from "./choices.ts";

/** What an author set on one link by hand; it beats every rule. Absent: left to the rules. */
export type Override = Partial<Record<ManagedToken, "on" | "off">> & { target?: "new" | "same" };

/**
 * Reads a `data-override` attribute such as `nofollow=off sponsored=on target=same`.
 * Words it does not know come back in `unknown`, so that a slip is told and not swallowed.
 */
export function parseOverride(text: string): { override: Override; unknown: string[] } {
  const override: Override = {};
  const unknown: string[] = [];
  for (const word of text.trim().split(/\s+/).filter(Boolean)) {
    const [name, value] = word.toLowerCase().split("=");
    if (name === "target" && (value === "new" || value === "same")) override.target = value;
    else if (isManaged(name) && (value === "on" || value === "off")) override[name] = value;
    else unknown.push(word);
  }
  return { override, unknown };
}

/** Writes an override in its one canonical form; undefined when it says nothing. */
export function formatOverride(override: Override): string | undefined {
  const words: string[] = MANAGED_TOKENS.filter((token) => override[token]).map(
    (token) => `${token}=${override[token]}`,
  );
  if (override.target) words.push(`target=${override.target}`);
  return words.length > 0 ? words.join(" ") : undefined;
}

/** True for the rel tokens that rules and overrides may set. */
export function isManaged(token: string | undefined): token is ManagedToken {
  return (MANAGED_TOKENS as readonly string[]).includes(token ?? "");
}
