import type { SiteHost } from "../../../core/sites/host.ts";
import { count } from "../../../ui/format/format.ts";

/** What hangs on a host, in a sentence or two: what stops, or moves, where it is changed. */
export function whatHangsOn({ name, role, routes, shortLinks, pages, links }: SiteHost): string {
  const parts = [
    [routes, "route that answers nowhere else", "routes that answer nowhere else"],
    [pages, "page", "pages"],
    [links, "link in a text that names it", "links in texts that name it"],
  ] as const;
  const there = parts.flatMap(([number, one, many]) =>
    number === 0 ? [] : [`${count(number)} ${number === 1 ? one : many}`],
  );
  const codes =
    shortLinks === 0
      ? ""
      : ` ${count(shortLinks)} short ${shortLinks === 1 ? "link answers" : "links answer"} there, and ${shortLinks === 1 ? "its code" : "their codes"} may be in print.`;
  const hangs = there.length === 0 ? `Nothing hangs on ${name} alone.` : `On it hang ${inWords(there)}.`;
  return role === "former" ? hangs : hangs + codes;
}

function inWords(parts: readonly string[]): string {
  return parts.length === 1 ? parts[0]! : `${parts.slice(0, -1).join(", ")} and ${parts.at(-1)!}`;
}
