import { walkTags } from "./start-tags.ts";

const PICTURES: ReadonlySet<string> = new Set(["img"]);

/** The addresses that the pictures of a document come from, as they are written, in source order. */
export function pictureAddresses(html: string): string[] {
  if (!html.includes("<img")) return [];
  const found: string[] = [];
  walkTags(
    html,
    {
      startTag(tag) {
        const src = tag.value("src");
        if (src !== undefined) found.push(src);
      },
    },
    PICTURES,
  );
  return found;
}
