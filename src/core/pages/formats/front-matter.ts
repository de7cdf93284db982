import { parse, stringify } from "yaml";
import type { WrittenPageSearch } from "../search.ts";

/** What a file tells of its page beside the text. */
export interface PageMeta {
  title?: string;
  path?: string;
  description?: string;
  category?: string;
  inNavigation?: boolean;
  search?: WrittenPageSearch;
}

// Each fence is a line of its own: a value may end in hyphens.
const FENCE = /^\uFEFF?---[ \t]*\r?\n(?:([\s\S]*?)\r?\n)?---[ \t]*(?:\r?\n|$)/;

/** Takes the front matter (YAML between two lines of three hyphens) off a text. What it says wrongly is told. */
export function readFrontMatter(text: string): { meta: PageMeta; rest: string; faults: string[] } {
  const fence = FENCE.exec(text);
  if (!fence) return { meta: {}, rest: text.replace(/^\uFEFF/, ""), faults: [] };
  const rest = text.slice(fence[0].length).replace(/^\r?\n/, "");
  let data: unknown;
  try {
    data = parse(fence[1] ?? "", { maxAliasCount: 0 });
  } catch (error) {
    const why = error instanceof Error ? error.message.split("\n")[0]! : "unreadable";
    return { meta: {}, rest, faults: [`The front matter cannot be read: ${why}`] };
  }
  if (typeof data !== "object" || data === null) return { meta: {}, rest, faults: [] };
  const meta: PageMeta = {};
  const faults: string[] = [];
  for (const [name, value] of Object.entries(data)) {
    if (name === "inNavigation" && typeof value === "boolean") meta.inNavigation = value;
    else if (name === "search" && typeof value === "object" && value !== null)
      meta.search = value as WrittenPageSearch;
    else if (isTextField(name) && (typeof value === "string" || typeof value === "number"))
      meta[name] = String(value);
    else faults.push(`The front matter's field “${name}” was left out.`);
  }
  return { meta, rest, faults };
}

/** Writes front matter in front of a text; fields that are empty are left out. */
export function withFrontMatter(meta: PageMeta, text: string): string {
  const told = Object.fromEntries(Object.entries(meta).filter(([, value]) => !isNothing(value)));
  return `---\n${stringify(told, { lineWidth: 0 })}---\n\n${text}`;
}

function isNothing(value: unknown): boolean {
  const isEmpty = typeof value === "object" && value !== null && Object.keys(value).length === 0;
  return value === undefined || value === "" || value === false || isEmpty;
}

function isTextField(name: string): name is "title" | "path" | "description" | "category" {
  return ["title", "path", "description", "category"].includes(name);
}
