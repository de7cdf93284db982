import { withoutEnds } from "../text/cut.ts";

/** What a sub-ID can tell placements apart by. */
export interface Placement {
  site?: string;
  page?: string;
  /** Which of the page's links to the program it is, from 1. */
  position?: number;
  text?: string;
}

const PART = /\{([^{}]*)\}/g;
const PARTS = ["site", "page", "position", "text"] as const;
const UNUSABLE = /[^A-Za-z0-9._~-]/;

export const DEFAULT_SUB_ID = "{page}-{position}";

/** What is wrong with a pattern for sub-IDs; undefined when it is fine. An empty one makes no sub-IDs. */
export function subIdPatternFault(pattern: string): string | undefined {
  const unknown = [...pattern.matchAll(PART)].find(
    ([, name]) => !(PARTS as readonly string[]).includes(name!),
  );
  if (unknown) return `“${unknown[0]}” is not known; {site}, {page}, {position} and {text} are filled in.`;
  const bare = pattern.replace(PART, "");
  if (/[{}]/.test(bare)) return "A brace stands alone; parts are written {page}.";
  if (UNUSABLE.test(bare)) return "Between the parts stand letters, digits, hyphens, dots and underscores.";
  return undefined;
}

/** Fills a pattern: each part in lower-case letters, digits and hyphens; what is not known leaves no gap. */
export function fillSubId(pattern: string, placement: Placement): string {
  return pattern
    .replace(PART, (_, name: (typeof PARTS)[number]) => plain(String(placement[name] ?? "")))
    .replace(/([._~-])[._~-]+/g, "$1")
    .replace(/^[._~-]|[._~-]$/g, "");
}

/** A sub-ID within its limit: one that is too long loses its middle, not the position at its end that tells it apart. */
export function fitSubId(subId: string, most: number): string {
  if (subId.length <= most) return subId;
  const tail = tailOf(subId);
  return `${withoutEnds(subId.slice(0, Math.max(0, most - tail.length)), "._~-")}${tail}`;
}

// The digits at its end, with the sign before them.
function tailOf(subId: string): string {
  let at = subId.length;
  while (at > 0 && /\d/.test(subId[at - 1]!)) at -= 1;
  if (at === subId.length) return "";
  return subId.slice(at > 0 && "._~-".includes(subId[at - 1]!) ? at - 1 : at);
}

/** What is wrong with a sub-ID; undefined when it may go into a link. */
export function subIdFault(subId: string, most: number): string | undefined {
  if (subId.length > most)
    return `The sub-ID has ${subId.length} characters, the program takes ${most}: networks cut the rest off, and the placement is no longer told.`;
  if (UNUSABLE.test(subId))
    return "A sub-ID is letters, digits, hyphens, dots and underscores; networks change or drop everything else.";
  if (subId !== "" && !/[A-Za-z0-9]/.test(subId)) return "A sub-ID has a letter or a digit in it.";
  return undefined;
}

function plain(text: string): string {
  return text
    .normalize("NFKD")
    .replace(/\p{Mark}/gu, "")
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, "-")
    .replace(/^-|-$/g, "");
}
