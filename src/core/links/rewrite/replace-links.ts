import { walkTags } from "../start-tags.ts";
import { findLinks, type LinkInHtml } from "../find.ts";

/**
 * Puts something else in the place of whole links, start tag to end tag; `decide` is asked for each in source order and
 * answers HTML, or undefined for a link that stays. Only for fragments as they are stored, where no link is open or
 * inside another one.
 */
export function replaceLinks(
  html: string,
  decide: (link: LinkInHtml, inside: string, ordinal: number) => string | undefined,
): string {
  const ends: number[] = [];
  let next = 0;
  walkTags(
    html,
    { startTag() {}, endTag: (name, start) => void (name === "a" && ends.push(start)) },
    ANCHORS,
  );
  const pieces: string[] = [];
  let from = 0;
  for (const [ordinal, link] of findLinks(html).entries()) {
    // Both stand in source order.
    while (next < ends.length && ends[next]! < link.tag.end) next += 1;
    const end = ends[next];
    if (link.tag.name !== "a" || end === undefined) continue;
    // The name's place is told; the tag begins two signs before it.
    const inside = html.slice(link.tag.end, end - 2);
    const put = decide(link, inside, ordinal);
    if (put === undefined) continue;
    pieces.push(html.slice(from, link.tag.start), put);
    from = html.indexOf(">", end) + 1;
  }
  pieces.push(html.slice(from));
  return pieces.join("");
}

const ANCHORS: ReadonlySet<string> = new Set(["a"]);
