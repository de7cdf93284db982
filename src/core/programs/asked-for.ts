import type { ProgramInput } from "./program.ts";
import type { ProgramState } from "./choices.ts";

/** What programs are narrowed by; an empty or absent field narrows nothing. */
export interface ProgramsAsked {
  q?: string;
  network?: string;
  state?: ProgramState | "";
  tag?: string;
}

/** True for a program that has all the words and is of the network, state and tag that were asked for. */
export function isAskedFor(
  program: Pick<ProgramInput, "name" | "network" | "state" | "tags" | "notes" | "domains" | "nextStep">,
  { q = "", network, state, tag }: ProgramsAsked,
): boolean {
  const { name, notes, domains, nextStep, tags } = program;
  const words = q.toLowerCase().split(/\s+/).filter(Boolean);
  const text = [name, program.network, notes, nextStep, ...tags, ...domains].join("\n").toLowerCase();
  return (
    (!network || program.network === network) &&
    (!state || program.state === state) &&
    (!tag || tags.includes(tag)) &&
    words.every((word) => text.includes(word))
  );
}
