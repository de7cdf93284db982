import type { SiteHost } from "../../../core/sites/host.ts";
import { count } from "../../../ui/format/format.ts";
import * as say from "../words.ts";

/** What hangs on a host, in a sentence or two: what stops, or moves, where it is changed. */
export function whatHangsOn({ name, role, routes, shortLinks, pages, links }: SiteHost): string {
  const parts = [
    [routes, say.routeThatAnswersNowhereElse, say.routesThatAnswerNowhereElse],
    [pages, "page", "pages"],
    [links, say.linkInATextThatNamesIt, say.linksInTextsThatNameIt],
  ] as const;
  const there = parts.flatMap(([number, one, many]) =>
    number === 0 ? [] : [`${count(number)} ${number === 1 ? one : many}`],
  );
  const codes =
    shortLinks === 0
      ? ""
      : say.shortThereAndMayBeInPrint(
          count(shortLinks),
          shortLinks === 1 ? say.linkAnswers : say.linksAnswer,
          shortLinks === 1 ? say.itsCode : say.theirCodes,
        );
  const hangs = there.length === 0 ? say.nothingHangsOnAlone(name) : say.onItHang(inWords(there));
  return role === "former" ? hangs : hangs + codes;
}

function inWords(parts: readonly string[]): string {
  return parts.length === 1 ? parts[0]! : say.and(parts.slice(0, -1).join(", "), parts.at(-1)!);
}
